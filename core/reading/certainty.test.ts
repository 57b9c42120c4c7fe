/** What neighbors contradict, and what else a place may be. */
import { filled, Sheet } from '../test/sheet';
import { candidatesOf } from './candidates';
import { contradicted, otherOf } from './certainty';
import { KINDS, type Decision } from './decide';
import { evidenceOf } from './evidence';
import { PLACE_ROLES, type PlaceKind, type PlaceRole } from './types';

type Said = readonly [PlaceKind | 'none', PlaceRole, number | null];

/** Returns the blanks of a page, decided as a test says. */
function decided(sheet: Sheet, says: readonly Said[]): Decision[] {
  const { candidates, scans, paper } = candidatesOf([sheet.content]);
  const known = evidenceOf(candidates, scans, paper);
  expect(known.length).toBe(says.length);
  return known.map((k, i) => {
    const [kind, role, ordinal] = says[i]!;
    return { k, kind, role, ordinal, shares: { kind: [], role: [], ordinal: [] } };
  });
}
const indices = (all: Decision[]) => {
  const found = contradicted(all);
  return all.flatMap((d, i) => (found.has(d) ? [i] : []));
};

test('initials beside a blank drawn alike that was taken for something else are contradicted, apart from it they are not', () => {
  const row = (x: readonly number[]) => {
    const sheet = filled();
    for (const at of x) sheet.rule(at, at + 32, 500);
    return sheet.text(x[x.length - 1]! + 40, 500, 'buyers’ initials');
  };
  const says: Said[] = [
    ['text', 'unknown', null],
    ['initials', 'buyer', 1],
    ['initials', 'buyer', 2],
  ];
  expect(indices(decided(row([200, 244, 288]), says))).toEqual([1]);
  expect(indices(decided(row([60, 244, 288]), says))).toEqual([]);
  expect(indices(decided(row([200, 244, 288]), [['initials', 'buyer', 3], says[1]!, says[2]!]))).toEqual([]);
  // A line drawn otherwise is another matter.
  const wide = filled().rule(150, 240, 500).rule(244, 276, 500).rule(288, 320, 500).text(330, 500, 'initials');
  expect(indices(decided(wide, says))).toEqual([]);
});

test('a signature under one drawn alike that is nobody’s is contradicted, unless its caption counts it', () => {
  const stack = (caption: string, apart = 40) =>
    filled()
      .rule(100, 300, 400)
      .rule(100, 300, 400 + apart)
      .text(60, 400 + apart, caption);
  const says: Said[] = [
    ['signature', 'unknown', null],
    ['signature', 'seller', 1],
  ];
  expect(indices(decided(stack('X'), says))).toEqual([1]);
  expect(indices(decided(stack('X', 90), says))).toEqual([]);
  expect(indices(decided(stack('Seller 1'), says))).toEqual([]);
  expect(
    indices(
      decided(stack('X'), [
        ['signature', 'seller', 1],
        ['signature', 'seller', 2],
      ]),
    ),
  ).toEqual([]);
});

test('two signatures of one person, one over the other, are both contradicted, whatever their captions count', () => {
  const stack = (apart: number) =>
    filled()
      .rule(100, 300, 400)
      .rule(100, 300, 400 + apart)
      .text(60, 400 + apart, 'Seller 1');
  const twice: Said[] = [
    ['signature', 'seller', 1],
    ['signature', 'seller', 1],
  ];
  expect(indices(decided(stack(40), twice))).toEqual([0, 1]);
  expect(indices(decided(stack(90), twice))).toEqual([]);
  expect(indices(decided(stack(40), [twice[0]!, ['signature', 'buyer', 1]]))).toEqual([]);
});

test('who signs again behind text is counted anew, unless a caption counts them', () => {
  const text = 'The seller signs here only to choose this one of several counteroffers and nothing else.';
  const page = (lines: number, caption = 'Seller') => {
    const sheet = filled();
    for (const y of [200, 230]) sheet.text(60, y, 'Seller').rule(100, 300, y);
    for (let i = 0; i < lines; i++) sheet.text(60, 270 + i * 14, text, 9);
    for (const y of [340, 370]) sheet.text(60, y, caption).rule(100, 300, y);
    return sheet;
  };
  const counted = (...n: number[]): Said[] => n.map((ordinal) => ['signature', 'seller', ordinal]);
  const other = (sheet: Sheet, says: readonly Said[]) => {
    const all = decided(sheet, says);
    const found = contradicted(all);
    return all.map((d) => found.get(d)?.ordinal ?? null);
  };
  expect(other(page(2), counted(1, 2, 3, 4))).toEqual([null, null, 1, 2]);
  expect(other(page(2), counted(1, 2, 1, 2))).toEqual([null, null, null, null]);
  expect(other(page(0), counted(1, 2, 3, 4))).toEqual([null, null, null, null]);
  expect(other(page(2, 'Seller 4'), counted(1, 2, 4, 4)).slice(0, 2)).toEqual([null, null]);
});

test('a block that goes on over the end of a page is counted on, unless a heading or text begins another', () => {
  const lines = (sheet: Sheet, ...ys: number[]) => {
    for (const y of ys) sheet.text(60, y, 'Signature').rule(160, 360, y);
    return sheet;
  };
  const text = 'What follows here is a paragraph of running text about the keys, the meters and the garden.';
  const first = (after = '') =>
    lines(filled().text(60, 600, 'SELLER:', 10, true), 650)
      .text(60, 690, after)
      .text(60, 704, after);
  const other = (before: Sheet, then: Sheet, ordinal = 1) => {
    const { candidates, scans, paper } = candidatesOf([before.content, then.content]);
    const known = evidenceOf(candidates, scans, paper);
    const all = known.map((k, i): Decision => ({
      k,
      kind: 'signature',
      role: 'seller',
      ordinal: i ? ordinal : 1,
      shares: { kind: [], role: [], ordinal: [] },
    }));
    return contradicted(all).get(all[1]!)?.ordinal;
  };
  expect(other(first(), lines(new Sheet(), 80))).toBe(2);
  expect(other(first(), lines(new Sheet(), 80), 2)).toBeUndefined();
  expect(other(first(text), lines(new Sheet(), 80))).toBeUndefined();
  expect(other(first(), lines(new Sheet().text(60, 50, 'SELLER:', 10, true), 80))).toBeUndefined();
  expect(other(first(), lines(new Sheet().text(60, 50, text).text(60, 64, text), 100))).toBeUndefined();
  expect(other(first(), new Sheet().text(60, 80, 'Seller 1').rule(160, 360, 80))).toBeUndefined();
});

test('a number that follows none is contradicted, and may be the one before', () => {
  const lines = (caption: string) => filled().text(60, 400, caption).rule(160, 360, 400);
  const all = decided(lines('Landlord'), [['signature', 'landlord', 2]]);
  expect([...contradicted(all).values()]).toEqual([{ kind: 'signature', role: 'landlord', ordinal: 1 }]);
  expect(indices(decided(lines('Landlord'), [['signature', 'landlord', 1]]))).toEqual([]);
  expect(indices(decided(lines('Landlord 2'), [['signature', 'landlord', 2]]))).toEqual([]);
  // Where the first is missing, everyone after the first is shifted as well.
  const three = filled();
  for (const y of [300, 330, 360]) three.text(60, y, 'Landlord').rule(160, 360, y);
  const counted = (...n: number[]): Said[] => n.map((ordinal) => ['signature', 'landlord', ordinal]);
  const shifted = contradicted(decided(three, counted(2, 3, 4)));
  expect([...shifted.values()].map((other) => other?.ordinal)).toEqual([1, 2, 3]);
  expect(indices(decided(three, counted(1, 2, 3)))).toEqual([]);
});

test('a second broker whom no caption counts may be the other side’s', () => {
  const line = (caption: string) => filled().text(60, 500, caption).rule(200, 400, 500);
  const says: Said[] = [['signature', 'broker', 2]];
  const [bare] = decided(line('Broker:'), says);
  expect(contradicted([bare!]).size).toBe(1);
  expect(otherOf(bare!)).toEqual({ kind: 'signature', role: 'buyer_broker', ordinal: 1 });
  expect(indices(decided(line('Broker 2:'), says))).toEqual([]);
});

test('what else a place may be is the most probable other kind, role or number, if it is worth naming', () => {
  const [d] = decided(filled().text(60, 500, 'Seller:').rule(200, 400, 500), [['signature', 'seller', 1]]);
  const shares = (of: readonly string[], p: Record<string, number>) => of.map((name) => p[name] ?? 0);
  const other = (kind: Record<string, number>, role: Record<string, number>, ordinal: number[]) =>
    otherOf({ ...d!, shares: { kind: shares(KINDS, kind), role: shares(PLACE_ROLES, role), ordinal } });
  const sure = { kind: { signature: 0.99 }, role: { seller: 0.99 }, ordinal: [0.99, 0.01] };
  expect(other(sure.kind, sure.role, sure.ordinal)).toBeUndefined();
  expect(other(sure.kind, { seller: 0.7, buyer: 0.3 }, sure.ordinal)).toMatchObject({ role: 'buyer', ordinal: 1 });
  expect(other({ signature: 0.6, name: 0.4 }, { seller: 0.7, buyer: 0.3 }, sure.ordinal)).toMatchObject({
    kind: 'name',
    role: 'seller',
  });
  expect(other(sure.kind, sure.role, [0.6, 0.4])).toMatchObject({ kind: 'signature', role: 'seller', ordinal: 2 });
  // That it is no place is offered otherwise: it can be dismissed.
  expect(other({ signature: 0.6, none: 0.4 }, sure.role, sure.ordinal)).toBeUndefined();
});
