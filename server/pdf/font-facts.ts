/** What reading needs to know about a font, from what pdf.js reports. */
import type { M } from './paths';
import { matrixIn } from './operands';

/** What reading needs to know about a font. */
export interface FontFacts {
  name: string;
  bold: boolean;
  matrix: M;
  vertical: boolean;
  /** What single characters of a symbol font stand for. */
  boxes: Map<number, string> | null;
}

/** Facts of a font about which nothing is known. */
export const PLAIN: FontFacts = {
  name: '',
  bold: false,
  matrix: [0.001, 0, 0, 0.001, 0, 0],
  vertical: false,
  boxes: null,
};

/** Characters of symbol fonts that are boxes to tick (Wingdings and Zapf Dingbats encodings). */
const WINGDINGS = new Map<number, string>([
  [0x6f, '\u2610'],
  [0x71, '\u2751'],
  [0x72, '\u2752'],
  [0xa8, '\u25fb'],
  [0xa3, '\u2610'],
  [0xfe, '\u2611'],
  [0xfd, '\u2612'],
  [0xa1, '\u25cb'],
]);
const DINGBATS = new Map<number, string>([
  [0x6e, '\u25a1'],
  [0x6f, '\u274f'],
  [0x70, '\u2750'],
  [0x71, '\u2751'],
  [0x72, '\u2752'],
]);

/** Returns the facts of a font as pdf.js reports it. */
export function fontFacts(raw: unknown): FontFacts {
  const part = (name: string): unknown =>
    typeof raw === 'object' && raw !== null ? Reflect.get(raw, name) : undefined;
  const name = String(part('name') ?? '');
  const matrix = part('fontMatrix');
  return {
    name,
    bold: !!part('bold') || !!part('black') || /bold|black|heavy|semibold|demi/i.test(name),
    matrix: Array.isArray(matrix) && matrix.length === 6 ? matrixIn(matrix) : PLAIN.matrix,
    vertical: !!part('vertical'),
    boxes: /wingding/i.test(name) ? WINGDINGS : /dingbat/i.test(name) ? DINGBATS : null,
  };
}
