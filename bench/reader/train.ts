/**
 * Trains the reader: `npx tsx bench/reader/train.ts` prints forms from seeds, learns from them and from our own labeled
 * forms, and writes `core/reading/weights.json`. The same seeds give the same weights.
 *
 *     --forms N          number of generated forms (1,100)
 *     --without LAYOUT   leaves out every form that uses a layout, measures on such forms, and writes nothing
 */
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { candidatesOf } from '@gatepath/core/reading/candidates';
import { placesBy } from '@gatepath/core/reading/read';
import { printForms } from '../forms/generator/print';
import { formsOnDisk } from '../reading-score';
import { generated, ownForms } from './cases';
import { learn, learnCertainty, lessonOf } from './learn';
import { HEADS, isTaken, lineOf, newSetScore, scoreForm } from './score';

const { values } = parseArgs({ options: { forms: { type: 'string' }, without: { type: 'string' } } });
const WEIGHTS = path.join(path.dirname(fileURLToPath(import.meta.url)), '../../core/reading/weights.json');
const DIR = path.join(os.tmpdir(), 'gatepath-made');
const began = performance.now();
const say = (text: string) => console.log(`${((performance.now() - began) / 1000).toFixed(0)} s: ${text}`);

const count = Number(values.forms ?? 1_100);
await printForms(
  Array.from({ length: count }, (_, i) => i),
  DIR,
);
say(`${count} forms printed`);
const made = await generated(DIR, 0, count);
const uses = (c: { layouts: string[] }) => values.without !== undefined && c.layouts.includes(values.without);
const lessons = [...made.filter((c) => !uses(c)), ...(await ownForms(formsOnDisk()))].map(lessonOf);
// Certainty is learned on forms the decision was not learned from.
const weights = learn(
  lessons.filter((_, i) => i % 6 !== 5),
  say,
);
const certainty = learnCertainty(
  weights,
  lessons.filter((_, i) => i % 6 === 5),
);
const whole = { ...weights, certainty };
if (values.without === undefined) {
  writeFileSync(WEIGHTS, `${JSON.stringify(whole)}\n`);
  say(`${WEIGHTS} written`);
} else {
  const s = newSetScore();
  for (const c of made.filter(uses)) scoreForm(s, c.name, c.truth, placesBy(whole, candidatesOf(c.contents)), isTaken);
  console.log(HEADS.join(' '));
  console.log(lineOf(`without ${values.without}`, s));
}
