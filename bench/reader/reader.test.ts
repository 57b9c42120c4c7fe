/** Training and measuring: trees learn what is there to be learned, and places are paired as the forms say. */
import { probabilityOf, scoreOf } from '@gatepath/core/reading/trees';
import type { PrintedPlace } from '@gatepath/core/reading';
import { randomOf } from '../forms/generator/random';
import { binned, boost, BOOST } from './boost';
import { asRead, pair, sameKind, sameOrdinal, type TruePlace } from './pairing';
import { figures, newSetScore, scoreForm } from './score';

/** Returns rows of which a rule is true that no single feature tells: one counts only where another is small. */
function rows(seed: number, n: number) {
  const r = randomOf(seed);
  const all = Array.from({ length: n }, () => [r.next() * 10, r.next(), r.int(0, 3), r.next()]);
  return { all, target: all.map(([a, b, c]) => ((b! < 0.4 ? a! > 6 : c === 2) ? 1 : 0)) };
}

test('trees learn a rule of several features, and tell it of rows they have not seen', () => {
  const { all, target } = rows(1, 2_000);
  const model = boost(binned(all), target, null);
  const fresh = rows(2, 1_000);
  const right = fresh.all.filter((row, i) => probabilityOf(scoreOf(model, row)) > 0.5 === (fresh.target[i] === 1));
  expect(right.length).toBeGreaterThan(970);
});

test('the same seed gives the same weights, and another one others', () => {
  const { all, target } = rows(3, 400);
  const data = binned(all);
  expect(boost(data, target, null)).toEqual(boost(data, target, null));
  expect(boost(data, target, null, { ...BOOST, seed: 8 })).not.toEqual(boost(data, target, null));
});

test('rows that weigh nothing teach nothing', () => {
  const { all, target } = rows(4, 800);
  const lies = target.map((t, i) => (i % 2 ? 1 - t : t));
  const model = boost(
    binned(all),
    lies,
    lies.map((_, i) => (i % 2 ? 0 : 1)),
  );
  const right = all.filter((row, i) => probabilityOf(scoreOf(model, row)) > 0.5 === (target[i] === 1));
  expect(right.length).toBeGreaterThan(700);
});

const truth = (rect: TruePlace['rect'], more: Partial<TruePlace> = {}): TruePlace => ({
  page: 1,
  kind: 'text',
  role: 'unknown',
  ordinal: null,
  rect,
  ...more,
});
const read = ([x, y, w, h]: TruePlace['rect'], more: Partial<PrintedPlace> = {}): PrintedPlace => ({
  page: 1,
  kind: 'text',
  role: 'unknown',
  ordinal: null,
  rect: { x, y, w, h },
  label: '',
  source: 'print',
  confidence: 0.9,
  ...more,
});

test('of two that may be meant, the one of its kind is paired, one to one', () => {
  const real = [truth([100, 100, 100, 12], { kind: 'date' }), truth([210, 100, 100, 12])];
  const found = [read([104, 98, 100, 14]), read([104, 98, 100, 14], { kind: 'date' }), read([212, 98, 90, 14])];
  expect(pair(real, found).sort()).toEqual([
    [0, 1],
    [1, 2],
  ]);
});

test('the parts of one blank may be read as parts or as a whole', () => {
  const parts = [0, 1, 2].map((i) => truth([100 + i * 40, 100, 30, 12], { kind: 'date', group: 'g' }));
  expect(asRead(parts, [read([100, 98, 110, 14], { kind: 'date' })])).toHaveLength(1);
  const each = parts.map((p) => read(p.rect, { kind: 'date' }));
  expect(asRead(parts, each)).toHaveLength(3);
});

test('another kind, and the ordinal of a role nobody names, can be right too', () => {
  const t = truth([0, 0, 50, 10], { kind: 'name', alt: ['text'], role: 'buyer', ordinal: 2 });
  expect([sameKind(t, { kind: 'text' }), sameKind(t, { kind: 'date' })]).toEqual([true, false]);
  expect([1, 2].map((ordinal) => sameOrdinal(t, { role: 'buyer', ordinal }))).toEqual([false, true]);
});

test('a score counts what was found, what was said, and what is accepted unseen and wrong', () => {
  const s = newSetScore();
  const real = [
    truth([100, 100, 150, 20], { kind: 'signature', role: 'buyer', ordinal: 1 }),
    truth([100, 200, 150, 20], { kind: 'signature', role: 'seller', ordinal: 1 }),
    truth([100, 300, 150, 12]),
  ];
  const found = [
    read([100, 100, 150, 20], { kind: 'signature', role: 'buyer', ordinal: 1 }),
    read([100, 200, 150, 20], { kind: 'signature', role: 'buyer', ordinal: 2 }),
    read([400, 600, 50, 12], { kind: 'initials', role: 'buyer', ordinal: 1, confidence: 0.3 }),
  ];
  scoreForm(s, 'form', real, found, (p) => p.confidence > 0.6);
  expect(figures(s)).toMatchObject({ places: 3, signature: 1, text: 0, initials: 0, role: 0.5, ordinal: 0.5 });
  expect(s.hands).toEqual({ there: 2, taken: 2, right: 1 });
  expect(s.faults.filter((f) => f.includes('TAKEN'))).toHaveLength(1);
});
