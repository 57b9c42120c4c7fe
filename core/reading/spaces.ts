/** Captions followed by white space, without a line to write on: "By:", "Name:", "Date:". */
import { sameRow } from './captions';
import type { Blank, PageScan } from './blanks';
import { kindOfWords } from './words';

/** How wide such a space is at least and at most, in points. */
const NARROWEST = 55;
const WIDEST = 230;
const MOST_WORDS = 5;

/** Returns the spaces behind captions that ask for a signature, a day, a name or what signers write beside it. */
export function spacesOf(scan: PageScan): Blank[] {
  const out: Blank[] = [];
  for (const p of scan.phrases) {
    if (!/[:.]\s*$/.test(p.text) || p.text.split(' ').length > MOST_WORDS || !kindOfWords(p.text)) continue;
    // The last words of a sentence are no caption: "with the initials of those present."
    if (/^\p{Ll}.*\.\s*$/u.test(p.text)) continue;
    const space: Blank = { x0: p.x1 + 4, x1: p.x1 + 4, y: p.y + 0.16 * p.size, h: 1.35 * p.size, made: 'space' };
    const onRow = scan.phrases.filter((o) => o !== p && Math.abs(o.y - p.y) < 0.6 * p.size && o.x0 >= p.x1 - 1);
    const blanks = scan.blanks.filter((o) => sameRow(o, space) && o.x1 > p.x1);
    const walls = scan.content.down.filter((d) => d.x > p.x1 && d.y0 < p.y && d.y1 > p.y - p.size).map((d) => d.x);
    const end = Math.min(...onRow.map((o) => o.x0), ...blanks.map((b) => b.x0), ...walls, scan.content.width - 30) - 6;
    space.x1 = Math.min(end, space.x0 + WIDEST);
    if (space.x1 - space.x0 < NARROWEST) continue;
    // A line right below is what is written on, and was found as such.
    if (scan.blanks.some((b) => b.y > p.y - p.size && b.y < p.y + 1.3 * p.size && b.x0 < space.x1 && b.x1 > p.x0))
      continue;
    out.push(space);
  }
  return out;
}
