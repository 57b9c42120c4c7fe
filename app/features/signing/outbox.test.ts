/** Acts on a bad connection: kept, in order, exactly once. */
import fc from 'fast-check';
import type { SigningView } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { showAct, readActs, storageKey, type PendingAct } from './acts';
import { Outbox } from './outbox';
import { ownMark } from '../../test/own-mark';

const problem = (status: number, detail = 'no') => new ApiError(status, 'internal', detail);

class Box implements Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> {
  kept = new Map<string, string>();
  getItem = (k: string) => this.kept.get(k) ?? null;
  setItem = (k: string, v: string) => void this.kept.set(k, v);
  removeItem = (k: string) => void this.kept.delete(k);
}

const fill = (n: number): PendingAct => ({ id: `act-${n}`, type: 'fill', markId: `m${n}` });
const settled = () => new Promise((r) => setTimeout(r, 0));

beforeEach(() => jest.useRealTimers());

test('without a connection acts wait on the device, and go out in order when it is back', async () => {
  const box = new Box();
  const sent: string[] = [];
  let up = false;
  const send = (a: PendingAct) => {
    if (!up) return Promise.reject(problem(0));
    sent.push(a.id);
    return Promise.resolve('view');
  };
  const states: boolean[] = [];
  const outbox = new Outbox<string>('token-of-wren', box, send, (s) => states.push(s.offline));
  for (const n of [1, 2, 3]) outbox.push(fill(n));
  await settled();
  expect(outbox.state).toMatchObject({ offline: true, refused: null, aside: [] });
  expect(readActs('token-of-wren', box).map((a) => a.id)).toEqual(['act-1', 'act-2', 'act-3']);
  // The secret itself is not written down.
  expect([...box.kept.keys()].join()).not.toContain('token-of-wren');
  // The page is closed, and opened again with a connection.
  outbox.close();
  up = true;
  const next = new Outbox<string>('token-of-wren', box, send, () => undefined);
  await next.flush();
  expect(sent).toEqual(['act-1', 'act-2', 'act-3']);
  expect(box.kept.has(storageKey('token-of-wren'))).toBe(false);
});

test('what the server refuses is told and does not hold up the rest', async () => {
  const sent: string[] = [];
  const outbox = new Outbox<string>(
    't',
    new Box(),
    (a) => {
      sent.push(a.id);
      return a.id === 'act-1' ? Promise.reject(problem(409, 'It is not your turn yet.')) : Promise.resolve('v');
    },
    () => undefined,
  );
  outbox.push(fill(1));
  outbox.push(fill(2));
  await settled();
  await outbox.flush();
  expect(sent).toEqual(['act-1', 'act-2']);
  expect(outbox.state).toMatchObject({ waiting: [], offline: false, refused: { message: 'It is not your turn yet.' } });
});

test('whatever the connection does, every act arrives, in order, and none counts twice', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom('ok', 'lost before', 'lost after'), { maxLength: 40 }),
      fc.integer({ min: 1, max: 12 }),
      async (weather, n) => {
        const counted: string[] = [];
        let step = 0;
        const outbox = new Outbox<string>(
          't',
          new Box(),
          (a) => {
            const w = weather[step++] ?? 'ok';
            if (w === 'lost before') return Promise.reject(problem(0));
            // The server knows an act by its id: again is not twice.
            if (!counted.includes(a.id)) counted.push(a.id);
            return w === 'lost after' ? Promise.reject(problem(0)) : Promise.resolve('v');
          },
          () => undefined,
        );
        const ids = Array.from({ length: n }, (_, i) => `act-${i}`);
        for (let i = 0; i < n; i++) outbox.push(fill(i));
        for (let i = 0; i <= weather.length && outbox.state.waiting.length; i++) {
          await settled();
          await outbox.flush();
        }
        outbox.close();
        expect(counted).toEqual(ids);
        expect(outbox.state.waiting).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

const view = {
  myTurn: true,
  agreed: true,
  mine: 'in_progress',
  somethingSigned: false,
  hand: { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' },
  me: { id: 'w', name: 'Wren Alder', ink: 0 },
  marks: [
    ownMark('i', { kind: 'initials' }),
    ownMark('m', { kind: 'money', check: { min: 1000 } }),
    ownMark('gas', { kind: 'choice', group: 'g' }),
    ownMark('wood', { kind: 'choice', group: 'g' }),
  ],
  fills: [],
} as unknown as SigningView;
const after = (...acts: Omit<Extract<PendingAct, { type: 'fill' }>, 'id' | 'type'>[]) =>
  acts.reduce((v, a, i) => showAct(v, { id: `a${i}`, type: 'fill', ...a }), view);
const doneIn = (v: SigningView) => v.marks.filter((m) => m.done).map((m) => m.id);

test('an act shows at once as the server will show it', () => {
  const v = after({ markId: 'i' }, { markId: 'm', text: '1500' });
  expect(doneIn(v)).toEqual(['i', 'm']);
  expect(v.fills.map((f) => f.shows)).toEqual([
    { form: 'typed', face: 'caveat', text: 'WA' },
    { form: 'text', text: '$1,500.00' },
  ]);
});

test('what the server would refuse does not show, and choices exclude each other', () => {
  expect(doneIn(after({ markId: 'm', text: '12' }))).toEqual([]);
  expect(doneIn(after({ markId: 'gas', text: 'yes' }, { markId: 'wood', text: 'yes' }))).toEqual(['wood']);
  expect(doneIn(after({ markId: 'm', text: '1500' }, { markId: 'm', text: '' }))).toEqual([]);
  const over = showAct(view, { id: 'f', type: 'finish' });
  expect([over.mine, over.myTurn]).toEqual(['done', false]);
  expect(showAct(over, { id: 'x', type: 'fill', markId: 'i' })).toBe(over);
});

test('an act the server stumbles over each time is set aside, kept and told; the rest goes on', async () => {
  jest.useFakeTimers();
  const box = new Box();
  const sent: string[] = [];
  const send = (a: PendingAct) => {
    sent.push(a.id);
    return a.id === 'act-1' ? Promise.reject(problem(500)) : Promise.resolve('v');
  };
  const outbox = new Outbox<string>('t', box, send, () => undefined);
  for (const n of [1, 2]) outbox.push(fill(n));
  for (let i = 0; i < 12; i++) await jest.advanceTimersByTimeAsync(3000);
  expect(outbox.state.waiting).toEqual([]);
  expect(outbox.state.aside.map((a) => a.id)).toEqual(['act-1']);
  expect(outbox.state.refused).toBeInstanceOf(ApiError);
  expect(sent.filter((id) => id === 'act-1').length).toBe(5);
  expect(sent[sent.length - 1]).toBe('act-2');
  // Another visit still has it, and can try it again or let it go.
  const later = new Outbox<string>(
    't',
    box,
    (a) => (sent.push(`again ${a.id}`), Promise.resolve('v')),
    () => undefined,
  );
  expect(later.state.aside.map((a) => a.id)).toEqual(['act-1']);
  later.tryAside();
  await jest.advanceTimersByTimeAsync(10);
  expect(sent[sent.length - 1]).toBe('again act-1');
  expect(new Outbox<string>('t', box, send, () => undefined).state.aside).toEqual([]);
});

test('a server that is busy is asked again for as long as it takes', async () => {
  jest.useFakeTimers();
  let n = 0;
  const outbox = new Outbox<string>(
    't',
    new Box(),
    () => (++n < 20 ? Promise.reject(problem(503)) : Promise.resolve('v')),
    () => undefined,
  );
  outbox.push(fill(1));
  for (let i = 0; i < 25; i++) await jest.advanceTimersByTimeAsync(3000);
  expect([n, outbox.state.waiting.length, outbox.state.aside.length]).toEqual([20, 0, 0]);
});
