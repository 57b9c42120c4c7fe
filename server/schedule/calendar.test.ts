/** Nudges, warnings, lapses and extensions, with the clock set forward. */
import { waitForDueWork } from './calendar';
import { tokenIn, Way } from '../test/way';

jest.setTimeout(180_000);

const DAY = 86_400_000;
let way: Way;
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
});
afterAll(() => way.stop());

test('the calendar nudges only whom the packet waits for, warns, lapses; an extension takes it up again', async () => {
  const zone = 'America/New_York';
  const day = (n: number) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(
      new Date(way.server.ctx.clock.now().getTime() + n * DAY),
    );
  const last = day(5);
  const { packet } = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
    [
      {
        op: 'set',
        field: 'schedule',
        value: { lastDay: last, warnDays: 1, nudge: { first: 2, every: 10, most: 3, businessDays: false } },
      },
    ],
  );
  const forward = async (days: number) => {
    for (let i = 0; i < days; i++) {
      way.server.ctx.clock.forward(DAY);
      await waitForDueWork(way.server.ctx);
      await waitForDueWork(way.server.ctx);
    }
  };
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  await forward(3);
  const kinds = async () =>
    (await way.messagesOf(packet.id)).filter((m) => m.toName !== 'Odile Farrant').map((m) => m.kind);
  expect(await kinds()).toEqual(['nudge', 'ask']);
  await forward(2);
  expect(await kinds()).toEqual(['warning', 'nudge', 'ask']);
  expect((await way.look(packet.id)).status).toBe('at_gate');
  await forward(1);
  expect((await way.look(packet.id)).status).toBe('lapsed');
  const gone = await way.statusOf(token);
  expect([gone.status, gone.problem.detail]).toEqual([410, expect.stringContaining('last day')]);
  const late = await way.server.call('changePacket', {
    params: { packetId: packet.id },
    body: { type: 'extend', lastDay: last },
  });
  expect(late.status).toBe(422);
  await way.change(packet.id, { type: 'extend', lastDay: day(4) });
  await way.signAll(tokenIn(await way.newest(packet.id, 'Wren Alder', 'extended')), 'Wren Alder');
  expect((await way.look(packet.id)).sent!.gate).toBe(1);
});
