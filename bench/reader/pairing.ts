/**
 * Pairing places that were read with the places a form has, as `bench/forms/others/score.mjs` does: one to one, by
 * greatest worth.
 */
import type { PlaceKind, PrintedPlace } from '@gatepath/core/reading';
import { groupBy, itemAt } from '@gatepath/core/sure';

/** A place as the form's author meant it. */
export interface TruePlace {
  page: number;
  kind: PlaceKind;
  role: string;
  ordinal: number | null;
  /** x, y, width, height in points from the top left. */
  rect: readonly [number, number, number, number];
  /** Other kinds and roles that are right too. */
  alt?: string[];
  altRole?: string[];
  /** Names the parts of one blank. */
  group?: string;
  /** A group that was read as one place: it must be covered. */
  whole?: boolean;
}

type Box = TruePlace['rect'];
const PAD = 6;
const LEAST_IOU = 0.2;

const boxOf = (p: PrintedPlace): Box => [p.rect.x, p.rect.y, p.rect.w, p.rect.h];
const centre = ([x, y, w, h]: Box): [number, number] => [x + w / 2, y + h / 2];
const inside = ([px, py]: [number, number], [x, y, w, h]: Box) =>
  px >= x - PAD && px <= x + w + PAD && py >= y - PAD && py <= y + h + PAD;

function iou(a: Box, b: Box): number {
  const w = Math.min(a[0] + a[2], b[0] + b[2]) - Math.max(a[0], b[0]);
  const h = Math.min(a[1] + a[3], b[1] + b[3]) - Math.max(a[1], b[1]);
  if (w <= 0 || h <= 0) return 0;
  return (w * h) / (a[2] * a[3] + b[2] * b[3] - w * h);
}

const near = (t: TruePlace, p: PrintedPlace) =>
  inside(centre(t.rect), boxOf(p)) ||
  (!t.whole && inside(centre(boxOf(p)), t.rect)) ||
  iou(t.rect, boxOf(p)) >= LEAST_IOU;

/** Returns whether a place was read as a kind that is right. */
export const sameKind = (t: TruePlace, p: Pick<PrintedPlace, 'kind'>): boolean =>
  p.kind === t.kind || !!t.alt?.includes(p.kind);
/** Returns whether a place was read as of a role that is right. */
export const sameRole = (t: TruePlace, p: Pick<PrintedPlace, 'role'>): boolean =>
  p.role === t.role || !!t.altRole?.includes(p.role);
/** Returns whether a place was read as of the right one of its role. */
export const sameOrdinal = (t: TruePlace, p: Pick<PrintedPlace, 'role' | 'ordinal'>): boolean =>
  t.role === 'unknown' ||
  (p.ordinal ?? 0) === (t.ordinal ?? 1) ||
  (p.role === 'unknown' && !!t.altRole?.includes(p.role));

function worth(t: TruePlace, p: PrintedPlace): number {
  const [a, b] = [centre(t.rect), centre(boxOf(p))];
  return (sameKind(t, p) ? 1000 : 10) + iou(t.rect, boxOf(p)) + 0.1 / (1 + Math.hypot(a[0] - b[0], a[1] - b[1]));
}

/** Pairs rows and columns one to one for the greatest sum (Kuhn 1955); pairs of worth 0 are left out. */
function hungarian(value: number[][]): [number, number][] {
  const n = Math.max(value.length, itemAt(value, 0).length);
  const cost = (i: number, j: number) => -(value[i]?.[j] ?? 0);
  const [u, v] = [new Float64Array(n + 1), new Float64Array(n + 1)];
  const [match, way] = [new Int32Array(n + 1), new Int32Array(n + 1)];
  for (let i = 1; i <= n; i++) {
    match[0] = i;
    let j0 = 0;
    const least = new Float64Array(n + 1).fill(1e15);
    const used = new Uint8Array(n + 1);
    do {
      used[j0] = 1;
      const i0 = match[j0]!;
      let [delta, j1] = [1e15, 0];
      for (let j = 1; j <= n; j++) {
        if (used[j]) continue;
        const c = cost(i0 - 1, j - 1) - u[i0]! - v[j]!;
        if (c < least[j]!) [least[j], way[j]] = [c, j0];
        if (least[j]! < delta) [delta, j1] = [least[j]!, j];
      }
      for (let j = 0; j <= n; j++)
        if (used[j]) {
          u[match[j]!]! += delta;
          v[j]! -= delta;
        } else least[j]! -= delta;
      j0 = j1;
    } while (match[j0]);
    do {
      const j1 = way[j0]!;
      match[j0] = match[j1]!;
      j0 = j1;
    } while (j0);
  }
  const pairs: [number, number][] = [];
  for (let j = 1; j <= n; j++) {
    const i = match[j]! - 1;
    if (i >= 0 && (value[i]?.[j - 1] ?? 0) > 0) pairs.push([i, j - 1]);
  }
  return pairs;
}

/** Returns pairs of a true and a read place of one page, by their indices. */
export function pair(truth: readonly TruePlace[], found: readonly PrintedPlace[]): [number, number][] {
  const edges = truth.map((t) => found.flatMap((p, j) => (near(t, p) ? [j] : [])));
  const back = found.map((): number[] => []);
  edges.forEach((list, i) => list.forEach((j) => back[j]!.push(i)));
  const seen = new Set<number>();
  const pairs: [number, number][] = [];
  for (let start = 0; start < truth.length; start++) {
    if (seen.has(start) || !edges[start]!.length) continue;
    const [rows, cols] = [[start], [] as number[]];
    const known = new Set<number>();
    seen.add(start);
    for (let k = 0; k < rows.length; k++)
      for (const j of edges[rows[k]!]!) {
        if (known.has(j)) continue;
        known.add(j);
        cols.push(j);
        for (const i of back[j]!)
          if (!seen.has(i)) {
            seen.add(i);
            rows.push(i);
          }
      }
    const value = rows.map((i) => cols.map((j) => (edges[i]!.includes(j) ? worth(truth[i]!, found[j]!) : 0)));
    for (const [a, b] of hungarian(value)) pairs.push([rows[a]!, cols[b]!]);
  }
  return pairs;
}

/** Returns the truth of a page with each group as its parts or as one place, whichever was read. */
export function asRead(truth: readonly TruePlace[], found: readonly PrintedPlace[]): TruePlace[] {
  const first = pair(truth, found);
  const gone = new Set<TruePlace>();
  const whole: TruePlace[] = [];
  for (const parts of groupBy(
    truth.filter((t) => t.group),
    (t) => t.group!,
  ).values()) {
    const hits = first.filter(([i, j]) => parts.includes(truth[i]!) && sameKind(truth[i]!, found[j]!)).length;
    if (parts.length < 2 || hits >= 2) continue;
    const x = Math.min(...parts.map((p) => p.rect[0]));
    const y = Math.min(...parts.map((p) => p.rect[1]));
    const w = Math.max(...parts.map((p) => p.rect[0] + p.rect[2])) - x;
    const h = Math.max(...parts.map((p) => p.rect[1] + p.rect[3])) - y;
    for (const p of parts) gone.add(p);
    whole.push({ ...parts[0]!, rect: [x, y, w, h], whole: true });
  }
  return [...truth.filter((t) => !gone.has(t)), ...whole];
}
