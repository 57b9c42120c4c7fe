/** How well the reader does on labelled forms: F1 by kind, roles right, and where it went wrong. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { DOUBT, type PrintedPlace } from '@gatepath/core/reading';
import type { Labelled } from './forms/types';

export const FORMS = path.join(path.dirname(fileURLToPath(import.meta.url)), 'forms');

interface Tally {
  hit: number;
  missed: number;
  extra: number;
}

export interface Score {
  forms: number;
  kinds: Map<string, Tally>;
  roles: { right: number; of: number };
  /** What "accept all" takes as signature, initials or day of signing: how much of it is right, with whose it is. */
  sure: { right: number; of: number };
  faults: string[];
}

/**
 * Returns whether a place that was read is the one that was meant: they share half of the smaller one's width and touch
 * in height.
 */
function same(a: PrintedPlace, b: Labelled): boolean {
  if (a.page !== b.page) return false;
  const [x, y, w, h] = b.rect;
  const across = Math.min(a.rect.x + a.rect.w, x + w) - Math.max(a.rect.x, x);
  const down = Math.min(a.rect.y + a.rect.h, y + h) - Math.max(a.rect.y, y);
  // A box in brackets is as wide as one takes it.
  const wide = b.kind === 'checkbox' ? Math.min(a.rect.w, w) : Math.max(a.rect.w, w);
  return across > 0.5 * wide && down > 0.2 * Math.min(a.rect.h, h);
}

/** Returns whether a place is accepted together with others, as a hand's. */
const isTakenUnseen = (p: PrintedPlace) =>
  p.role !== 'unknown' &&
  p.confidence > DOUBT &&
  (p.kind === 'signature' || p.kind === 'initials' || (p.kind === 'date' && p.signed === true));

/** Returns a score of nothing yet. */
export const newScore = (forms: number): Score => ({
  forms,
  kinds: new Map(),
  roles: { right: 0, of: 0 },
  sure: { right: 0, of: 0 },
  faults: [],
});

/** Compares what was read of a form with its labels. */
export function scorePlaces(out: Score, name: string, places: PrintedPlace[]): void {
  const tally = (kind: string) => {
    const t = out.kinds.get(kind) ?? { hit: 0, missed: 0, extra: 0 };
    out.kinds.set(kind, t);
    return t;
  };
  const labels = JSON.parse(readFileSync(path.join(FORMS, `${name}.json`), 'utf8')) as Labelled[];
  const open = new Set(places);
  for (const p of places.filter(isTakenUnseen)) {
    out.sure.of++;
    const right = labels.some((l) => same(p, l) && l.kind === p.kind && l.role === p.role && l.ordinal === p.ordinal);
    if (right) out.sure.right++;
    else out.faults.push(`${name} p${p.page}: ${p.kind} of ${p.role} ${p.ordinal} would be accepted unseen`);
  }
  for (const l of labels) {
    const found = [...open].filter((p) => same(p, l));
    const hit = found.find((p) => p.kind === l.kind);
    if (hit) {
      open.delete(hit);
      tally(l.kind).hit++;
      if (l.role !== 'unknown') {
        out.roles.of++;
        if (hit.role === l.role && hit.ordinal === l.ordinal) out.roles.right++;
        else
          out.faults.push(
            `${name} p${l.page}: ${l.kind} at ${l.rect.join()} is ${l.role} ${l.ordinal}, read as ${hit.role} ${hit.ordinal}`,
          );
      }
    } else {
      tally(l.kind).missed++;
      out.faults.push(
        `${name} p${l.page}: ${l.kind} of ${l.role} at ${l.rect.join()} ${found[0] ? `read as ${found[0].kind} (${found[0].label})` : 'missed'}`,
      );
    }
  }
  for (const p of open) {
    tally(p.kind).extra++;
    out.faults.push(
      `${name} p${p.page}: ${p.kind} too many at ${[p.rect.x, p.rect.y, p.rect.w, p.rect.h].join()} (${p.label}) ${p.confidence}`,
    );
  }
}

export function f1(t: Tally): number {
  return t.hit === 0 ? 0 : (2 * t.hit) / (2 * t.hit + t.missed + t.extra);
}

/** Returns all kinds in one tally. */
export function together(s: Score, kinds: string[] = [...s.kinds.keys()]): Tally {
  return kinds.reduce(
    (sum, k) => {
      const t = s.kinds.get(k) ?? { hit: 0, missed: 0, extra: 0 };
      return { hit: sum.hit + t.hit, missed: sum.missed + t.missed, extra: sum.extra + t.extra };
    },
    { hit: 0, missed: 0, extra: 0 },
  );
}

/** Returns the labelled forms that are there as files. */
export function formsOnDisk(): string[] {
  return readdirSync(FORMS)
    .filter((f) => f.endsWith('.json'))
    .map((f) => f.slice(0, -5));
}
