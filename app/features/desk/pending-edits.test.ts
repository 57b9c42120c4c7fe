/** Pending edits on the device: several screens, earlier versions, and what is no edit. */
import type { DraftEdit } from '@gatepath/core/packet';
import { PendingEdits, type DeviceStorage, type ScreenLocks } from './pending-edits';

const passed = (id: string): DraftEdit => ({ op: 'put', list: 'passed', item: { id } });
const idsOf = (edits: DraftEdit[]) => edits.map((e) => (e.op === 'put' ? e.item.id : e.op));

/** The browser's locks, as far as they are used: one holder per name. */
class Locks implements ScreenLocks {
  private readonly held = new Set<string>();
  request: ScreenLocks['request'] = async (name, options, whileHeld) => {
    if (this.held.has(name)) return options.ifAvailable ? whileHeld(null) : undefined;
    this.held.add(name);
    try {
      return await whileHeld({ name });
    } finally {
      this.held.delete(name);
    }
  };
}

/** Opens a screen; returns it with the edits that it took over. */
async function open(name: string, locks: ScreenLocks | undefined) {
  const screen = new PendingEdits('p', name, localStorage, locks);
  const taken: DraftEdit[] = [];
  await screen.open((edits) => void taken.push(...edits));
  return { screen, taken: idsOf(taken) };
}

beforeEach(() => localStorage.clear());

test('two open screens keep lists of their own', async () => {
  const locks = new Locks();
  const one = await open('one', locks);
  one.screen.write([passed('x')]);
  const two = await open('two', locks);
  two.screen.write([passed('y')]);
  expect(two.taken).toEqual([]);
  expect([idsOf(one.screen.read()), idsOf(two.screen.read())]).toEqual([['x'], ['y']]);
});

test('what a closed screen left is taken over once, in order', async () => {
  const locks = new Locks();
  const one = await open('one', locks);
  one.screen.write([passed('x'), passed('y')]);
  one.screen.close();
  await Promise.resolve();
  const two = await open('two', locks);
  expect(two.taken).toEqual(['x', 'y']);
  expect((await open('three', locks)).taken).toEqual([]);
});

test('edits of an earlier version, and of a browser without locks, are taken over too', async () => {
  localStorage.setItem('gatepath.pending.p', JSON.stringify([passed('old')]));
  localStorage.setItem('gatepath.pending.p.gone', JSON.stringify([passed('x')]));
  // Those of another packet stay where they are, whatever it is called.
  localStorage.setItem('gatepath.pending.p2', JSON.stringify([passed('other')]));
  const { taken } = await open('one', undefined);
  expect(taken.sort()).toEqual(['old', 'x']);
  expect(Object.keys(localStorage)).toEqual(['gatepath.pending.p2']);
});

test.each([
  ['no JSON', '{'],
  ['no list', '{"op":"put"}'],
  [
    'no edits',
    '[null,1,"x",[],{},{"op":"put"},{"op":"put","list":"marks","item":{}},{"op":"drop","list":"__proto__","id":"x"}]',
  ],
])('what is %s is left out', async (_, text) => {
  localStorage.setItem('gatepath.pending.p.gone', text);
  expect((await open('one', undefined)).taken).toEqual([]);
});

/** Returns a device with room for a number of letters. */
function deviceOf(room: number): DeviceStorage {
  const kept = new Map<string, string>();
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (key) => kept.get(key) ?? null,
    removeItem: (key) => void kept.delete(key),
    setItem: (key, text) => {
      const used = [...kept].reduce((n, [k, t]) => n + (k === key ? 0 : t.length), 0);
      if (used + text.length > room) throw new Error('full');
      kept.set(key, text);
    },
  };
}

test('a device without room keeps the screen going', () => {
  const screen = new PendingEdits('p', 'one', deviceOf(0), undefined);
  expect(() => screen.write([passed('x')])).not.toThrow();
  expect(screen.read()).toEqual([]);
});

test('on a full device nothing of a closed screen is lost: its list moves if there is room, and stays if not', async () => {
  const left = [passed('x'), passed('y')];
  const size = JSON.stringify(left).length;
  const own = [passed('z')];
  for (const [more, where] of [
    [JSON.stringify(own).length, 'gatepath.pending.p.one'],
    [0, 'gatepath.pending.p.gone'],
  ] as const) {
    const device = deviceOf(size + more);
    device.setItem('gatepath.pending.p.gone', JSON.stringify(left));
    const screen = new PendingEdits('p', 'one', device, undefined);
    // What this screen has waiting is written together with what it takes over.
    await screen.open((edits) => screen.write([...edits, ...own]));
    expect(device.getItem(where)).toContain('"x"');
  }
});
