/** On which side the captions of blanks lie that are drawn alike. */
import { filled, Sheet } from '../test/sheet';
import { candidatesOf } from './candidates';
import { evidenceOf } from './evidence';

const knownOf = (sheet: Sheet) => {
  const { candidates, scans, paper } = candidatesOf([sheet.content]);
  return evidenceOf(candidates, scans, paper);
};
const WORDS = ['Seller 1 signature', 'Printed name', 'Date'];
/** Returns what each line of a stack has as its caption, and where. */
const captions = (sheet: Sheet) =>
  knownOf(sheet)
    .filter((k) => k.c.judged.blank.made === 'rule')
    .map((k) => k.caption && `${k.caption.direction}: ${k.caption.seen.said.phrase.text}`);

test('captions under the lines of a stack, each nearer to its own line', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.rule(60, 300, 400 + i * 40).text(60, 410 + i * 40, w, 8));
  expect(captions(sheet)).toEqual(WORDS.map((w) => `below: ${w}`));
});

test('captions over the lines of a stack, each nearer to its own line', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.text(60, 390 + i * 40, w, 8).rule(60, 300, 404 + i * 40));
  expect(captions(sheet)).toEqual(WORDS.map((w) => `above: ${w}`));
});

test('captions before the lines; lines drawn otherwise have habits of their own', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.text(60, 400 + i * 40, `${w}:`).rule(70 + 5 * w.length, 330, 400 + i * 40));
  sheet.rule(60, 110, 600).text(60, 610, 'Initials', 8);
  expect(captions(sheet)).toEqual([...WORDS.map((w) => `left: ${w}:`), 'below: Initials']);
});

test('on the second page of a block the heading of the first still counts, and its signatures are counted on', () => {
  const first = filled().text(60, 700, 'BUYER', 10, true).text(60, 740, 'Signature: ______________________');
  const second = filled().text(60, 60, 'Signature: ______________________');
  const { candidates, scans, paper } = candidatesOf([first.content, second.content]);
  const [one, two] = evidenceOf(candidates, scans, paper);
  expect(one?.heading?.role.role).toBe('buyer');
  expect(two?.heading).toBeNull();
  expect(two?.carried?.role).toBe('buyer');
  expect(two?.earlier).toEqual([one?.c]);
});
