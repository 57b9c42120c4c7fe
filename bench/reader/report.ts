/** `npm run bench -- reading`: how right reading is on forms by other hands, on our own, on scans, and where nothing is to be signed. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { candidatesOf } from '@gatepath/core/reading/candidates';
import { aroundOf, certaintyOf } from '@gatepath/core/reading/certainty';
import { decide, readied, type Weights } from '@gatepath/core/reading/decide';
import { placesBy, WEIGHTS } from '@gatepath/core/reading/read';
import { contentsOf, placesIn } from '../../server/reading/inspect';
import { stopRecognising } from '../../server/scan/recognise';
import { scanOf } from '../../server/test/scan';
import { ordinary } from '../forms/ordinary';
import { FORMS, formsOnDisk } from '../reading-score';
import { othersOf, ownForms, type Case } from './cases';
import { lessonOf } from './learn';
import { figures, HEADS, isTaken, lineOf, newSetScore, scoreForm, type SetScore } from './score';

/** Number of forms that are scanned for the table; recognizing a page takes seconds. */
const SCANS = 20;
/** Number of documents with nothing to sign. */
const ORDINARY = 40;

const HERE = path.dirname(fileURLToPath(import.meta.url));
const fileIn = <T>(name: string) => JSON.parse(readFileSync(path.join(HERE, name), 'utf8')) as T;
/** What was learned without the forms by other hands, by which those are read here. */
const APART = readied(fileIn<Weights>('weights-apart.json'));

function scoreOf(cases: readonly Case[], weights: Weights): SetScore {
  const s = newSetScore();
  for (const c of cases) scoreForm(s, c.name, c.truth, placesBy(weights, candidatesOf(c.contents, c.fields)), isTaken);
  return s;
}

/** Prints how right reading is of layouts that were left out of learning, the worst first: measured when it was trained. */
function sayHeldOut(say: (text: string) => void): void {
  const hands = (s: SetScore) => Math.min(figures(s).signature, figures(s).initials);
  const all = Object.entries(fileIn<Record<string, SetScore>>('held-out.json')).sort(
    ([, p], [, q]) => hands(p) - hands(q),
  );
  const mean = all.reduce((n, [, s]) => n + hands(s), 0) / Math.max(1, all.length);
  say(`Layouts that were left out of learning, the worst first (mean of signatures and initials ${mean.toFixed(3)})`);
  for (const [layout, s] of all) say(lineOf(layout, s));
}

/** Numbers of pages of the two documents by which it is measured how time grows with length. */
const LENGTHS = [30, 300] as const;

/** Prints how many times longer a long document takes than a short one, made of the same pages; linear is the ratio of lengths. */
function sayGrowth(say: (text: string) => void, cases: readonly Case[]): void {
  const pages = cases.flatMap((c) => c.contents).slice(0, LENGTHS[0]);
  const time = (n: number) => {
    const many = Array.from({ length: n }, (_, i) => pages[i % pages.length]!);
    const times = Array.from({ length: 5 }, () => {
      const began = performance.now();
      placesBy(WEIGHTS, candidatesOf(many));
      return performance.now() - began;
    });
    return times.sort((x, y) => x - y)[2]!;
  };
  time(LENGTHS[0]);
  const [short, long] = [time(LENGTHS[0]), time(LENGTHS[1])];
  const linear = LENGTHS[1] / LENGTHS[0];
  say(
    `${LENGTHS[1]} pages take ${(long / short).toFixed(1)} times as long as ${LENGTHS[0]}: ${(long / short / linear).toFixed(2)} of linear`,
  );
}

/** Prints what is found on documents with nothing to sign. */
async function sayOrdinary(say: (text: string) => void): Promise<void> {
  let pages = 0;
  const found = { hands: 0, taken: 0, other: 0 };
  for (const { bytes } of await ordinary(ORDINARY)) {
    const { contents, fields } = await contentsOf(bytes);
    pages += contents.length;
    for (const p of placesBy(WEIGHTS, candidatesOf(contents, fields))) {
      const isHand = p.kind === 'signature' || p.kind === 'initials';
      found[isHand ? 'hands' : 'other']++;
      if (isHand && isTaken(p)) found.taken++;
    }
  }
  say(
    `${ORDINARY} ordinary documents, ${pages} pages: ${found.hands} signatures and initials, ${found.taken} of them taken by "accept all"; ${found.other} other places`,
  );
}

/** Reads the first forms of a set as scans. */
async function scanned(cases: readonly Case[], set: 'a' | 'b'): Promise<SetScore> {
  const s = newSetScore();
  const upright = cases.filter((c) => c.contents.every((p) => !p.rotation && !p.scan)).slice(0, SCANS);
  for (const [k, c] of upright.entries()) {
    const bytes = new Uint8Array(readFileSync(path.join(FORMS, 'others', set, `${c.name}.pdf`)));
    const scan = await scanOf(bytes, undefined, k + 11);
    const places = await placesIn(scan.bytes, (pages, fields) => placesBy(APART, candidatesOf(pages, fields)));
    scoreForm(
      s,
      c.name,
      c.truth,
      places.map((p) => ({ ...p, rect: scan.onPaper(p.page, p.rect) })),
      isTaken,
    );
  }
  await stopRecognising();
  return s;
}

/** Returns how often what is called so certain is right, in ten bins. */
function reliability(cases: readonly Case[]): string[] {
  const bins = Array.from({ length: 10 }, () => ({ n: 0, right: 0, sum: 0 }));
  for (const c of cases) {
    const { known, truth } = lessonOf(c);
    const all = decide(APART, known);
    const around = aroundOf(all);
    all.forEach((d, i) => {
      if (d.kind === 'none') return;
      const t = truth[i];
      const p = certaintyOf(APART, d, around);
      const bin = bins[Math.min(9, Math.floor(p * 10))]!;
      bin.n++;
      bin.sum += p;
      if (t && t.kind === d.kind && t.role === d.role && (t.role === 'unknown' || (t.ordinal ?? 1) === d.ordinal))
        bin.right++;
    });
  }
  return bins
    .filter((b) => b.n)
    .map((b) => `${(b.sum / b.n).toFixed(2)} certain: ${(b.right / b.n).toFixed(2)} right of ${b.n}`);
}

/** Prints the table. */
export async function report(say: (text: string) => void, withScans: boolean): Promise<void> {
  const [a, b, own] = [await othersOf('a'), await othersOf('b'), await ownForms(formsOnDisk())];
  say(
    `\nReading of labeled forms (F1 by kind; roles and ordinals of what was found; what "accept all" takes of hands)`,
  );
  say(HEADS.join(' '));
  for (const [name, cases, weights] of [
    ['by other hands, a', a, APART],
    ['by other hands, b', b, APART],
    ['our own (trained on)', own, WEIGHTS],
  ] as const) {
    const s = scoreOf(cases, weights);
    say(lineOf(name, s));
    if (process.env['FAULTS']) for (const f of s.faults) say(`  ${f}`);
  }
  if (withScans) say(lineOf(`${SCANS} of a, scanned`, await scanned(a, 'a')));
  sayHeldOut(say);
  say('Certainty on forms by other hands');
  for (const line of reliability([...a, ...b])) say(`  ${line}`);
  sayGrowth(say, own);
  await sayOrdinary(say);
}
