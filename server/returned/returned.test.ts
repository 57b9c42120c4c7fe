/** A paper that came back: what is found on it, what a member says of it, and what comes of it. */
import { chance, lease, scanOf } from '../test/scan';
import { filledIn } from '../test/filled';
import { Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const PEOPLE = [
  { side: 'landlord' as const, name: 'Wren Alder', email: 'wren@example.com' },
  { side: 'tenant' as const, name: 'Callum Alder', email: 'callum@example.com' },
];

/** Returns a deal with an empty lease and the scan of one on which everything but `missing` is filled, looked at. */
async function cameBack(
  address: string,
  isMissing: (kind: string, role: string) => boolean,
  { withBlank = true, people = PEOPLE, pages = 1 } = {},
) {
  const { server } = way;
  const deal = await server.deal(address, people);
  const bytes = await lease({ pages, initials: true });
  const blank = await server.uploadReady(deal.id, 'Lease.pdf', bytes);
  const { places } = await server.ok('documentFacts', { params: { documentId: blank.id } });
  const full = places.filter((p) => !isMissing(p.kind, p.role));
  const scan = await scanOf(await filledIn(bytes, full, chance(9)));
  const back = await server.uploadReady(deal.id, 'Signed.pdf', scan.bytes);
  const params = { documentId: back.id };
  const begun = await server.ok('beginPaperReview', { params, body: { blankId: withBlank ? blank.id : null } });
  expect(begun.status).toBe('checking');
  await server.ctx.jobs.idle('gaps');
  return { deal, blank, back, params, view: await server.ok('paperReview', { params }) };
}

test('a whole paper counts as signed elsewhere; one with a gap does not, until somebody says that it is filled', async () => {
  const { params, view, deal, back } = await cameBack(
    '1 Weir Row',
    (kind, role) => kind === 'initials' && role === 'tenant',
  );
  const gaps = view.places.filter((p) => p.filled !== 'yes');
  expect(gaps.map((p) => [p.kind, p.role, p.filled])).toEqual([['initials', 'tenant', 'no']]);
  const refused = await way.server.call('endReview', { params, body: { how: 'meets', reason: '' } });
  expect([refused.status, refused.raw.toString()]).toEqual([409, expect.stringContaining('gaps-open')]);
  const body = { places: [{ id: gaps[0]!.id, said: 'yes' as const }] };
  expect((await way.server.ok('sayOfPlaces', { params, body })).places.find((p) => p.id === gaps[0]!.id)?.said).toBe(
    'yes',
  );
  expect((await way.server.ok('endReview', { params, body: { how: 'meets', reason: '' } })).ended).toBe('meets');
  await way.server.ctx.jobs.idle('deal');
  const after = await way.server.ok('deal', { params: { dealId: deal.id } });
  expect(after.papers.find((p) => p.documentId === back.id)?.status).toBe('elsewhere');
});

test('it is kept as it is only with a reason', async () => {
  const { params } = await cameBack('2 Weir Row', (kind) => kind === 'initials', { withBlank: false });
  expect((await way.server.call('endReview', { params, body: { how: 'kept', reason: '  ' } })).status).toBe(409);
  const kept = await way.server.ok('endReview', { params, body: { how: 'kept', reason: 'The bank takes it so.' } });
  expect([kept.ended, kept.reason]).toEqual(['kept', 'The bank takes it so.']);
});

test('sent back: marks only where something is missing, and nobody else is asked', async () => {
  const { params } = await cameBack('3 Weir Row', (kind, role) => kind === 'signature' && role === 'landlord');
  const view = await way.server.ok('sendBack', { params });
  const packet = await way.server.ok('packet', { params: { packetId: view.packetId! } });
  expect(packet.draft.parties.map((p) => p.name)).toEqual(['Wren Alder']);
  expect(packet.draft.marks.map((m) => m.kind)).toEqual(['signature']);
  await way.server.send(packet.id);
});

test('asked twice at once there is one packet; thrown away, the gaps are open again', async () => {
  const { params, deal } = await cameBack('6 Weir Row', (kind, role) => kind === 'initials' && role === 'landlord');
  const asked = await Promise.all([1, 2, 3].map(() => way.server.ok('sendBack', { params })));
  const ids = new Set(asked.map((a) => a.packetId));
  expect(ids.size).toBe(1);
  const { packets } = await way.server.ok('deal', { params: { dealId: deal.id } });
  expect(packets.map((p) => p.id)).toEqual([...ids]);
  await way.server.ok('deletePacket', { params: { packetId: [...ids][0]! } });
  expect(await way.server.ok('paperReview', { params })).toMatchObject({ ended: null, packetId: null });
  expect((await way.server.ok('sendBack', { params })).ended).toBe('sent_back');
});

test('nothing is dropped in silence: somebody who is not in the deal is named, and no packet stays behind', async () => {
  const { params, deal } = await cameBack('7 Weir Row', (kind) => kind === 'initials', { people: PEOPLE.slice(0, 1) });
  const refused = await way.server.call('sendBack', { params });
  expect([refused.status, refused.raw.toString()]).toEqual([409, expect.stringContaining('tenant 1')]);
  const { packets } = await way.server.ok('deal', { params: { dealId: deal.id } });
  expect(packets).toEqual([]);
});

test('a page that did not come back is told, and what is doubtful is asked for first', async () => {
  const { server } = way;
  const { blank, deal } = await cameBack('8 Weir Row', () => false, { pages: 2 });
  const first = await lease({ pages: 1, initials: true });
  const back = await server.uploadReady(deal.id, 'One page.pdf', (await scanOf(first)).bytes);
  const params = { documentId: back.id };
  await server.ok('beginPaperReview', { params, body: { blankId: blank.id } });
  await server.ctx.jobs.idle('gaps');
  const view = await server.ok('paperReview', { params });
  expect([...new Set(view.places.filter((p) => p.page === null).map((p) => p.formPage))]).toHaveLength(1);
  const refused = await server.call('sendBack', { params });
  expect([refused.status, refused.raw.toString()]).toEqual([409, expect.stringContaining('did not come back')]);
});

test('a paper that is not there, one of another deal as its form, and a check nobody began', async () => {
  const { params } = await cameBack('4 Weir Row', () => false);
  const other = await way.server.deal('5 Weir Row', PEOPLE);
  const stranger = await way.server.uploadReady(other.id, 'Other.pdf', await lease());
  expect((await way.server.call('beginPaperReview', { params, body: { blankId: stranger.id } })).status).toBe(404);
  expect((await way.server.call('beginPaperReview', { params, body: { blankId: params.documentId } })).status).toBe(
    404,
  );
  expect((await way.server.call('paperReview', { params: { documentId: stranger.id } })).status).toBe(404);
  expect((await way.server.call('sendBack', { params })).status).toBe(409);
});
