/** Sealing 100 pages with 400 initials, against loading and saving the same document with nothing done to it. */
import { PDFDocument } from '@cantoo/pdf-lib';
import { seal } from '../server/pdf-sealing/seal';
import { paper } from '../server/test/papers';
import { testSigning } from '../server/test/seal';
import { median, rowOf, type Row } from './measure';

const PAGES = 100;
/** Many, since each makes so much to clear away that single ones differ by half. */
const RUNS = 25;
const PEOPLE = ['WA', 'CA', 'TM', 'PM'];

export async function rows(): Promise<Row[]> {
  const bytes = await paper({ pages: PAGES });
  const fills = Array.from({ length: PAGES * PEOPLE.length }, (_, i) => ({
    markId: `m${i}`,
    documentId: 'd',
    page: 1 + (i % PAGES),
    rect: { x: 60 + (i % PEOPLE.length) * 70, y: 740, w: 54, h: 22 },
    kind: 'initials' as const,
    partyId: 'wren',
    ink: 0,
    shows: { form: 'typed' as const, face: 'caveat' as const, text: PEOPLE[i % PEOPLE.length]! },
  }));
  // Made once, as a server has it: a key takes longer to make than a hundred pages to seal.
  const signing = testSigning()();
  const ours = await median(
    () =>
      seal({
        bytes,
        fills,
        redlines: [],
        names: {},
        room: { marks: [], signers: [], records: [] },
        records: [],
        recordPageWords: { kept: [], unused: [] },
        pictures: {},
        signing,
      }),
    RUNS,
  );
  const theirs = await median(async () => {
    const doc = await PDFDocument.load(bytes, { updateMetadata: false });
    await doc.save({ useObjectStreams: false });
  }, RUNS);
  return [rowOf('seal 100 pages with 400 initials', ours, 'pdf-lib bare load and save', theirs)];
}
