/** One stream for all screens: what is heard, when it is renewed, and what a lost connection means. */
import { News } from './live';

class Stream {
  static all: Stream[] = [];
  closed = false;
  static readonly CLOSED = 2;
  readyState = 1;
  onopen: () => void = () => undefined;
  onerror: () => void = () => undefined;
  onmessage: (e: { data: string }) => void = () => undefined;
  constructor(readonly url: string) {
    Stream.all.push(this);
  }
  close() {
    this.closed = true;
  }
}

const was = globalThis.EventSource;
beforeEach(() => {
  Stream.all = [];
  Object.assign(globalThis, { EventSource: Stream });
});
afterAll(() => Object.assign(globalThis, { EventSource: was }));

const news = () => new News((topics) => topics.join('|'));
const renewed = () => Promise.resolve();
const open = () => Stream.all.filter((s) => !s.closed).map((s) => s.url);

test('screens that open together share one stream, and each hears its own', async () => {
  const n = news();
  const [deal, packet] = [jest.fn(), jest.fn()];
  n.hear('deal:a', deal);
  n.hear('packet:b', packet);
  await renewed();
  expect(open()).toEqual(['deal:a|packet:b']);
  Stream.all[0]!.onmessage({ data: 'packet:b 7' });
  Stream.all[0]!.onmessage({ data: 'deal:a' });
  Stream.all[0]!.onmessage({ data: 'packet:elsewhere 9' });
  expect([deal.mock.calls, packet.mock.calls]).toEqual([[[null]], [[7]]]);
});

test('the stream before is heard until the next one is open, so that nothing is missed between', async () => {
  const n = news();
  const [deal, packet] = [jest.fn(), jest.fn()];
  n.hear('deal:a', deal);
  await renewed();
  Stream.all[0]!.onopen();
  deal.mockClear();
  n.hear('packet:b', packet);
  await renewed();
  expect(open()).toEqual(['deal:a', 'deal:a|packet:b']);
  Stream.all[0]!.onmessage({ data: 'deal:a' });
  expect(deal).toHaveBeenCalledTimes(1);
  Stream.all[1]!.onopen();
  expect(open()).toEqual(['deal:a|packet:b']);
  // Only a connection that was lost and came back may have missed something.
  expect(deal).toHaveBeenCalledTimes(1);
  packet.mockClear();
  Stream.all[1]!.onerror();
  Stream.all[1]!.onopen();
  expect([deal.mock.calls[1], packet.mock.calls]).toEqual([[null], [[null]]]);
});

test('what happened between a screen’s first answer and the opening of its stream is asked for', async () => {
  const n = news();
  const [deal, packet] = [jest.fn(), jest.fn()];
  n.hear('deal:a', deal);
  await renewed();
  Stream.all[0]!.onopen();
  expect(deal.mock.calls).toEqual([[null]]);
  n.hear('packet:b', packet);
  await renewed();
  Stream.all[1]!.onopen();
  expect([deal.mock.calls.length, packet.mock.calls]).toEqual([1, [[null]]]);
});

test('news of a screen that was left is told when the screen comes back, once', async () => {
  const n = news();
  n.hear('deal:a', jest.fn());
  const leave = n.hear('packet:b', jest.fn());
  await renewed();
  Stream.all[0]!.onopen();
  leave();
  Stream.all[0]!.onmessage({ data: 'packet:b 7' });
  const both = [jest.fn(), jest.fn()];
  const leaveAgain = both.map((hear) => n.hear('packet:b', hear));
  await renewed();
  expect(both.map((hear) => hear.mock.calls)).toEqual([[[null]], [[null]]]);
  // Once is enough.
  for (const stop of leaveAgain) stop();
  const third = jest.fn();
  n.hear('packet:b', third);
  await renewed();
  expect(third).not.toHaveBeenCalled();
  expect(Stream.all).toHaveLength(1);
});

test('what is heard already asks for no new stream; when nobody hears any more, none is open', async () => {
  const n = news();
  const stop = [n.hear('deal:a', jest.fn()), n.hear('deal:a', jest.fn()), n.hear('deal:b', jest.fn())];
  await renewed();
  n.hear('deal:b', jest.fn())();
  await renewed();
  expect(Stream.all).toHaveLength(1);
  for (const s of stop) s();
  await renewed();
  expect(open()).toEqual([]);
});

test('a screen that goes and comes back within one change keeps the stream', async () => {
  const n = news();
  const stop = n.hear('deal:a', jest.fn());
  await renewed();
  stop();
  const heard = jest.fn();
  n.hear('deal:a', heard);
  await renewed();
  Stream.all[Stream.all.length - 1]!.onmessage({ data: 'deal:a' });
  expect(heard).toHaveBeenCalledTimes(1);
});

test('what was refused is asked for again, ever more seldom, and at last no more', async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
  const n = news();
  const heard = jest.fn();
  n.hear('deal:a', heard);
  await renewed();
  const refuse = () => {
    const stream = Stream.all[Stream.all.length - 1]!;
    stream.readyState = Stream.CLOSED;
    stream.onerror();
  };
  for (const pause of [10_000, 30_000, 90_000, 270_000]) {
    const before = Stream.all.length;
    refuse();
    jest.advanceTimersByTime(pause - 1);
    await renewed();
    expect([pause, Stream.all.length]).toEqual([pause, before]);
    jest.advanceTimersByTime(1);
    await renewed();
    expect([pause, Stream.all.length]).toEqual([pause, before + 1]);
  }
  refuse();
  jest.advanceTimersByTime(3_600_000);
  await renewed();
  expect(Stream.all).toHaveLength(5);
  // Once one is open again, what may have been missed is asked for.
  Stream.all[4]!.onopen();
  expect(heard).toHaveBeenCalledWith(null);
  jest.useRealTimers();
});
