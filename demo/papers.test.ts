/** The demo's own papers: what is promised of them, and initials on every page clear of their print. */
import { PDFDocument } from '@cantoo/pdf-lib';
import type { DealView, PacketView } from '@gatepath/contract';
import { viewDraft } from '@gatepath/core/checks';
import { documentOr404, factsOf } from '../server/documents/service';
import { TestServer } from '../server/test/harness';
import { inkUnder } from '../server/test/pixels';
import { captionsOn } from './captions';
import { agencyDisclosure, listingAgreement, sellersDisclosure } from './papers';

jest.setTimeout(120_000);

let server: TestServer;
let deal: DealView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.ok<DealView>('newDeal', {
    body: {
      kind: 'listing',
      address: '14 Lantern Row',
      parties: ['Wren', 'Callum', 'Tobias'].map((name) => ({ side: 'seller', name, email: `${name}@example.com` })),
    },
  });
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

test.each(PAPERS)(
  'initials on every page of the %s touch no print, wherever they are wished for',
  async (name, make, pages) => {
    const doc = await server.uploadReady(deal.id, `${name}.pdf`, await make());
    const row = await documentOr404(server.ctx.database.pool, doc.id);
    const facts = await factsOf(server.ctx, [row]);
    const { draft } = await server.ok<PacketView>('newPacket', {
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
      for (const m of marks) expect([m.page, await inkUnder(server.ctx, doc.id, m.page, m.rect)]).toEqual([m.page, 0]);
    }
  },
);
