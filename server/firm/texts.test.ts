/** Message texts: kept, shared, replaced under their name, and nobody's to let go but their own. */
import { TestServer } from '../test/harness';

jest.setTimeout(60_000);

let server: TestServer;
let other: string;
beforeAll(async () => {
  server = await TestServer.start();
  other = (await server.member('Tobias Mercer', 'tobias@firm.example.com')).cookie;
});
afterAll(() => server.stop());

async function asOther<T>(work: () => Promise<T>): Promise<T> {
  const own = server.cookie;
  server.cookie = other;
  try {
    return await work();
  } finally {
    server.cookie = own;
  }
}
const names = async () => (await server.ok('messageTexts', {})).items.map((t) => [t.name, t.own]);

test('a text is its member’s alone unless the firm shares it; the same name is the same text', async () => {
  await server.ok('saveText', { body: { name: 'Greeting', text: 'Dear {seller 1},' } });
  await server.ok('saveText', { body: { name: 'Call me', text: 'Call me at any time.', shared: true } });
  const { items } = await server.ok('saveText', { body: { name: 'greeting', text: 'Good morning,' } });
  expect(items.map((t) => [t.name, t.text, t.shared, t.own])).toEqual([
    ['Call me', 'Call me at any time.', true, true],
    ['greeting', 'Good morning,', false, true],
  ]);
  expect(await asOther(names)).toEqual([['Call me', false]]);
});

test('another’s text is not let go, and is not there where it is not shared', async () => {
  const { items } = await server.ok('messageTexts', {});
  const statuses = await asOther(() =>
    Promise.all(items.map(async (t) => (await server.call('deleteText', { params: { textId: t.id } })).status)),
  );
  expect(statuses).toEqual([404, 404]);
  await server.ok('deleteText', { params: { textId: items[1]!.id } });
  expect(await names()).toEqual([['Call me', true]]);
});

test('there is an end to how many and how long', async () => {
  const long = await server.call('saveText', { body: { name: 'Long', text: 'x'.repeat(4001) } });
  expect([long.status, long.problem.type]).toEqual([422, '/problems/invalid']);
  expect((await server.call('saveText', { body: { name: ' ', text: 'x' } })).status).toBe(422);
  await Promise.all(
    Array.from({ length: 110 }, (_, i) => server.call('saveText', { body: { name: `Text ${i}`, text: 'x' } })),
  );
  expect((await server.ok('messageTexts', {})).items).toHaveLength(100);
  const more = await server.call('saveText', { body: { name: 'One more', text: 'x' } });
  expect([more.status, more.problem.type]).toEqual([422, '/problems/over-limits']);
  // What is there can still be corrected.
  expect((await server.call('saveText', { body: { name: 'Call me', text: 'y' } })).status).toBe(200);
});
