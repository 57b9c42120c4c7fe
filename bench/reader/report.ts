/** `npm run bench -- reading`: how right reading is on forms by other hands, on our own, on scans, and where nothing is to be signed. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { aroundOf, certaintyOf, decide } from '@gatepath/core/reading/decide';
import { readPlaces, WEIGHTS } from '@gatepath/core/reading/read';
import { placesIn } from '../../server/reading/inspect';
import { stopRecognising } from '../../server/scan/recognise';
import { scanOf } from '../../server/test/scan';
import { FORMS, formsOnDisk } from '../reading-score';
import { othersOf, ownForms, type Case } from './cases';
import { lessonOf } from './learn';
import { HEADS, isTaken, lineOf, newSetScore, scoreForm, type SetScore } from './score';

/** Number of forms that are scanned for the table; recognizing a page takes seconds. */
const SCANS = 20;

function scoreOf(cases: readonly Case[]): SetScore {
  const s = newSetScore();
  for (const c of cases) scoreForm(s, c.name, c.truth, readPlaces(c.contents, c.fields), isTaken);
  return s;
}

/** Reads the first forms of a set as scans. */
async function scanned(cases: readonly Case[], set: 'a' | 'b'): Promise<SetScore> {
  const s = newSetScore();
  const upright = cases.filter((c) => c.contents.every((p) => !p.rotation && !p.scan)).slice(0, SCANS);
  for (const [k, c] of upright.entries()) {
    const bytes = new Uint8Array(readFileSync(path.join(FORMS, 'others', set, `${c.name}.pdf`)));
    const scan = await scanOf(bytes, undefined, k + 11);
    const places = await placesIn(scan.bytes);
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
    const all = decide(WEIGHTS, known);
    const around = aroundOf(all);
    all.forEach((d, i) => {
      if (d.kind === 'none') return;
      const t = truth[i];
      const p = certaintyOf(WEIGHTS, d, around);
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
  for (const [name, cases] of [
    ['by other hands, a', a],
    ['by other hands, b', b],
    ['our own (trained on)', own],
  ] as const) {
    const s = scoreOf(cases);
    say(lineOf(name, s));
    if (process.env['FAULTS']) for (const f of s.faults) say(`  ${f}`);
  }
  if (withScans) say(lineOf(`${SCANS} of a, scanned`, await scanned(a, 'a')));
  say('Certainty on forms by other hands');
  for (const line of reliability([...a, ...b])) say(`  ${line}`);
}
