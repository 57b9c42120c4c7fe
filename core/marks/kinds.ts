import type { MarkKind } from './types';

/** The size a mark has when it is first put on a page, in points. */
export const MARK_SIZES: Record<MarkKind, { w: number; h: number }> = {
  signature: { w: 168, h: 30 },
  initials: { w: 54, h: 22 },
  date_signed: { w: 96, h: 18 },
  printed_name: { w: 150, h: 18 },
  text: { w: 150, h: 18 },
};

/** The smallest a mark can be and still be read and touched, in points. */
export const MARK_MIN: { w: number; h: number } = { w: 18, h: 9 };

/** Plain words for the kinds, as used on screens. */
export const MARK_WORDS: Record<MarkKind, string> = {
  signature: 'signature',
  initials: 'initials',
  date_signed: 'date signed',
  printed_name: 'printed name',
  text: 'text',
};

/** Kinds the product fills by itself when the party finishes. */
export function isAutomatic(kind: MarkKind): boolean {
  return kind === 'date_signed' || kind === 'printed_name';
}
