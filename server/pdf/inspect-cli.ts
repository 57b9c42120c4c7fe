/** `npm run -s inspect -- FILE.pdf`: pages and places of a PDF as one JSON object. */
import { inspect } from './inspect';
import { messageOf } from '../errors';

const file = process.argv[2];
if (!file) {
  console.error('Name a PDF: npm run -s inspect -- FILE.pdf');
  process.exit(2);
}
try {
  const { pages, places } = await inspect(file);
  const shown = places.map(({ page, kind, role, ordinal, rect, label, source, confidence, signed }) => ({
    page,
    kind,
    role,
    ordinal,
    rect: [rect.x, rect.y, rect.w, rect.h],
    label,
    source,
    confidence,
    ...(signed === undefined ? {} : { signed }),
  }));
  process.stdout.write(`${JSON.stringify({ pages, places: shown })}\n`);
} catch (error) {
  const name = error instanceof Error ? error.name : '';
  console.error(
    name === 'PasswordException'
      ? `${file} is locked with a password. Save an unlocked copy and inspect that.`
      : `${file} cannot be read: ${messageOf(error)}`,
  );
  process.exit(1);
}
