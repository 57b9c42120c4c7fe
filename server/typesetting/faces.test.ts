/** The faces the browser shows a hand in are made from those the sealed copy is set with: nothing may move. */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { create, openSync, type Font } from 'fontkit';

const require = createRequire(__filename);
const SHOWN = path.join(__dirname, '..', '..', 'app', 'assets', 'fonts');
const FACES: [string, string, string][] = [
  ['AtkinsonHyperlegible_400Regular', 'atkinson-hyperlegible', '400Regular'],
  ['AtkinsonHyperlegible_700Bold', 'atkinson-hyperlegible', '700Bold'],
  ['BricolageGrotesque_700Bold', 'bricolage-grotesque', '700Bold'],
  ['Caveat_500Medium', 'caveat', '500Medium'],
  ['DancingScript_500Medium', 'dancing-script', '500Medium'],
  ['LaBelleAurore_400Regular', 'la-belle-aurore', '400Regular'],
  ['Mynerve_400Regular', 'mynerve', ''],
  ['NotoSans_400Regular', 'noto-sans', '400Regular'],
  ['ReenieBeanie_400Regular', 'reenie-beanie', '400Regular'],
];
const TEXTS = ['Augusta Wren', 'Łucja O’Neil-Żak', 'Ngọc Trần', 'José Núñez & Zoë', 'tt ll oo “Æsir” – 12,345.67'];

/** Returns the typeface on a page, with space after the last glyph, beyond which some readers look. */
function whole(name: string, pack: string, style: string): Font {
  const root = path.dirname(require.resolve(`@expo-google-fonts/${pack}/package.json`));
  return create(Buffer.concat([readFileSync(path.join(root, style, `${name}.ttf`)), Buffer.alloc(64)])) as Font;
}

test('every face on the screen sets text as wide as the one on paper, and leaves out no letter of it', () => {
  expect(readdirSync(SHOWN).filter((f) => f.endsWith('.woff2'))).toHaveLength(FACES.length + 1);
  for (const [name, pack, style] of FACES) {
    const paper = whole(name, pack, style);
    const screen = openSync(path.join(SHOWN, `${name}.woff2`)) as Font;
    for (const text of TEXTS) {
      expect([name, text, screen.layout(text).advanceWidth]).toEqual([name, text, paper.layout(text).advanceWidth]);
    }
    for (let c = 0x20; c < 0x250; c++)
      if (c < 0x7f || c > 0x9f)
        expect([name, c, screen.hasGlyphForCodePoint(c)]).toEqual([name, c, paper.hasGlyphForCodePoint(c)]);
  }
});

test('letters beyond Latin are in a face of their own, and curly quotes and dashes in all of them', () => {
  const paper = whole('Caveat_500Medium', 'caveat', '500Medium');
  const file = path.join(SHOWN, 'Caveat_500Medium_Beyond.woff2');
  expect(existsSync(file)).toBe(true);
  const beyond = openSync(file) as Font;
  const cyrillic = 'Мария Шевченко'.replace(' ', '');
  expect(beyond.layout(cyrillic).advanceWidth).toBe(paper.layout(cyrillic).advanceWidth);
  for (const [name] of FACES) {
    const face = openSync(path.join(SHOWN, `${name}.woff2`)) as Font;
    for (const c of '–—‘’“”') expect([name, c, face.hasGlyphForCodePoint(c.codePointAt(0)!)]).toEqual([name, c, true]);
  }
});
