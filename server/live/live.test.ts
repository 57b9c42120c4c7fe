/** Live views over real connections: told, bounded, and ended with the right to hear. */
import { request, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Way, type Sent } from '../test/way';

jest.setTimeout(180_000);

let way: Way;
let sent: Sent;
let port: number;
beforeAll(async () => {
  way = await Way.start();
  await way.server.running.app.listen({ port: 0, host: '127.0.0.1' });
  port = (way.server.running.app.server.address() as AddressInfo).port;
  sent = await way.send([{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }], [{ names: ['Wren', 'Tobias'] }]);
});
afterAll(() => way.stop());

class Stream {
  readonly told: string[] = [];
  ended = false;
  private constructor(private readonly response: IncomingMessage) {
    response.on('data', (d: Buffer) => {
      for (const line of d.toString().split('\n')) if (line.startsWith('data: ')) this.told.push(line.slice(6));
    });
    response.on('close', () => (this.ended = true));
  }
  static open(path: string, cookie = ''): Promise<Stream | number> {
    return new Promise((resolve, reject) => {
      const r = request({ port, host: '127.0.0.1', path, headers: { cookie } }, (response) => {
        if (response.statusCode === 200) return resolve(new Stream(response));
        response.resume();
        resolve(response.statusCode!);
      });
      r.on('error', reject);
      r.end();
    });
  }
  close(): void {
    this.response.destroy();
  }
}
const until = async (what: () => boolean) => {
  for (let n = 0; n < 1_200; n++) {
    if (what()) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error('it never came to that');
};
const stream = async (path: string, cookie?: string) => {
  const s = await Stream.open(path, cookie);
  if (typeof s === 'number') throw new Error(String(s));
  return s;
};
const session = () => `gatepath_session=${way.server.cookie}`;
const open = (token: string) => way.server.call('signing', { params: { token }, as: 'nobody' });

test('an act is told to the packet’s page and to its clients, with how far the log goes', async () => {
  const token = await way.server.tokenFor(sent.packet.id, 'Wren Alder');
  const member = await stream(`/api/live?topics=packet:${sent.packet.id}`, session());
  const client = await stream(`/api/signing/${token}/live`);
  await open(token);
  await until(() => member.told.length > 0 && client.told.length > 0);
  const { seq } = (await way.look(sent.packet.id)).sent!;
  const news = `packet:${sent.packet.id} ${seq}`;
  expect([member.told[0], client.told[0]]).toEqual([news, news]);
  member.close();
  client.close();
});

test('one stream tells of many deals and packets, each by its name', async () => {
  const { deal, packet } = sent;
  const member = await stream(`/api/live?topics=deal:${deal.id},packet:${packet.id},deal:none`, session());
  await way.server.ok('setDeal', { params: { dealId: deal.id }, body: { city: 'Brindle Quay' } });
  await until(() => member.told.includes(`deal:${deal.id}`));
  await way.change(packet.id, { type: 'nudge', partyIds: [sent.id('Wren')] });
  await until(() => member.told.some((t) => t.startsWith(`packet:${packet.id} `)));
  // Background jobs of the sent packet may send the same notice more than once.
  expect(new Set(member.told.map((t) => t.split(' ')[0]))).toEqual(new Set([`deal:${deal.id}`, `packet:${packet.id}`]));
  member.close();
});

test('a link that ends hears once more and then nothing; a new one is refused', async () => {
  const token = await way.server.tokenFor(sent.packet.id, 'Tobias Mercer');
  const client = await stream(`/api/signing/${token}/live`);
  await way.change(sent.packet.id, { type: 'renew_link', partyId: sent.id('Tobias') });
  await until(() => client.ended);
  expect(client.told.length).toBeGreaterThan(0);
  expect(await Stream.open(`/api/signing/${token}/live`)).toBe(404);
});

test('a member who signs out hears no more', async () => {
  const signIn = await way.server.call('signIn', { body: { email: 'odile@example.com', password: 'long enough 1' } });
  const cookie = `gatepath_session=${signIn.cookie}`;
  const member = await stream(`/api/live?topics=packet:${sent.packet.id}`, cookie);
  await way.server.inject({ method: 'DELETE', url: '/api/session', headers: { cookie } });
  await open(await way.server.tokenFor(sent.packet.id, 'Wren Alder'));
  const token = await way.server.tokenFor(sent.packet.id, 'Wren Alder');
  const view = (await open(token)).body as { agreementText: { version: string } };
  await way.server.call('agree', { params: { token }, body: { agreement: view.agreementText.version }, as: 'nobody' });
  await until(() => member.ended);
});

test('one link may listen at a few screens at once, and no more', async () => {
  const token = await way.server.tokenFor(sent.packet.id, 'Wren Alder');
  const streams: Stream[] = [];
  for (let n = 0; n < 6; n++) streams.push(await stream(`/api/signing/${token}/live`));
  expect(await Stream.open(`/api/signing/${token}/live`)).toBe(429);
  streams[0]!.close();
  await until(() => streams[0]!.ended);
  let again: Stream | number = 429;
  for (let n = 0; n < 100 && again === 429; n++) {
    again = await Stream.open(`/api/signing/${token}/live`);
    await new Promise((r) => setTimeout(r, 50));
  }
  expect(again).toBeInstanceOf(Stream);
  for (const s of [...streams, again as Stream]) s.close();
});

test('nobody listens to what they may not see', async () => {
  for (const path of [
    `/api/live?topics=packet:${sent.packet.id}`,
    `/api/live?topics=deal:${sent.deal.id}`,
    '/api/signing/no-such-link/live',
  ])
    expect(await Stream.open(path)).toBeGreaterThanOrEqual(401);
  for (const topics of ['', 'firm', 'deal:', 'deal:a,', `deal:${'a'.repeat(70)}`, Array(80).fill('deal:a').join(',')])
    expect([topics, await Stream.open(`/api/live?topics=${topics}`, session())]).toEqual([topics, 422]);
  expect((await way.server.ok('packet', { params: { packetId: sent.packet.id } })).status).toBe('at_gate');
});
