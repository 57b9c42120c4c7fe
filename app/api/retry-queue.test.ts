/** The queue of what the server has not taken: nothing is lost, nothing is taken twice, and the order holds. */
import fc from 'fast-check';
import { ApiError } from './client';
import { RetryQueue, type QueueState } from './retry-queue';

const problem = (status: number) => new ApiError(status, 'internal', 'no');

/** Returns a device that saves the queue, and a queue on it. */
function queueOn(
  saved: { waiting: number[]; aside: number[] },
  send: (items: number[]) => Promise<string>,
  portion = 4,
) {
  return new RetryQueue<number, string>({
    store: {
      read: () => ({ waiting: [...saved.waiting], aside: [...saved.aside] }),
      writeWaiting: (items) => void (saved.waiting = items),
      writeAside: (items) => void (saved.aside = items),
    },
    send,
    changed: () => undefined,
    portion,
    failures: 3,
  });
}

test('whatever the server refuses, every item is taken once and in order, or set aside', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.uniqueArray(fc.nat(40), { maxLength: 30 }),
      fc.uniqueArray(fc.nat(40), { maxLength: 8 }),
      fc.integer({ min: 1, max: 9 }),
      async (items, refused, portion) => {
        const saved = { waiting: [], aside: [] };
        const taken: number[] = [];
        const queue = queueOn(
          saved,
          async (some) => {
            expect(some.length).toBeLessThanOrEqual(portion);
            if (some.some((n) => refused.includes(n))) throw problem(422);
            taken.push(...some);
            return 'ok';
          },
          portion,
        );
        queue.push(...items);
        await queue.flush();
        await new Promise((done) => setTimeout(done, 0));
        while (queue.busy) await new Promise((done) => setTimeout(done, 0));
        expect(taken).toEqual(items.filter((n) => !refused.includes(n)));
        expect(queue.state.aside).toEqual(items.filter((n) => refused.includes(n)));
        expect(saved).toEqual({ waiting: [], aside: queue.state.aside });
      },
    ),
  );
});

test('what is tried again while something is being sent goes next, and what is being sent is not sent twice', async () => {
  const sent: number[] = [];
  let finish = () => {};
  const queue = queueOn(
    { waiting: [], aside: [7] },
    (some) => {
      sent.push(...some);
      return new Promise((done) => (finish = () => done('ok')));
    },
    1,
  );
  queue.push(1, 2);
  queue.tryAside();
  expect(queue.state.waiting).toEqual([1, 7, 2]);
  for (let n = 0; n < 3; n++) {
    finish();
    await new Promise((done) => setTimeout(done, 0));
  }
  expect([sent, queue.state.waiting]).toEqual([[1, 7, 2], []]);
});

test('a closed queue reports nothing more, and forgets on the device what the server has', async () => {
  const saved = { waiting: [] as number[], aside: [] };
  const reports: QueueState<number>[] = [];
  let finish = () => {};
  const queue = new RetryQueue<number, string>({
    store: { read: () => saved, writeWaiting: (items) => void (saved.waiting = items), writeAside: () => undefined },
    send: () => new Promise((done) => (finish = () => done('ok'))),
    changed: (state) => void reports.push(state),
    portion: 4,
    failures: 3,
  });
  queue.push(1);
  const before = reports.length;
  queue.close();
  finish();
  await new Promise((done) => setTimeout(done, 0));
  expect([reports.length, saved.waiting]).toEqual([before, []]);
});

test('a server that fails over an item is asked a few times, then the others go on without it', async () => {
  jest.useFakeTimers();
  const sent: number[] = [];
  const queue = queueOn(
    { waiting: [], aside: [] },
    async (some) => {
      sent.push(...some);
      if (some.includes(1)) throw problem(500);
      return 'ok';
    },
    1,
  );
  queue.push(1, 2);
  await jest.advanceTimersByTimeAsync(20_000);
  jest.useRealTimers();
  expect([sent, queue.state.aside, queue.state.waiting]).toEqual([[1, 1, 1, 2], [1], []]);
});
