/**
 * Conditions over the facts of a deal. With an unknown fact a condition can be neither true nor false, and reports
 * the facts it depends on.
 */
import { factWords, wrongWith, type FactDef, type Facts, type FactValue } from './facts';

/** Ways to compare a fact with a value. */
export const COMPARES = ['is', 'is_not', 'before', 'at_least', 'unknown'] as const;
/** One of `COMPARES`. */
export type Compare = (typeof COMPARES)[number];

/** A fact compared with a value; `unknown` tests only whether it is known. */
export interface Comparison {
  fact: string;
  compare: Compare;
  value?: FactValue;
}
/** A condition over facts: a comparison, or a group of conditions. */
export type Condition = { all: Condition[] } | { any: Condition[] } | { not: Condition } | Comparison;

/** Maximum nesting of conditions, and maximum number of parts. */
export const CONDITION_LIMITS = { depth: 8, size: 60 };

/** True, false, or not known yet with the facts it depends on. */
export type Truth = { is: boolean; hangs: [] } | { is: null; hangs: string[] };
const TRUE: Truth = { is: true, hangs: [] };
const FALSE: Truth = { is: false, hangs: [] };
const truth = (is: boolean): Truth => (is ? TRUE : FALSE);

/** Evaluates a condition. An unknown fact matters only if the result depends on it. */
export function holds(condition: Condition, facts: Facts): Truth {
  if ('all' in condition) return several(condition.all, facts, false);
  if ('any' in condition) return several(condition.any, facts, true);
  if ('not' in condition) {
    const inner = holds(condition.not, facts);
    return inner.is === null ? inner : truth(!inner.is);
  }
  const known = Object.hasOwn(facts, condition.fact) ? facts[condition.fact] : undefined;
  if (condition.compare === 'unknown') return truth(known === undefined);
  // A value of another type (a firm changed what its fact holds) answers nothing: it is asked for again.
  if (known === undefined || typeof known !== typeof condition.value) return { is: null, hangs: [condition.fact] };
  return truth(compare(condition.compare, known, condition.value));
}

/** Evaluates a group: one part that decides is enough; otherwise every unknown part is reported. */
function several(list: Condition[], facts: Facts, decides: boolean): Truth {
  const hangs = new Set<string>();
  for (const one of list) {
    const t = holds(one, facts);
    if (t.is === decides) return truth(decides);
    if (t.is === null) for (const fact of t.hangs) hangs.add(fact);
  }
  return hangs.size ? { is: null, hangs: [...hangs] } : truth(!decides);
}

/** Compares two values of one type. */
function compare(how: Exclude<Compare, 'unknown'>, known: FactValue, value: FactValue | undefined): boolean {
  if (how === 'is' || how === 'is_not') return same(known, value) === (how === 'is');
  if (value === undefined) return false;
  // ISO days are in order as texts are.
  return how === 'before' ? known < value : known >= value;
}

const same = (a: FactValue, b: FactValue | undefined) =>
  typeof a === 'string' && typeof b === 'string' ? a.trim().toLowerCase() === b.trim().toLowerCase() : a === b;

/** Returns every fact a condition names, each once. */
export function factsIn(condition: Condition): string[] {
  const out = new Set<string>();
  const list = [condition];
  for (let c = list.pop(); c; c = list.pop()) {
    if ('all' in c) list.push(...c.all);
    else if ('any' in c) list.push(...c.any);
    else if ('not' in c) list.push(c.not);
    else out.add(c.fact);
  }
  return [...out];
}

/** A fault in a condition and its position: `0.1` is the second part of the first. */
export interface ConditionFault {
  at: string;
  words: string;
}

/**
 * Returns the faults of a condition from outside. Validates each part before descending into it, and never deeper
 * than the limit.
 */
export function conditionFaults(condition: unknown, facts: ReadonlyMap<string, FactDef>): ConditionFault[] {
  const faults: ConditionFault[] = [];
  let left = CONDITION_LIMITS.size;
  const look = (c: unknown, at: string, depth: number): void => {
    const wrong = (words: string) => void faults.push({ at, words });
    if (depth > CONDITION_LIMITS.depth)
      return wrong(`This goes deeper than ${CONDITION_LIMITS.depth} steps. Write it as two rules.`);
    if (--left < 0) {
      if (left === -1) wrong(`There are more than ${CONDITION_LIMITS.size} parts. Write it as two rules.`);
      return;
    }
    if (typeof c !== 'object' || c === null || Array.isArray(c)) return wrong('This is not a condition.');
    const keys = Object.keys(c);
    const part = (key: string): unknown => Reflect.get(c, key);
    const under = (i: number) => (at ? `${at}.${i}` : String(i));
    if (keys.length === 1 && (keys[0] === 'all' || keys[0] === 'any')) {
      const list = part(keys[0]);
      if (!Array.isArray(list)) return wrong('This is not a condition.');
      if (!list.length) return wrong('This group is empty. Add a fact, or remove the group.');
      for (let i = 0; i < list.length && left >= 0; i++) look(list[i], under(i), depth + 1);
      return;
    }
    if (keys.length === 1 && keys[0] === 'not') return look(part('not'), under(0), depth + 1);
    if (keys.some((k) => !['fact', 'compare', 'value'].includes(k))) return wrong('This is not a condition.');
    const fact = part('fact');
    const def = typeof fact === 'string' ? facts.get(fact) : undefined;
    if (!def) return wrong('Choose a fact.');
    const how = COMPARES.find((x) => x === part('compare'));
    if (!how) return wrong(`${def.label}: choose how it is compared.`);
    if (how === 'unknown') return part('value') === undefined ? undefined : wrong('“Not known” takes no value.');
    if ((how === 'before' || how === 'at_least') && !isOrdered(def))
      return wrong(`${def.label} has no order: choose “is” or “is not”.`);
    const value = part('value');
    const why = value === undefined ? `${def.label}: say with what it is compared.` : wrongWith(def, value);
    if (why) wrong(why);
  };
  look(condition, '', 1);
  return faults;
}

/** Returns whether "before" and "at least" make sense for a fact. */
export const isOrdered = (def: Pick<FactDef, 'type'>) => ['number', 'money', 'year', 'day'].includes(def.type);

/** Returns a comparison in words: years and dates are "before", numbers are "less than". */
export function compareWords(how: Compare, def: Pick<FactDef, 'type'>): string {
  const day = def.type === 'year' || def.type === 'day';
  if (how === 'is') return 'is';
  if (how === 'is_not') return 'is not';
  if (how === 'before') return day ? 'is before' : 'is less than';
  if (how === 'at_least') return day ? 'is not before' : 'is at least';
  return 'is not known';
}

/** Returns a condition as a sentence: "Year built is before 1978 and (Association is yes or Pets is yes)". */
export function conditionWords(condition: Condition, facts: ReadonlyMap<string, FactDef>, inside = false): string {
  const join = (list: Condition[], word: string) => {
    const said = list.map((c) => conditionWords(c, facts, list.length > 1)).join(` ${word} `);
    return inside && list.length > 1 ? `(${said})` : said;
  };
  if ('all' in condition) return condition.all.length ? join(condition.all, 'and') : 'always';
  if ('any' in condition) return join(condition.any, 'or');
  if ('not' in condition) {
    const { not } = condition;
    if ('compare' in not && not.compare === 'unknown') return `${facts.get(not.fact)?.label ?? 'A fact'} is known`;
    return `not (${conditionWords(not, facts)})`;
  }
  const def = facts.get(condition.fact);
  if (!def) return 'a fact that is gone';
  const value = condition.value === undefined ? '' : ` ${factWords(def, condition.value)}`;
  return `${def.label} ${compareWords(condition.compare, def)}${value}`;
}
