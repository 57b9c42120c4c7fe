/** Pages as they would be printed, for tests of what is read on them. */
import type { AbstractPage } from '../abstract';

/** Returns pages as they would be printed: each text is a row, `~` a gap as wide as a blank, an empty text a paragraph. */
export function printed(...pages: string[][]): AbstractPage[] {
  return pages.map((rows) => ({
    scanned: false,
    words: rows.flatMap((row, i) => {
      let x = 60;
      return row
        .split(' ')
        .filter(Boolean)
        .flatMap((text) => {
          if (text === '~') {
            x += 40;
            return [];
          }
          const rect = { x, y: 60 + i * 14, w: text.length * 5, h: 10 };
          x += rect.w + 3;
          return [{ text, rect }];
        });
    }),
  }));
}
