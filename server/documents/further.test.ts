/** Pages for further signatures: in the size of their paper, numbered on, and read like any other. */
import { emptyDraft, furtherName, furtherPlaces, proposalsOf, type PacketParty } from '@gatepath/core/packet';
import { unpackFacts } from '@gatepath/contract/facts';
import { Way } from '../test/way';
import { paper } from '../test/papers';

jest.setTimeout(120_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const person = (side: PacketParty['side'], ordinal: number): PacketParty => ({
  id: `${side}${ordinal}`,
  name: `${side === 'seller' ? 'Wren' : 'Ines'} Alder ${ordinal}`,
  email: `${side}${ordinal}@example.com`,
  phone: null,
  side,
  ordinal,
  act: 'sign',
  ink: 0,
});

test('ten people more than lines have one each behind the paper, and what is there is theirs', async () => {
  const deal = await way.server.deal('14 Lantern Row');
  const doc = await way.server.uploadReady(deal.id, 'Terms.pdf', await paper({ pages: 2, rotate: 90 }));
  const people = [
    ...Array.from({ length: 10 }, (_, i) => person('seller', i + 3)),
    person('buyer_broker', 1),
    person('manager', 1),
  ];
  const body = {
    name: 'Terms',
    parts: [1, 2].map((page) => ({ documentId: doc.id, page, turn: 0 as const })),
    further: people.map(furtherName),
    replaces: [doc.id],
  };
  const made = await way.server.ok('composeDocument', { params: { dealId: deal.id }, body });
  await way.server.ctx.jobs.idle('read');
  const params = { documentId: made.id };
  expect(made.pages.map((p) => [Math.round(p.width), Math.round(p.height)])).toEqual(
    Array(made.pages.length).fill([792, 612]),
  );
  const facts = unpackFacts(made.id, 'Terms', await way.server.ok('documentFacts', { params }));
  const draft = {
    ...emptyDraft('Papers'),
    documents: [{ id: made.id }],
    parties: [person('seller', 1), person('seller', 2), ...people],
  };
  const mine = furtherPlaces(proposalsOf(draft, [facts]), made.id, 2);
  expect(mine.map((p) => [p.kind, p.partyId])).toEqual(
    people.flatMap((p) => [
      ['signature', p.id],
      ['date_signed', p.id],
    ]),
  );
  const text = facts.pages.map((p) => p.words.join(' ')).join(' ');
  expect(text).toContain('Further signatures to “Terms”');
  expect(text).toContain('Page 3, continuing “Terms”');
  for (const p of people) expect(text).toContain(p.name);
});

test('a name that is no line, and more people than a packet holds, are refused', async () => {
  const deal = await way.server.deal('15 Lantern Row');
  const doc = await way.server.uploadReady(deal.id, 'Terms.pdf', await paper({ pages: 1 }));
  const call = (further: { called: string; name: string }[]) =>
    way.server.call('composeDocument', {
      params: { dealId: deal.id },
      body: { name: 'Terms', parts: [{ documentId: doc.id, page: 1, turn: 0 }], further, replaces: [] },
    });
  expect((await call(Array(61).fill({ called: 'Seller 1', name: 'Wren' }))).status).toBe(422);
  expect((await call([{ called: 'Seller 1', name: 'x'.repeat(200) }])).status).toBe(422);
  expect((await call([{ called: 'Seller 1', name: '' }])).status).toBe(422);
});
