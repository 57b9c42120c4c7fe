/** Tests papers returned with handwritten signatures, and scans whose text layer cannot be written. */
import type { TestServer } from './test/harness';
import { filledIn } from './test/filled';
import { chance, lease, scanOf } from './test/scan';
import { serverAtNoon } from './test/way';
import { WorkFailure } from './work/failure';

jest.setTimeout(180_000);

let server: TestServer;
serverAtNoon((way) => {
  server = way.server;
});

describe('papers that came back, and scans', () => {
  const PEOPLE = [
    { side: 'landlord' as const, name: 'Wren Alder', email: 'wren@example.com' },
    { side: 'tenant' as const, name: 'Callum Alder', email: 'callum@example.com' },
  ];
  test('a paper that was sent back is not checked anew; what was said of its places stays said', async () => {
    const deal = await server.deal('1 Weir Row', PEOPLE);
    const bytes = await lease({ initials: true });
    const blank = await server.uploadReady(deal.id, 'Lease.pdf', bytes);
    const { places } = await server.ok('documentFacts', { params: { documentId: blank.id } });
    const full = places.filter((p) => p.kind !== 'initials');
    const scan = await scanOf(await filledIn(bytes, full, chance(9)));
    const back = await server.uploadReady(deal.id, 'Signed.pdf', scan.bytes);
    const params = { documentId: back.id };
    const check = async () => {
      const answer = await server.call('beginPaperReview', { params, body: { blankId: blank.id } });
      await server.ctx.jobs.idle('gaps');
      return answer;
    };
    await check();
    const first = await server.ok('paperReview', { params });
    const gaps = first.places.filter((p) => p.filled !== 'yes');
    expect(gaps.length).toBeGreaterThan(1);
    await server.ok('sayOfPlaces', { params, body: { places: [{ id: gaps[0]!.id, said: 'yes' }] } });
    await check();
    const second = await server.ok('paperReview', { params });
    expect(second.places.filter((p) => p.said === 'yes')).toHaveLength(1);
    const sent = await server.ok('sendBack', { params });
    const again = await check();
    expect([again.status, again.problem.type]).toEqual([409, '/problems/sent-back']);
    expect(await server.ok('paperReview', { params })).toMatchObject({ ended: 'sent_back', packetId: sent.packetId });
    expect((await server.ok('sendBack', { params })).packetId).toBe(sent.packetId);
    await server.ok('deletePacket', { params: { packetId: sent.packetId! } });
    expect((await check()).status).toBe(200);
  });

  test('a scan whose words cannot be laid is read without them', async () => {
    const deal = await server.deal('2 Weir Row', PEOPLE);
    const scan = await scanOf(await lease());
    const doc = await server.withTask(
      ['layWords'],
      () => new WorkFailure('time', 'layWords', null, 1),
      () => server.uploadReady(deal.id, 'Scan.pdf', scan.bytes),
    );
    expect([doc.status, doc.leftOut]).toEqual(['ready', [{ what: 'words', n: 1 }]]);
  });
});
