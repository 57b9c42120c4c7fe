import { isFixed } from './kinds';
import type { Rect } from '../paper/types';
import { initialsOf } from '../text/names';
import type { Drawing, Hand, Mark, MarkKind, Picture, ScriptFace } from './types';

/** A filled mark, ready to be drawn on screen or paper: a hand's picture, text, or a tick. */
export interface ShownFill {
  markId: string;
  documentId: string;
  /** From 1. */
  page: number;
  rect: Rect;
  kind: MarkKind;
  partyId: string;
  ink: number;
  /** Text that runs over several lines. */
  lines?: 'several';
  /** In what capacity it was signed, to stand small under the signature. */
  under?: string;
  shows:
    | { form: 'typed'; face: ScriptFace; text: string }
    | { form: 'drawn'; drawing: Drawing; spoken: string }
    | { form: 'picture'; picture: Picture; spoken: string }
    | { form: 'text'; text: string }
    | { form: 'tick' };
}

/** Returns the position of a mark and its party, for drawing its value. */
export function placeOf(m: Mark, ink: number): Omit<ShownFill, 'shows'> {
  return {
    markId: m.id,
    documentId: m.documentId,
    page: m.page,
    rect: m.rect,
    kind: m.kind,
    partyId: m.partyId,
    ink,
    ...(m.lines ? { lines: m.lines } : {}),
  };
}

/** Returns the text the preparer gave a mark, for everybody to read: a label, or a fixed value. */
export function shownWords(m: Mark, words: (text: string) => string = (text) => text): ShownFill[] {
  if (!m.value || !isFixed(m)) return [];
  return [{ ...placeOf(m, 0), shows: { form: 'text', text: words(m.value) } }];
}

/** Returns how a hand appears as a signature or as initials. */
export function showHand(hand: Hand, as: 'signature' | 'initials', name: string): ShownFill['shows'] {
  if (hand.form === 'typed') return { form: 'typed', face: hand.face, text: hand[as] };
  const spoken = as === 'initials' ? hand.initialsText || initialsOf(name) : name;
  return hand.form === 'drawn'
    ? { form: 'drawn', drawing: hand[as], spoken }
    : { form: 'picture', picture: hand[as], spoken };
}
