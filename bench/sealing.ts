/** Sealing: what one party's seal costs in time and bytes, in a packet of thirty documents and six parties. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { ShownFill } from '@gatepath/core/packet';
import { seal, type Room } from '../server/pdf-sealing/seal';
import { testSigning } from '../server/test/seal';
import { rowOf, type Row } from './measure';

const DOCUMENTS = 30;
const PAGES = 10;
const PARTIES = ['WA', 'CA', 'PN', 'MI', 'AT', 'TM'];

async function document(n: number): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let p = 1; p <= PAGES; p++) {
    const page = doc.addPage([612, 792]);
    for (let y = 720; y > 90; y -= 14)
      page.drawText(`${n}.${p} The owner keeps the mooring posts and the shed in good order and insured.`, {
        x: 72,
        y,
        size: 10,
        font,
      });
  }
  return doc.save({ useObjectStreams: false });
}

/** Returns one party's acts on a document: initials on every page, a signature and its date on the last. */
function fillsOf(i: number): ShownFill[] {
  const text = PARTIES[i]!;
  const base = { documentId: 'd', partyId: text, ink: i };
  const initials = Array.from({ length: PAGES }, (_, p): ShownFill => ({
    ...base,
    markId: `${p}-${i}`,
    page: p + 1,
    rect: { x: 24 + i * 60, y: 746, w: 54, h: 22 },
    kind: 'initials',
    shows: { form: 'typed', face: 'caveat', text },
  }));
  const y = 300 + i * 40;
  return [
    ...initials,
    {
      ...base,
      markId: `s${i}`,
      page: PAGES,
      rect: { x: 72, y, w: 168, h: 30 },
      kind: 'signature',
      shows: { form: 'typed', face: 'caveat', text: `${text[0]}ren ${text[1]}lder` },
    },
    {
      ...base,
      markId: `d${i}`,
      page: PAGES,
      rect: { x: 260, y, w: 96, h: 18 },
      kind: 'date_signed',
      shows: { form: 'text', text: 'Nov 23, 2026' },
    },
  ];
}

/** Returns the peer: the same document loaded and one page touched, saved incrementally, with no seal and no fonts. */
async function bareSave(bytes: Uint8Array): Promise<number> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false, forIncrementalUpdate: true });
  for (const page of doc.getPages()) page.drawLine({ start: { x: 24, y: 30 }, end: { x: 78, y: 30 } });
  return (await doc.saveIncremental(doc.context.snapshot!, { useObjectStreams: false })).length;
}

/** Measures two rows: time of one seal, and bytes it adds. Every party seals every document, one after another. */
export async function rows(): Promise<Row[]> {
  const signing = testSigning()();
  // With its first seal a document keeps room for the marks of all the others.
  const room: Room = {
    marks: PARTIES.flatMap((_, i) => fillsOf(i)),
    signers: PARTIES.map((_, i) => ({ partyId: PARTIES[i]!, words: `Seller ${i + 1}` })),
    records: [],
  };
  let files = await Promise.all(Array.from({ length: DOCUMENTS }, (_, n) => document(n)));
  const times: number[] = [];
  const peers: number[] = [];
  let added = 0;
  let bare = 0;
  for (let i = 0; i < PARTIES.length; i++) {
    const next: Uint8Array[] = [];
    for (const bytes of files) {
      let t = performance.now();
      bare += await bareSave(bytes);
      peers.push(performance.now() - t);
      t = performance.now();
      const { bytes: made } = await seal({
        bytes,
        fills: fillsOf(i),
        redlines: [],
        names: {},
        room: i === 0 ? room : null,
        records: [],
        recordPageWords: { kept: [], unused: [] },
        pictures: {},
        signing: { ...signing, signer: PARTIES[i]! },
      });
      times.push(performance.now() - t);
      added += made.length - bytes.length;
      next.push(made);
    }
    files = next;
  }
  const middle = (all: number[]) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)]!;
  const n = DOCUMENTS * PARTIES.length;
  return [
    rowOf(
      `one party’s seal, of ${DOCUMENTS} documents by ${PARTIES.length} parties`,
      middle(times),
      'pdf-lib bare incremental save',
      middle(peers),
    ),
    { ...rowOf('bytes that such a seal adds', added / n, 'the same', bare / n), unit: 'bytes' },
  ];
}
