/** Rules as somebody writes them: what can be kept, and what is named as wrong. */
import { MOST_DAYS } from '../calendar';
import { factsByKey, RULE_LIMITS, ruleFaults, sampleRules, termWords, type Term } from './index';

const FACTS = factsByKey();
const due: Term = { n: 3, unit: 'days', way: 'after', roll: true, from: 'accepted' };
const rule = {
  kinds: ['sale'],
  when: null,
  paper: 'lead_paint',
  title: 'Lead paint disclosure',
  signers: ['seller'],
  due,
  reason: 'built before 1978',
};
const of = (change: object) => ruleFaults({ ...rule, ...change }, FACTS);
const words = (change: object) => of(change).map((f) => `${f.part}: ${f.words}`);

test('a rule without a fault', () => {
  expect(of({})).toEqual([]);
  // No condition, no day and nobody to sign are all right, and may be left out or said to be none.
  for (const none of [null, undefined]) expect(of({ when: none, due: none, signers: [] })).toEqual([]);
  for (const r of sampleRules()) expect([r.id, r.on, r.sample]).toEqual([r.id, true, true]);
});

test('title and reason: there, and no longer than they may be', () => {
  const title = 'title: Say what the paper is called.';
  for (const bad of ['', '  ', 3, null, undefined, ['Lease']]) expect(words({ title: bad })).toEqual([title]);
  const reason = 'reason: Say why, in a few words. The reason is shown next to the paper.';
  for (const bad of ['', ' \n', 3, null, undefined]) expect(words({ reason: bad })).toEqual([reason]);
  expect(of({ title: 'x'.repeat(RULE_LIMITS.title), reason: 'x'.repeat(RULE_LIMITS.reason) })).toEqual([]);
  expect(words({ title: 'x'.repeat(RULE_LIMITS.title + 1) })).toEqual(['title: Write at most 120 letters.']);
  expect(words({ reason: 'x'.repeat(RULE_LIMITS.reason + 1) })).toEqual(['reason: Write at most 200 letters.']);
});

test('kinds and signers are what there is', () => {
  const none = 'kinds: Choose at least one kind of deal.';
  for (const kinds of [[], ['boat'], 'sale', null, undefined]) expect(words({ kinds, due: null })).toEqual([none]);
  expect(of({ kinds: ['sale', 'boat'] })).toEqual([]);
  for (const signers of [['king'], ['seller', 'king'], 'seller', null, undefined])
    expect(words({ signers })).toEqual(['signers: Choose who signs, or no one.']);
});

test('a fault of the condition says where it stands', () => {
  expect(of({ when: { all: [{ fact: 'x', compare: 'is' }] } })).toEqual([
    { part: 'when', at: '0', words: 'Choose a fact.' },
  ]);
});

test('a term: every part of it is looked at, up to its limits', () => {
  const term = (change: object) => words({ due: { ...due, ...change } });
  for (const n of [0, 1, MOST_DAYS]) expect(term({ n })).toEqual([]);
  for (const n of [-1, 1.5, MOST_DAYS + 1, '3', NaN, null, undefined, [3]])
    expect(term({ n })).toEqual(['due: Write how many days, from 0 to 3,660.']);
  for (const unit of ['days', 'business_days'])
    for (const way of ['after', 'before']) expect(term({ unit, way })).toEqual([]);
  for (const change of [{ unit: 'weeks' }, { way: 'around' }, { unit: null }, { way: undefined }])
    expect(term(change)).toEqual(['due: Choose how the days are counted.']);
  for (const from of ['birthday', null, undefined])
    expect(term({ from })).toEqual(['due: Choose the day it is counted from.']);
  for (const bad of ['tomorrow', 3, true]) expect(words({ due: bad })).toEqual(['due: Choose when it is due.']);
  expect(words({ kinds: ['tenancy', 'sale'] })).toEqual([
    'due: A tenancy does not have this date: the offer is accepted.',
  ]);
});

test('a term in words', () => {
  expect(termWords({ ...due, n: 0 })).toBe('on the day the offer is accepted');
  expect(termWords({ ...due, n: 0, way: 'before' })).toBe('before the offer is accepted');
  expect(termWords(due)).toBe('3 days after the offer is accepted');
  expect(termWords({ ...due, n: 1, unit: 'business_days', way: 'before', from: 'closing' })).toBe(
    '1 business day before closing',
  );
});
