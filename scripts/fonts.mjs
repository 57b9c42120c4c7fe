/**
 * Makes the faces the browser loads (app/assets/fonts) out of the whole ones the server typesets with:
 * WOFF2, and only the letters that are met. Run it when a face or its version changes:
 *
 *     node scripts/fonts.mjs
 *
 * A letter that is not here falls back, as on paper, to the next face of the stack.
 */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createRequire } from 'node:module';
import subsetFont from 'subset-font';
import { ROOT } from './root.mjs';

const require = createRequire(import.meta.url);
const OUT = path.join(ROOT, 'app', 'assets', 'fonts');

/** First and last code point of every run of letters. */
const LATIN = [
  [0x20, 0x7e],
  [0xa0, 0x24f],
  [0x2b0, 0x36f],
  [0x1e00, 0x1eff],
  [0x2000, 0x206f],
  [0x20a0, 0x20bf],
  [0x2100, 0x27bf],
];
const BEYOND = [
  [0x370, 0x52f],
  [0x1f00, 0x1fff],
];

/** Face in the application, package and file it comes from, letters it keeps. */
const FACES = [
  ['AtkinsonHyperlegible_400Regular', 'atkinson-hyperlegible', '400Regular', LATIN],
  ['AtkinsonHyperlegible_700Bold', 'atkinson-hyperlegible', '700Bold', LATIN],
  ['BricolageGrotesque_700Bold', 'bricolage-grotesque', '700Bold', LATIN],
  ['Caveat_500Medium', 'caveat', '500Medium', LATIN],
  ['Caveat_500Medium_Beyond', 'caveat', '500Medium', BEYOND],
  ['DancingScript_500Medium', 'dancing-script', '500Medium', LATIN],
  ['LaBelleAurore_400Regular', 'la-belle-aurore', '400Regular', LATIN],
  ['Mynerve_400Regular', 'mynerve', '', [...LATIN, ...BEYOND]],
  ['NotoSans_400Regular', 'noto-sans', '400Regular', [...LATIN, ...BEYOND]],
  ['ReenieBeanie_400Regular', 'reenie-beanie', '400Regular', LATIN],
];

mkdirSync(OUT, { recursive: true });
for (const [name, pack, style, runs] of FACES) {
  const root = path.dirname(require.resolve(`@expo-google-fonts/${pack}/package.json`));
  const file = path.join(root, style, `${name.replace('_Beyond', '')}.ttf`);
  const letters = runs
    .flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)))
    .join('');
  const whole = readFileSync(file);
  const small = await subsetFont(whole, letters, { targetFormat: 'woff2' });
  writeFileSync(path.join(OUT, `${name}.woff2`), small);
  console.log(`${name}: ${(whole.length / 1024).toFixed(0)} kB to ${(small.length / 1024).toFixed(1)} kB`);
}
