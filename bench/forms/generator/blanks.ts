/** Blanks of generated forms: underscores, rules, dots, frames, each a link whose address is its label. */
import type { PlaceKind } from '@gatepath/core/reading';
import { label } from '../blank';
import type { Random } from './random';
import type { Role } from './wording';

/** How the blanks of a form are drawn. */
export const DRAWN = ['underscores', 'rule', 'dots', 'frame', 'tint', 'dashes', 'brackets', 'nothing'] as const;
export type Drawn = (typeof DRAWN)[number];

/** Whose a place is. */
export interface Whose {
  role: Role;
  ordinal: number;
}

/** Minimum width of a blank for a date that may be printed in pieces, in points. */
const PIECES = 60;

/** Returns the HTML of a blank. `width` is in points. */
export function blank(r: Random, drawn: Drawn, kind: PlaceKind, who: Whose | null, width: number): string {
  const href = label(kind, who?.role ?? '-', who?.ordinal ?? '-');
  const a = (text: string, style = '') => `<a href="${href}"${style ? ` style="${style}"` : ''}>${text}</a>`;
  const box = (style: string) => a('&nbsp;', `display:inline-block;width:${width}pt;${style}`);
  switch (drawn) {
    case 'underscores':
      if (kind === 'date' && width >= PIECES && r.is(0.15))
        return a(['____', '____', '______'].join(r.of(['/', '/', ' / ', '-'])));
      return a('_'.repeat(Math.max(3, Math.round(width / 5.6))));
    case 'brackets':
      return `(${a('_'.repeat(Math.max(3, Math.round((width - 6) / 5.6))))})`;
    case 'dots':
      return a('.'.repeat(Math.max(8, Math.round(width / 2.9))));
    case 'rule':
      return box('border-bottom:0.7pt solid #222;height:1.15em');
    case 'dashes':
      return box('border-bottom:0.7pt dashed #333;height:1.15em');
    case 'frame':
      return box(`border:0.7pt solid #333;height:${r.int(15, 22)}pt;vertical-align:middle`);
    case 'tint':
      return box('background:#e8edf6;height:15pt;vertical-align:middle');
    case 'nothing':
      return box('height:1.15em');
  }
}

/** Returns a box to check. */
export function tick(r: Random): string {
  const href = label('checkbox');
  return r.weighted([
    [
      `<a href="${href}" style="display:inline-block;width:9pt;height:9pt;border:0.8pt solid #222;vertical-align:-1pt;line-height:9pt;overflow:hidden">&nbsp;</a>`,
      5,
    ],
    [`<a href="${href}">\u2610</a>`, 3],
    [`<a href="${href}">[ &nbsp;]</a>`, 2],
    [`<a href="${href}">( &nbsp;)</a>`, 1],
    [`<a href="${href}">\u25cb</a>`, 1],
  ] as const);
}
