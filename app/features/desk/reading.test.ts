import type { DocumentView } from '@gatepath/contract';
import { waitsForReading } from '../../api/hooks';
import { underWay } from '../../test/office';

const doc = (id: string, status: DocumentView['status']) => ({ id, status }) as DocumentView;

test('a draft is asked for again only while one of its own documents is being read', () => {
  const { packet } = underWay({ packet: { status: 'drafting' } });
  const draft = { ...packet.draft, documents: [{ id: 'a' }] };
  const waits = (...documents: DocumentView[]) => waitsForReading({ ...packet, draft, documents });
  expect(waits(doc('a', 'reading'))).toBe(true);
  expect(waits(doc('a', 'ready'), doc('b', 'reading'))).toBe(false);
  expect(waitsForReading(undefined)).toBe(false);
  expect(waitsForReading({ ...packet, draft, status: 'at_gate', documents: [doc('a', 'reading')] })).toBe(false);
});
