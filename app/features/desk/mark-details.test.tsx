/** What can be said of a mark of each kind by typing, and what comes of it. */
import { fireEvent, screen, within } from '@testing-library/react';
import { isAutomatic, isSenders, kinOf, KINDS, MARK_KINDS, takesHand, type Mark } from '@gatepath/core/packet';
import { atDesk } from '../../test/desk';
import { show, underWay } from '../../test/office';
import { PACKET_SETUP } from './desk-setup';
import { openDesk } from './desk-state';
import { MarkDetails } from './mark-details';

const TAGS = new Map([['address', '14 Lantern Row']]);

/** Opens the details of a mark; returns what is saved. */
function details(more: Partial<Mark>): Mark[] {
  const saved: Mark[] = [];
  const mark: Mark = {
    id: 'm',
    documentId: 'doc',
    page: 1,
    kind: 'text',
    partyId: 'wren',
    rect: { x: 40, y: 40, w: 120, h: 20 },
    required: true,
    ...more,
  };
  const { packet } = underWay();
  const { view } = openDesk(packet, PACKET_SETUP);
  show(
    atDesk(
      <MarkDetails mark={mark} onClose={() => undefined} />,
      { view: { ...view, marks: [mark], tags: TAGS } },
      { change: (_was, now) => void saved.push(now as Mark) },
    ),
  );
  return saved;
}
const write = (testID: string, value: string) => fireEvent.change(screen.getByTestId(testID), { target: { value } });
/** Returns the kinds that are offered; undefined where none are. */
const kinds = () => {
  const group = screen.queryByRole('radiogroup', { name: 'Kind' });
  return group ? within(group).getAllByRole('radio') : undefined;
};
const save = () => fireEvent.click(screen.getByTestId('details-save'));

test.each(MARK_KINDS)('%s: only what makes sense is asked', (kind) => {
  details({ kind });
  screen.getByText(`Details: ${KINDS[kind].word}`);
  const asks = (testID: string) => screen.queryByTestId(testID) !== null;
  const own = takesHand(kind) || isAutomatic(kind) || isSenders(kind);
  expect([asks('detail-label'), asks('detail-required')]).toEqual([!own, !isAutomatic(kind) && !isSenders(kind)]);
  // What stands there from the start is asked of what is written, and of a label.
  const { filled } = KINDS[kind];
  const written = filled.by === 'writing' && filled.asks !== 'list';
  expect(asks('detail-value')).toBe(written || isSenders(kind));
  expect(asks('detail-options')).toBe(kind === 'list');
  // The kinds it can be made into stand there as choices, itself among them.
  const offered = kinds()?.map((choice) => choice.getAttribute('data-testid'));
  expect(offered ?? []).toEqual(kinOf(kind).map((k) => `choice-${k}`));
});

test('what is written is saved, and nothing needless with it', () => {
  const saved = details({ kind: 'text', check: { form: 'digits' } });
  write('detail-label', 'Parcel number');
  write('detail-value', 'at {address}');
  screen.getByText('Reads: at 14 Lantern Row');
  fireEvent.click(screen.getByTestId('choice-'));
  save();
  expect(saved).toEqual([expect.objectContaining({ label: 'Parcel number', value: 'at {address}' })]);
  expect(saved[0]!.check).toBeUndefined();
});

test('a mark is made another of its kin and keeps what it is about', () => {
  const saved = details({ kind: 'text', label: 'Where to write to' });
  fireEvent.click(kinds()!.find((choice) => choice.getAttribute('data-testid') === 'choice-email')!);
  save();
  expect(saved[0]).toMatchObject({ kind: 'email', label: 'Where to write to' });
});

test('a pattern that cannot be used is not saved', () => {
  const saved = details({ kind: 'text', check: { form: 'pattern', pattern: '[A-Z' } });
  save();
  expect(saved).toEqual([]);
});

test('a size smaller than can be read is made the least that can', () => {
  const saved = details({ kind: 'text', rect: { x: 40, y: 40, w: 2, h: 2 } });
  save();
  expect(saved[0]!.rect).toMatchObject(KINDS.text.least);
});
