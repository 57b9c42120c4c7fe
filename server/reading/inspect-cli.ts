/**
 * `npm run -s inspect -- FILE.pdf [--blank FILE.pdf]` prints the pages and places of a PDF, and which are filled, as
 * one JSON object.
 */
import { parseArgs } from 'node:util';
import { inspect } from './inspect';
import { stopRecognising } from '../scan/recognise';
import { messageOf } from '../errors';

const { values, positionals } = parseArgs({ allowPositionals: true, options: { blank: { type: 'string' } } });
const [file] = positionals;
if (!file || positionals.length > 1) {
  console.error('Name a PDF: npm run -s inspect -- FILE.pdf [--blank EMPTY-FORM.pdf]');
  process.exit(2);
}
try {
  const { pages, places } = await inspect(file, values.blank);
  const shown = places.map(({ page, kind, role, ordinal, rect, label, source, confidence, signed, filled }) => ({
    page,
    kind,
    role,
    ordinal,
    rect: [rect.x, rect.y, rect.w, rect.h],
    label,
    source,
    confidence,
    filled,
    ...(signed === undefined ? {} : { signed }),
  }));
  process.stdout.write(`${JSON.stringify({ pages, places: shown })}\n`);
  // Recognition keeps a process of its own open.
  await stopRecognising();
} catch (error) {
  const name = error instanceof Error ? error.name : '';
  console.error(
    name === 'PasswordException'
      ? `${file} is locked with a password. Save an unlocked copy and inspect that.`
      : `${file} cannot be read: ${messageOf(error)}`,
  );
  process.exit(1);
}
