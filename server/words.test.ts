/** Words that nobody says are work for every translator: each sentence is used somewhere. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { WORD_KEYS } from '@gatepath/core/words';
import { LETTER_WAYS, MARK_KINDS, SCRIPT_FACES, SECOND_STEPS } from '@gatepath/core/packet';
import { REFUSALS } from '@gatepath/core/routing';
import { SIDES } from '@gatepath/core/text';
import { OWN_STATUSES } from '@gatepath/contract';
import { MESSAGE_KINDS } from './mail/messages';
import { OWN_MESSAGES } from './own/service';

const ROOT = path.join(__dirname, '..');

function sources(dir: string): string[] {
  return readdirSync(path.join(ROOT, dir), { withFileTypes: true, recursive: true })
    .filter((f) => f.isFile() && /\.tsx?$/.test(f.name) && !/\.test\.tsx?$/.test(f.name))
    .map((f) => path.join(f.parentPath, f.name))
    .filter((f) => !f.includes('node_modules') && !f.includes(`${path.sep}dist${path.sep}`));
}

test('every sentence is used somewhere', () => {
  const text = ['core', 'server', 'app/features']
    .flatMap(sources)
    .map((f) => readFileSync(f, 'utf8'))
    .join('\n');
  // Keys that are put together from a list: the list itself says which there are.
  const families = new Set<string>([
    ...REFUSALS.map((c) => `refusal.${c}`),
    ...SIDES.map((s) => `side.${s}`),
    ...MARK_KINDS.map((k) => `kind.${k}`),
    ...SCRIPT_FACES.map((f) => `sign.face.${f}`),
    ...SECOND_STEPS.map((s) => `record.proved_${s}`),
    ...['required', 'optional', 'automatic', 'done'].map((n) => `sign.mark.${n}`),
    ...LETTER_WAYS.flatMap((w) => [`record.letter_${w}`, `record.h.letter_${w}`]),
    ...OWN_STATUSES.map((s) => `own.s.${s}`),
    ...OWN_MESSAGES.flatMap((k) => ['subject', 'lead', 'careful'].map((part) => `mail.${k}.${part}`)),
    ...MESSAGE_KINDS.flatMap((k) => [`mail.${k}.subject`, `mail.${k}.button`]),
  ]);
  // Lines of the record are named after the events they tell of.
  const said = (key: string) =>
    text.includes(`'${key}'`) ||
    families.has(key) ||
    (key.startsWith('record.h.') && text.includes(`case '${key.slice('record.h.'.length)}':`));
  expect(WORD_KEYS.filter((key) => key !== 'language.name' && !said(key))).toEqual([]);
});
