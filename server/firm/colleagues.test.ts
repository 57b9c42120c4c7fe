/** Sending in a colleague's name: only who was let, and recorded as what it was. */
import { markEdit, tokenIn, Way } from '../test/way';
import { paper } from '../test/papers';
import { textOf } from '../test/judges';

jest.setTimeout(120_000);

let way: Way;
let odile: string;
let tobias: { id: string; cookie: string };
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
  odile = way.server.cookie;
  tobias = await way.server.member('Tobias Vane', 'tobias@firm.test');
});
afterAll(() => way.stop());

const as = (cookie: string) => (way.server.cookie = cookie);

/** Returns a draft of Odile's that can go. */
async function ready() {
  const deal = await way.server.deal('14 Lantern Row', ['Wren Alder']);
  const doc = await way.server.uploadReady(deal.id, 'paper.pdf', await paper({ pages: 1 }));
  const params = { dealId: deal.id };
  const draft = await way.server.ok('newPacket', { params, body: { name: 'Papers', documentIds: [doc.id] } });
  const who = deal.parties[0]!.id;
  const place = { x: 72, y: 640, w: 160, h: 26 };
  await way.server.edit(draft.id, [markEdit('s', doc.id, 1, 'signature', who, place)]);
  return way.server.ok('packet', { params: { packetId: draft.id } });
}
const send = (p: { id: string; version: number }) =>
  way.server.call('sendPacket', {
    params: { packetId: p.id },
    body: { version: p.version, despiteWarnings: true, forId: tobias.id },
  });

test('who was not let cannot, and nobody is let who is not of the firm', async () => {
  const p = await ready();
  const no = await send(p);
  expect([no.status, no.problem.type]).toEqual([403, '/problems/not-allowed-for']);
  expect((await way.server.ok('packet', { params: { packetId: p.id } })).status).toBe('drafting');
  const unknown = await way.server.call('setLets', { body: { lets: ['nobody'] } });
  expect(unknown.problem.type).toBe('/problems/unknown-member');
});

test('let by a colleague it goes out in their name, answers come to them, and the record says who sent it', async () => {
  as(tobias.cookie);
  const { others } = await way.server.ok('colleagues');
  await way.server.ok('setLets', { body: { lets: [others[0]!.id] } });
  as(odile);
  expect((await way.server.ok('colleagues')).mayFor.map((m) => m.name)).toEqual(['Tobias Vane']);
  const p = await ready();
  const sent = (await send(p)).body;
  expect(sent.sent!.activity.map((a) => a.sentence)).toContain('Odile Farrant for Tobias Vane sent the packet.');
  const { items } = await way.server.ok('mailroom', { query: { packetId: p.id } });
  const ask = items.find((m) => m.kind === 'ask')!;
  const mail = await way.server.ok('message', { params: { messageId: ask.id } });
  expect(mail.bodyText).toContain('Tobias Vane of Towpath & Vane Realty asks you');
  await way.server.sign(tokenIn(mail), { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' });
  await way.server.ctx.jobs.idle('seal');
  const told = (await way.server.ok('mailroom', { query: { packetId: p.id } })).items.find(
    (m) => m.kind === 'notice_executed',
  );
  expect(told?.toName).toBe('Tobias Vane');
  const done = await way.server.ok('packet', { params: { packetId: p.id } });
  const params = { packetId: p.id, documentId: done.sent!.sealed![0]!.documentId };
  expect(await textOf((await way.server.call('sealedCopy', { params })).raw)).toContain(
    'Sent by Odile Farrant for Tobias Vane',
  );
});

test('taken back it holds no more', async () => {
  as(tobias.cookie);
  await way.server.ok('setLets', { body: { lets: [] } });
  as(odile);
  expect((await send(await ready())).status).toBe(403);
});
