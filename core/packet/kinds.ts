import type { Mark, MarkKind } from './types';

/** The size a mark has when it is first put on a page, in points. */
export const MARK_SIZES: Record<MarkKind, { w: number; h: number }> = {
  signature: { w: 168, h: 30 },
  initials: { w: 54, h: 22 },
  date_signed: { w: 96, h: 18 },
  printed_name: { w: 150, h: 18 },
  title: { w: 120, h: 18 },
  text: { w: 150, h: 18 },
  number: { w: 72, h: 18 },
  money: { w: 96, h: 18 },
  date: { w: 96, h: 18 },
  tick: { w: 14, h: 14 },
  choice: { w: 14, h: 14 },
  list: { w: 120, h: 18 },
  file: { w: 150, h: 22 },
  label: { w: 150, h: 16 },
};

/** The smallest a mark can be and still be read and touched, in points. */
export const MARK_MIN: { w: number; h: number } = { w: 18, h: 9 };
/** The smallest box that can be ticked. */
export const TICK_MIN: { w: number; h: number } = { w: 7, h: 7 };

export function leastSize(kind: MarkKind): { w: number; h: number } {
  return kind === 'tick' || kind === 'choice' ? TICK_MIN : MARK_MIN;
}

/** Plain words for the kinds, as used on screens. */
export const MARK_WORDS: Record<MarkKind, string> = {
  signature: 'signature',
  initials: 'initials',
  date_signed: 'date signed',
  printed_name: 'printed name',
  title: 'title',
  text: 'text',
  number: 'number',
  money: 'money',
  date: 'date',
  tick: 'tick',
  choice: 'choice',
  list: 'list',
  file: 'file asked for',
  label: 'label',
};

/** Kinds the product fills by itself when the party finishes. */
export function isAutomatic(kind: MarkKind): boolean {
  return kind === 'date_signed' || kind === 'printed_name';
}

/** Kinds that take the party's hand. */
export function takesHand(kind: MarkKind): boolean {
  return kind === 'signature' || kind === 'initials';
}

/** Kinds that take written words or figures. */
export function takesText(kind: MarkKind): boolean {
  return ['title', 'text', 'number', 'money', 'date', 'list'].includes(kind);
}

/** Whether the client has to do something about the mark: not a label, not a value that stands already. */
export function isForClient(mark: Pick<Mark, 'kind' | 'readOnly'>): boolean {
  return mark.kind !== 'label' && !mark.readOnly && !isAutomatic(mark.kind);
}
