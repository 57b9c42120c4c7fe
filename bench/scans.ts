/** How right the reader is on scans: places found, and what is filled and what is not on papers that came back. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import type { PlaceKind } from '@gatepath/core/reading';
import { inspect, placesIn } from '../server/reading/inspect';
import { stopRecognising } from '../server/scan/recognise';
import { filledIn } from '../server/test/filled';
import { chance, scanOf } from '../server/test/scan';
import { kept } from './forms/held-back';
import type { Labelled } from './forms/types';
import { apart } from './forms/ways/apart';
import { otherWays } from './forms/ways';
import { written } from './forms/written';
import { accuracy, type Accuracy } from './reading';
import { FORMS, newScore, scorePlaces } from './reading-score';

export interface ScanAccuracy extends Accuracy {
  pages: number;
  /** For a page, recognition and all. */
  secondsAPage: number;
}

const fileOf = (name: string) => new Uint8Array(readFileSync(path.join(FORMS, `${name}.pdf`)));
const labelsOf = (name: string) => JSON.parse(readFileSync(path.join(FORMS, `${name}.json`), 'utf8')) as Labelled[];

/** Forms scanned at 200 dots an inch, a little askew, grained and compressed. */
async function scanAccuracy(set: string, names: string[]): Promise<ScanAccuracy> {
  const s = newScore(names.length);
  let pages = 0;
  let took = 0;
  for (const [k, name] of names.entries()) {
    const scan = await scanOf(fileOf(name), undefined, k + 11);
    const began = performance.now();
    const places = await placesIn(scan.bytes);
    took += performance.now() - began;
    pages += (await PDFDocument.load(scan.bytes)).getPageCount();
    scorePlaces(
      s,
      name,
      places.map((p) => ({ ...p, rect: scan.onPaper(p.page, p.rect) })),
    );
  }
  return { ...accuracy(set, s), pages, secondsAPage: took / 1000 / Math.max(1, pages) };
}

type Said = 'yes' | 'no' | 'doubtful' | 'not met';

export interface FilledAccuracy {
  set: string;
  empty: Record<Said, number>;
  full: Record<Said, number>;
}

const none = (): Record<Said, number> => ({ yes: 0, no: 0, doubtful: 0, 'not met': 0 });

/** Forms of which six places in ten are filled by hand, scanned, and looked at with the empty form at hand or without it. */
async function filledAccuracy(names: string[]): Promise<FilledAccuracy[]> {
  const out = ['with the empty form', 'without it'].map((set) => ({ set, empty: none(), full: none() }));
  for (const [k, name] of names.entries()) {
    const paper = fileOf(name);
    // The pen writes on pages that stand upright.
    if ((await PDFDocument.load(paper)).getPages().some((p) => p.getRotation().angle)) continue;
    const random = chance(k + 5);
    const places = labelsOf(name).map(({ page, kind, rect: [x, y, w, h] }) => ({
      page,
      kind: kind as PlaceKind,
      rect: { x, y, w, h },
      full: random() < 0.6,
    }));
    const filled = await filledIn(
      paper,
      places.filter((p) => p.full),
      random,
    );
    const scan = await scanOf(filled, undefined, k + 3);
    for (const [tally, blank] of [
      [out[0]!, paper],
      [out[1]!, undefined],
    ] as const) {
      const found = (await inspect(scan.bytes, blank)).places.map((p) => ({
        ...p,
        rect: scan.onPaper(p.page, p.rect),
      }));
      for (const place of places) {
        const met = found.find((p) => p.page === place.page && isOn(p.rect, place.rect));
        tally[place.full ? 'full' : 'empty'][met?.filled ?? 'not met']++;
      }
    }
  }
  return out;
}

const isOn = (a: Rect, b: Rect) =>
  Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x) > 0.5 * Math.min(a.w, b.w) &&
  Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y) > 0.2 * Math.min(a.h, b.h);

/**
 * Measures everything about scans. Every third of the forms that printed reading was learnt from was used to write
 * this; all others are apart.
 */
export async function scansAccuracy(): Promise<{ scans: ScanAccuracy[]; filled: FilledAccuracy[] }> {
  const known = [...written, ...otherWays].map((f) => f.name);
  const unseen = [...kept, ...apart].map((f) => f.name);
  const scans = [
    await scanAccuracy('scans, kept apart', unseen),
    await scanAccuracy(
      'scans, looked at while this was written',
      known.filter((_, i) => i % 3 === 0),
    ),
    await scanAccuracy(
      'scans, others',
      known.filter((_, i) => i % 3 !== 0),
    ),
  ];
  const filled = await filledAccuracy([...unseen, ...known.filter((_, i) => i % 3 === 1)]);
  await stopRecognising();
  return { scans, filled };
}
