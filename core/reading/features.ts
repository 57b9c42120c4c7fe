/** What is known of a blank as numbers, in a fixed order: the weights were learned for exactly this order. */
import { flowOf } from './flow';
import type { Blank } from './blanks';
import type { Known } from './evidence';
import { DIRECTIONS, FAR, gapAbove, gapBelow, isTaken, textBetween, type Candidate, type Sighting } from './sight';
import { RULES, type RuleName } from './rules';
import { PLACE_KINDS, PLACE_ROLES, type PlaceKind, type PlaceRole } from './types';
import { kindOfWords, plain, type RoleRead } from './words';
import { itemAt } from '../sure';

const KIND_INDEX = new Map<PlaceKind, number>(PLACE_KINDS.map((k, i) => [k, i]));
const RULE_INDEX = new Map(RULES.map((r, i) => [r.name as RuleName, i]));
const MADE: readonly Blank['made'][] = ['underscores', 'rule', 'cell', 'box', 'parens', 'dots', 'space'];

const WORD_CLASSES: readonly RegExp[] = [
  /[$\u20ac\u00a3]\s*\(?$/,
  /\b(?:by|por|its|per)\s*:?$/,
  /\b(?:x|\u2717)\s*:?$/,
  /\b(?:witness|notary|testigo|notario)\b/,
  /\b(?:name|nombre)\b/,
  /\b(?:the|of|at|in|on|to|for|and|is|el|la|de|en|del|y)$/,
  /:\s*$/,
  /\b(?:day|dia|days|month|year)\b/,
  /\b(?:phone|email|address|license|title|time|telephone|company|no|domicilio|correo|telefono|cargo|hora|licencia)\b/,
  /\b(?:date|dated|fecha)\b/,
  /\b(?:signature|signed|sign|firma|firmado)\b/,
  /\binit|\binicial/,
  /\bprint/,
  /^\W*(?:yes|no|n\/?a|unknown|not known|si|ok|good|fair|poor|damaged|missing|works|received|accepted|rejected|waived|true|false)\W*$/,
  /^\W*\(?\d{1,2}[.)]?\W*$/,
  /^\W*[a-z] ?\d?\W*$/,
];

/** Appends features of a text: what it names, and what kinds of words are in it. */
function textFeatures(out: number[], text: string): void {
  // Most blanks have words on one or two sides only: skip the others, which cost time.
  if (!text) {
    for (let i = 0; i < 2 + WORD_CLASSES.length; i++) out.push(0);
    return;
  }
  const t = plain(text).slice(-80);
  const kind = t ? kindOfWords(t) : null;
  out.push(kind ? (KIND_INDEX.get(kind) ?? 0) + 1 : 0, t ? t.split(' ').length : 0);
  for (const re of WORD_CLASSES) out.push(re.test(t) ? 1 : 0);
}

/** Appends features of what is seen in a direction. */
function sightFeatures(out: number[], seen: readonly Sighting[], b: Blank): void {
  const taken = (s: Sighting | undefined) => (s && isTaken(s.said, b) ? 1 : 0);
  const first = seen[0];
  out.push(first ? first.gap : FAR, first ? first.between : 9, first ? first.said.words : 0);
  const named = seen.find((s) => s.said.kind);
  out.push(named ? (KIND_INDEX.get(named.said.kind!) ?? 0) + 1 : 0, named ? named.gap : FAR, named ? named.between : 9);
  const owned = seen.find((s) => s.said.role);
  out.push(owned ? owned.gap : FAR, owned ? owned.between : 9, owned?.said.heading ? 1 : 0);
  out.push(taken(first), taken(named), taken(owned));
}

const kindNumber = (c: Candidate | undefined) => (c ? (c.isPlace ? (KIND_INDEX.get(c.judged.kind) ?? 0) + 1 : 7) : 0);

/** Returns the features by which the kind of a candidate is weighed. */
export function kindFeatures(k: Known): number[] {
  const { c, view } = k;
  const { blank: b, captions } = c.judged;
  const { scan } = view;
  const out: number[] = [];
  const [w, h] = [b.x1 - b.x0, b.h];
  out.push(w, h, b.x0 / scan.content.width, b.y / scan.content.height, w / Math.max(1, scan.right - scan.left));
  for (const m of MADE) out.push(b.made === m ? 1 : 0);
  out.push(b.pieces ? 1 : 0, b.cell?.h ?? 0, b.cell?.w ?? 0);
  out.push(
    kindNumber(c),
    RULE_INDEX.get(c.rule) ?? -1,
    c.judged.confidence,
    c.judged.inText ? 1 : 0,
    c.judged.amid ? 1 : 0,
  );
  out.push(['words', 'role', 'shape', 'none'].indexOf(c.judged.by), c.judged.role ? 1 : 0);
  const flow = flowOf(scan, b);
  for (const text of [
    captions.left,
    captions.below.map((p) => p.text).join(' '),
    captions.above,
    captions.right.slice(0, 60),
    captions.cell,
    captions.rowHead,
    captions.colHead,
    flow.before.slice(-50),
  ])
    textFeatures(out, text);
  out.push(captions.sentence ? 1 : 0, captions.rightTaken ? 1 : 0, captions.after ? 1 : 0);
  out.push(flow.before ? 1 : 0, /^[,;.]? ?[a-z]/.test(flow.after) ? 1 : 0, /^[)\]]/.test(captions.right) ? 1 : 0);
  for (const d of DIRECTIONS) sightFeatures(out, k.seen[d], b);
  out.push(k.heading ? k.heading.gap : FAR);
  neighborhood(out, k);
  out.push(
    k.twins,
    k.pages,
    c.page === k.pages - 1 ? 1 : 0,
    k.paper.asksInitials ? 1 : 0,
    k.paper.speaksOfInitials ? 1 : 0,
  );
  out.push(view.candidates.length, view.candidates.filter((o) => o.judged.kind === 'signature').length);
  out.push(...k.rowFacts, k.rowRoles.length, ...k.habits, k.gaps.above - k.gaps.below);
  const { caption } = k;
  out.push(caption ? DIRECTIONS.indexOf(caption.direction) : -1, caption ? caption.seen.gap : FAR);
  out.push(caption?.seen.said.kind ? (KIND_INDEX.get(caption.seen.said.kind) ?? 0) + 1 : 0);
  out.push(caption?.seen.said.role ? 1 : 0, caption?.seen.said.words ?? 0);
  out.push(kindNumber(k.overleaf ?? undefined), k.overleaf && !k.columnIndex ? 1 : 0);
  return out;
}

/** Appends features of the blank's row and column: their lengths, its position in them, and the kinds of its neighbors by the rules. */
function neighborhood(out: number[], { c, view, row, rowIndex, column, columnIndex, starts, ends, gaps }: Known): void {
  const { blank: b } = c.judged;
  const w = b.x1 - b.x0;
  out.push(row.length, rowIndex, row.filter((o) => Math.abs(widthOf(o) - w) < 6).length);
  out.push(kindNumber(row[rowIndex - 1]), kindNumber(row[rowIndex + 1]), kindNumber(row[0]));
  out.push(column.length, columnIndex);
  const [up, down] = [column[columnIndex - 1], column[columnIndex + 1]];
  out.push(
    kindNumber(up),
    kindNumber(down),
    up ? b.y - up.judged.blank.y : FAR,
    down ? down.judged.blank.y - b.y : FAR,
  );
  out.push(starts ? 1 : 0, ends ? 1 : 0);
  const [first, last] = [column[0], column[column.length - 1]];
  out.push(first ? gapAbove(view, first.judged.blank) : FAR, last ? gapBelow(view, last.judged.blank) : FAR);
  out.push(gaps.above, gaps.below);
}

const widthOf = (c: Candidate) => c.judged.blank.x1 - c.judged.blank.x0;

/** Returns the features by which it is weighed whether a candidate is a role's. `kinds` are its probabilities. */
export function roleFeatures(k: Known, role: PlaceRole, kinds: ReadonlyMap<Candidate, readonly number[]>): number[] {
  const { c, row, rowIndex, column, columnIndex, view } = k;
  const { captions, role: ruled, blank: b } = c.judged;
  const out: number[] = [PLACE_ROLES.indexOf(role)];
  const is = (r: RoleRead | null | undefined) => (r ? (r.role === role ? 1 : -1) : 0);
  out.push(role === 'unknown' ? (ruled ? -1 : 1) : is(ruled));
  for (const r of k.named) out.push(is(r));
  for (const d of DIRECTIONS) {
    const seen = k.seen[d];
    const near = seen.find((s) => s.said.role);
    out.push(is(near?.said.role), near ? near.gap : FAR, near ? near.between : 9, near?.said.heading ? 1 : 0);
    out.push(near && isTaken(near.said, b) ? 1 : 0);
    const mine = seen.find((s) => s.said.role?.role === role);
    out.push(mine ? mine.gap : FAR, mine ? mine.between : 9);
  }
  out.push(is(k.heading?.role), k.heading ? k.heading.gap : FAR, k.heading?.isTaken ? 1 : 0, is(k.carried));
  out.push(...k.outsiders.map(Number), is(k.signedBelow?.judged.role));
  const roleOf = (o: Candidate | undefined) => is(o?.judged.role);
  out.push(roleOf(row[rowIndex - 1]), roleOf(row[rowIndex + 1]), roleOf(row[0]), roleOf(row[row.length - 1]));
  out.push(roleOf(column[columnIndex - 1]), roleOf(column[columnIndex + 1]));
  out.push(
    k.starts ? 1 : 0,
    k.ends ? 1 : 0,
    row.length,
    rowIndex,
    row.filter((o) => Math.abs(widthOf(o) - widthOf(c)) < 6).length,
  );
  // Roles named on the row, and by headings of the page and of the document.
  out.push(k.rowRoles.length, k.rowRoles.filter((x) => x === role).length, new Set(k.rowRoles).size);
  out.push(
    view.headings.filter((s) => s.role?.role === role).length,
    view.said.filter((s) => s.role?.role === role).length,
  );
  out.push(RULE_INDEX.get(c.rule) ?? -1, c.judged.blank.y / view.scan.content.height, widthOf(c), k.twins);
  out.push(...(kinds.get(c) ?? []));
  out.push(captions.sentence ? 1 : 0, c.judged.inText ? 1 : 0);
  out.push(k.gaps.above, k.gaps.below, ...k.said.map(is), ...k.rowFacts, ...k.mentions, ...k.habits);
  out.push(is(k.caption?.seen.said.role), k.caption ? DIRECTIONS.indexOf(k.caption.direction) : -1);
  for (const { nearest, gap, roles } of [k.signedBefore, k.signedAfter]) out.push(is(nearest?.judged.role), gap, roles);
  out.push(is(k.overleaf?.judged.role));
  out.push(is(k.listed), is(k.naming.role), k.naming.side, k.naming.share, k.naming.next);
  out.push(k.signers.size, k.signers.get(role) ?? 0);
  return out;
}

/** What was decided of a candidate so far. */
export interface Decided {
  kind: PlaceKind | 'none';
  role: PlaceRole;
}

/** What was decided of each candidate of a document so far. */
export interface DecidedSoFar {
  get: (c: Candidate) => Decided | undefined;
}

/** Number of lines of running text between two people who sign from which on the second begins a new block. */
const NEW_BLOCK = 2;
/** Height of a block in which people are counted, in points. */
const BLOCK = 260;

/** Returns the place of a candidate, from 1, among those of its person's role in its block: a gap, text or another role ends it. */
function placeInBlock(
  { c, view, column, columnIndex }: Known,
  role: PlaceRole,
  decided: DecidedSoFar,
  same: Same,
): number {
  const b = c.judged.blank;
  let place = 1;
  let last = b.y;
  for (let i = columnIndex - 1; i >= 0; i--) {
    const o = itemAt(column, i);
    const d = decided.get(o);
    const { y } = o.judged.blank;
    if (b.y - y > BLOCK || (d?.role !== role && d?.role !== 'unknown' && d?.kind !== 'none')) break;
    if (!same(o)) continue;
    if (textBetween(view, y, last) >= NEW_BLOCK) break;
    last = y;
    place++;
  }
  return place;
}

type Same = (o: Candidate) => boolean;

/**
 * Returns a function that returns, for n from 1, the features by which it is weighed whether a candidate is the nth of its role.
 */
export function ordinalFeatures(k: Known, decided: DecidedSoFar): (n: number) => number[] {
  const { c, view, row, column } = k;
  const { role: ruled, blank: b } = c.judged;
  const me = decided.get(c)!;
  const ofMe = (r: RoleRead | null | undefined) => (r?.role === me.role ? r.ordinal : null);
  const same: Same = (o) => decided.get(o)?.kind === me.kind && decided.get(o)?.role === me.role;
  const ofPage = view.candidates.filter(same);
  const lists = [row.filter(same), column.filter(same), ofPage].map((of) => [of.indexOf(c) + 1, of.length] as const);
  const near = DIRECTIONS.map((d) => k.seen[d].find((s) => s.said.role?.role === me.role));
  const block = placeInBlock(k, me.role, decided, same);
  // A block can begin on the previous page, with its heading there.
  const earlier = k.heading ? 0 : k.earlier.filter(same).length;
  // The signature it may belong to, and which one of its role that is on the page.
  const signs = view.candidates.filter((o) => decided.get(o)?.kind === 'signature' && decided.get(o)?.role === me.role);
  const partner = [...signs].sort((p, q) => away(p, c) - away(q, c))[0];
  const before = ofPage[ofPage.indexOf(c) - 1];
  const named = new Set(view.said.flatMap((s) => (s.role?.role === me.role && s.role.ordinal ? [s.role.ordinal] : [])));
  /** The ordinals that words name. */
  const spoken = [
    ofMe(ruled),
    ...k.named.map(ofMe),
    ...near.map((s) => s?.said.role?.ordinal),
    ofMe(k.heading?.role),
    ofMe(k.caption?.seen.said.role),
    ofMe(k.naming.role),
    ofMe(k.listed),
  ];
  /** What is the same for every ordinal. */
  const fixed = [
    KIND_INDEX.get(me.kind as PlaceKind) ?? -1,
    ...near.flatMap((s) => (s ? [s.between, s.gap] : [9, FAR])),
    ...lists.map(([, length]) => length),
    k.carried?.role === me.role ? 1 : 0,
    partner ? Math.min(FAR, away(partner, c)) : FAR,
    signs.length,
    // Between two signings of the same people there is text to read.
    before ? textBetween(view, before.judged.blank.y, b.y) : 0,
    before ? Math.min(FAR, b.y - before.judged.blank.y) : FAR,
    before ? b.x0 - before.judged.blank.x0 : FAR,
    Math.max(0, ...named),
    k.twins,
    row.length,
    k.rowIndex,
    RULE_INDEX.get(c.rule) ?? -1,
    k.starts ? 1 : 0,
    ...k.rowFacts,
    ...k.habits,
  ];
  return (n) => [
    n,
    ...spoken.map((said) => (said ? (said === n ? 1 : -1) : 0)),
    ...lists.flatMap(([place, length]) => [place - n, length < n ? 1 : 0]),
    block - n,
    earlier ? earlier + block - n : FAR,
    partner ? signs.indexOf(partner) + 1 - n : 9,
    named.has(n) ? 1 : 0,
    ...fixed,
  ];
}

/** Returns the neighbors of a candidate: on its row to the left and right, in its column above and below. A column may begin on the previous page. */
function neighborsOf(k: Known): (Candidate | undefined)[] {
  const up = k.column[k.columnIndex - 1] ?? k.overleaf ?? undefined;
  return [k.row[k.rowIndex - 1], k.row[k.rowIndex + 1], up, k.column[k.columnIndex + 1]];
}

/** Returns the features of a second look at the kind: those of the first, and what it made of the neighbors. */
export function secondKindFeatures(
  k: Known,
  first: readonly number[],
  kinds: ReadonlyMap<Candidate, readonly number[]>,
): number[] {
  const own = kinds.get(k.c) ?? [];
  const out = [...first, ...own];
  for (const o of neighborsOf(k)) {
    const p = o && kinds.get(o);
    for (let i = 0; i < own.length; i++) out.push(p ? (p[i] ?? 0) : 0);
  }
  return out;
}

const SIGNATURE = PLACE_KINDS.indexOf('signature');

/** Returns the features of a second look at a role: those of the first, and what it made of the neighbors. */
export function secondRoleFeatures(
  k: Known,
  role: PlaceRole,
  first: readonly number[],
  kinds: ReadonlyMap<Candidate, readonly number[]>,
  roles: ReadonlyMap<Candidate, readonly number[]>,
): number[] {
  const i = PLACE_ROLES.indexOf(role);
  const of = (o: Candidate | undefined) => (o ? (roles.get(o)?.[i] ?? 0) : -1);
  const signs = k.view.candidates.filter((o) => o !== k.c && (kinds.get(o)?.[SIGNATURE] ?? 0) > 0.4);
  const partner = [...signs].sort((p, q) => away(p, k.c) - away(q, k.c))[0];
  const own = roles.get(k.c) ?? [];
  return [
    ...first,
    of(k.c),
    Math.max(...own),
    ...neighborsOf(k).map(of),
    of(partner),
    partner ? Math.min(FAR, away(partner, k.c)) : FAR,
    Math.max(0, ...k.row.map(of)),
    k.row.reduce((n, o) => n + of(o), 0) / Math.max(1, k.row.length),
  ];
}

const away = (p: Candidate, q: Candidate) => {
  const [a, b] = [p.judged.blank, q.judged.blank];
  // On one row to the left, or right above, is nearer than anything else.
  const dy = Math.abs(a.y - b.y);
  return dy < 8 ? Math.max(0, b.x0 - a.x1) * 0.3 : dy + 0.5 * Math.abs(a.x0 - b.x0) + (a.y > b.y ? 12 : 0);
};
