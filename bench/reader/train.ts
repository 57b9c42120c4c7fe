/**
 * Trains the reader: `npx tsx bench/reader/train.ts` prints forms from seeds, learns from them, from our own labeled forms and
 * from those by other hands, and writes `core/reading/weights.json`. The same seeds give the same weights.
 *
 *     --forms N    number of generated forms (3,000)
 *     --apart      learns without the forms by other hands, and writes `bench/reader/weights-apart.json`: the bench measures
 *                  with these on those forms
 *     --layouts    leaves out some layouts at a time, measures on them, and writes `bench/reader/held-out.json`
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { candidatesOf } from '@gatepath/core/reading/candidates';
import { readied } from '@gatepath/core/reading/decide';
import { placesBy } from '@gatepath/core/reading/read';
import { FEET } from '../forms/generator/initialing';
import { printForms } from '../forms/generator/print';
import { SIGNING } from '../forms/generator/signing';
import { formsOnDisk } from '../reading-score';
import { generated, othersOf, ownForms, type Case } from './cases';
import { learn, learnCertainty, lessonOf, type Lesson } from './learn';
import { HEADS, isTaken, lineOf, newSetScore, scoreForm, type SetScore } from './score';

const HERE = path.dirname(fileURLToPath(import.meta.url));
const { values } = parseArgs({
  options: {
    forms: { type: 'string' },
    apart: { type: 'boolean' },
    layouts: { type: 'boolean' },
  },
});

// Forms are kept between runs, apart for each state of the grammar.
const GRAMMAR = path.join(HERE, '../forms/generator');
const grammar = createHash('sha256');
for (const file of readdirSync(GRAMMAR).sort()) grammar.update(readFileSync(path.join(GRAMMAR, file)));
const DIR = path.join(os.tmpdir(), `gatepath-made-${grammar.digest('hex').slice(0, 12)}`);

const began = performance.now();
const say = (text: string) => console.log(`${((performance.now() - began) / 1000).toFixed(0)} s: ${text}`);

/** Number of times that each form by other hands is used in training: there are few of them, and they differ more than generated ones. */
const OTHERS_COUNT = 3;
/** Every sixth form is used to train certainty only, so that certainty is trained on forms the decision has not seen. */
const KEPT = 6;

/** Learns from lessons; `more` are learned from whole. */
function learned(lessons: Lesson[], more: Lesson[] = []) {
  const kept = (_: Lesson, i: number) => i % KEPT === KEPT - 1;
  const weights = learn([...lessons.filter((l, i) => !kept(l, i)), ...more], say);
  // As they are read back from the file: trees compare with short numbers.
  return readied(JSON.parse(JSON.stringify({ ...weights, certainty: learnCertainty(weights, lessons.filter(kept)) })));
}

const LAYOUTS = [...SIGNING, ...FEET.filter((f) => f !== 'none').map((f) => `foot ${f}`)];
/** Number of rounds in which layouts are left out. */
const ROUNDS = 7;
/** Number of forms a layout is measured on at most. */
const MEASURED = 60;

/** Measures each layout with weights that were learned without it. */
function heldOut(made: (Case & { layouts: string[] })[], own: Lesson[]): Record<string, SetScore> {
  const out: Record<string, SetScore> = {};
  const lessons = new Map(made.map((c) => [c, lessonOf(c)]));
  for (let round = 0; round < ROUNDS; round++) {
    const left = LAYOUTS.filter((_, i) => i % ROUNDS === round);
    const without = made.filter((c) => !c.layouts.some((l) => left.includes(l)));
    const weights = learned([...without.map((c) => lessons.get(c)!), ...own]);
    console.log(HEADS.join(' '));
    for (const layout of left) {
      const s = newSetScore();
      for (const c of made.filter((m) => m.layouts.includes(layout)).slice(0, MEASURED))
        scoreForm(s, c.name, c.truth, placesBy(weights, candidatesOf(c.contents)), isTaken);
      console.log(lineOf(`without ${layout}`, s));
      out[layout] = { ...s, faults: [] };
    }
  }
  return out;
}

const count = Number(values.forms ?? 3_000);
await printForms(
  Array.from({ length: count }, (_, i) => i),
  DIR,
);
say(`${count} forms printed`);
const made = await generated(DIR, 0, count);
const own = (await ownForms(formsOnDisk())).map(lessonOf);
if (values.layouts) {
  writeFileSync(path.join(HERE, 'held-out.json'), `${JSON.stringify(heldOut(made, own))}\n`);
} else {
  const others = values.apart ? [] : [...(await othersOf('a')), ...(await othersOf('b'))].map(lessonOf);
  const weights = learned(
    [...made.map(lessonOf), ...own],
    others.flatMap((l) => Array.from({ length: OTHERS_COUNT }, () => l)),
  );
  const file = values.apart
    ? path.join(HERE, 'weights-apart.json')
    : path.join(HERE, '../../core/reading/weights.json');
  writeFileSync(
    file,
    `${JSON.stringify(weights, (_, v: unknown) => (ArrayBuffer.isView(v) ? Array.from(v as Float64Array) : v))}\n`,
  );
  say(`${file} written`);
}
