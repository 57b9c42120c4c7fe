/** The demo's own papers: what is promised of them, and initials on every page clear of their print. */
import { PDFDocument } from '@cantoo/pdf-lib';
import type { DealView } from '@gatepath/contract';
import { viewDraft } from '@gatepath/core/checks';
import {
  peopleWithoutLine,
  type DocumentFacts,
  type Draft,
  type Mark,
  type PacketParty,
  acceptEdits,
  applyEdits,
  canAccept,
  emptyDraft,
  proposalsOf,
} from '@gatepath/core/packet';
import { overlapArea } from '@gatepath/core/paper';
import type { Side } from '@gatepath/core/text';
import type { PrintedPlace } from '@gatepath/core/reading';
import { documentOr404, factsFiles } from '../server/documents/service';
import { factsIn } from '../server/pdf/facts-file';
import { TestServer } from '../server/test/harness';
import { inkUnder } from '../server/test/pixels';
import { captionsOn } from './captions';
import { agencyDisclosure, listingAgreement, sellersDisclosure } from './papers';

jest.setTimeout(120_000);

let server: TestServer;
let deal: DealView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('14 Lantern Row', ['Wren', 'Callum', 'Tobias']);
});
afterAll(() => server.stop());

const PAPERS = [
  ['listing agreement', () => listingAgreement('14 Lantern Row'), 6, ['Seller 1', 'Seller 2', 'Listing broker']],
  ['seller’s disclosure', () => sellersDisclosure('14 Lantern Row'), 5, ['Seller 1', 'Seller 2', 'Buyer 1', 'Buyer 2']],
  ['agency disclosure', () => agencyDisclosure(), 2, ['Seller or landlord', 'Buyer or tenant']],
] as const;

test.each(PAPERS)(
  'the %s has its pages, and its signature block stands together on the last',
  async (_, make, pages, captions) => {
    const bytes = await make();
    expect((await PDFDocument.load(bytes)).getPageCount()).toBe(pages);
    expect([...(await captionsOn(bytes, pages, [...captions])).keys()].sort()).toEqual([...captions].sort());
  },
);

const count = (places: PrintedPlace[]) => {
  const out: Record<string, number> = {};
  for (const p of places) out[`${p.kind} ${p.role}`] = (out[`${p.kind} ${p.role}`] ?? 0) + 1;
  return out;
};

test('what is printed on the demo papers is read: every line, blank and box, and nothing else', async () => {
  const read = async (bytes: Uint8Array) => count((await server.ctx.work.run('inspect', { bytes })).places);
  expect(await read(await listingAgreement('14 Lantern Row'))).toEqual({
    'text unknown': 5,
    'date unknown': 2,
    'signature seller': 2,
    'signature broker': 1,
    'date seller': 2,
    'date broker': 1,
    'initials seller': 12,
  });
  const disclosure = await read(await sellersDisclosure('14 Lantern Row'));
  expect(disclosure).toEqual({
    'checkbox unknown': 132,
    'text unknown': 8,
    'initials seller': 10,
    'signature seller': 2,
    'signature buyer': 2,
    'date seller': 2,
    'date buyer': 2,
  });
  expect(await read(await agencyDisclosure())).toMatchObject({
    'signature seller': 2,
    'signature buyer': 2,
    'signature broker': 1,
    'checkbox unknown': 9,
  });
});

/** Returns the ink under a mark, apart from the line at the foot of a blank that is printed for it. */
function printUnder(facts: DocumentFacts, documentId: string, m: Pick<Mark, 'page' | 'rect'>): Promise<number> {
  const inBlank = facts.places.some(
    (p) => p.page === m.page && overlapArea(p.rect, m.rect) > 0.9 * m.rect.w * m.rect.h,
  );
  return inkUnder(server.ctx, documentId, m.page, inBlank ? { ...m.rect, h: m.rect.h - 4 } : m.rect);
}

test.each(PAPERS)(
  'with five people a side, everything the product places on the %s is clear of print and of each other',
  async (name, make) => {
    const doc = await server.uploadReady(deal.id, `${name} for five.pdf`, await make());
    const row = await documentOr404(server.ctx.database.pool, doc.id);
    const facts = await factsIn(factsFiles(server.ctx, [row]));
    const side = (s: Side, first: string): PacketParty[] =>
      Array.from({ length: 5 }, (_, i) => ({
        id: `${s}${i}`,
        name: `${first} Alder ${i + 1}`,
        email: `${s}${i}@example.com`,
        phone: null,
        side: s,
        ordinal: i + 1,
        act: 'sign',
        ink: i,
      }));
    const draft: Draft = {
      ...emptyDraft(name),
      documents: [{ id: doc.id }],
      parties: [...side('seller', 'Wren'), ...side('buyer', 'Priya')],
    };
    const read = proposalsOf(draft, facts).filter(canAccept);
    expect(read.some((p) => p.beside)).toBe(true);
    const after = applyEdits(draft, acceptEdits(read, draft.parties));
    const printed = new Set(facts[0]!.places.filter((p) => p.kind === 'signature').map((p) => p.role));
    // Whoever found no room beside the printed lines is told of, and gets a page.
    const left = peopleWithoutLine(after, facts[0]!, proposalsOf(after, facts), after.marks);
    for (const party of draft.parties.filter((p) => printed.has(p.side as never)))
      expect(after.marks.some((m) => m.partyId === party.id && m.kind === 'signature') || left.includes(party)).toBe(
        true,
      );
    for (const m of after.marks) expect([m.id, await printUnder(facts[0]!, doc.id, m)]).toEqual([m.id, 0]);
    after.marks.forEach((m, i) =>
      after.marks
        .slice(i + 1)
        .filter((o) => o.page === m.page)
        .forEach((o) => expect([m.id, o.id, overlapArea(m.rect, o.rect)]).toEqual([m.id, o.id, 0])),
    );
  },
);

test.each(PAPERS)(
  'initials on every page of the %s touch no print, wherever they are wished for',
  async (name, make, pages) => {
    const doc = await server.uploadReady(deal.id, `${name}.pdf`, await make());
    const row = await documentOr404(server.ctx.database.pool, doc.id);
    const facts = await factsIn(factsFiles(server.ctx, [row]));
    const { draft } = await server.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name, documentIds: [doc.id] },
    });
    for (const [fx, fy] of [
      [0, 1],
      [1, 1],
      [0.5, 0.5],
      [1, 0],
    ] as const) {
      const rule = {
        id: 'r',
        documentId: doc.id,
        partyIds: deal.parties.map((p) => p.id),
        anchor: { fx, fy },
        except: [],
        moved: [],
      };
      const { marks, unplaced } = viewDraft({ ...draft, rules: [rule] }, facts);
      expect([unplaced, marks.length]).toEqual([[], pages * 3]);
      for (const m of marks) expect([m.page, await printUnder(facts[0]!, doc.id, m)]).toEqual([m.page, 0]);
    }
  },
);
