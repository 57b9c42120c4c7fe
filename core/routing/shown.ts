import type { Mark, MarkKind, Rect, Redline } from '../marks/types';
import { initialsOf } from '../text/names';
import type { Drawing, Hand, PacketState, Picture, PlanDocument, ScriptFace } from './types';

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
  shows:
    | { form: 'typed'; face: ScriptFace; text: string }
    | { form: 'drawn'; drawing: Drawing; spoken: string }
    | { form: 'picture'; picture: Picture; spoken: string }
    | { form: 'text'; text: string }
    | { form: 'tick' };
}

function placeOf(m: Mark, ink: number): Omit<ShownFill, 'shows'> {
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

/** What the preparer wrote into a mark, for everybody to read: a label's words, or a value that stands. */
export function shownWords(m: Mark, words: (text: string) => string = (text) => text): ShownFill[] {
  if (!m.value || !(m.kind === 'label' || m.readOnly)) return [];
  return [{ ...placeOf(m, 0), shows: { form: 'text', text: words(m.value) } }];
}

/**
 * Everything that stands on the pages so far, in the plan's order of marks: the preparer's words and
 * what was filled. With `only`, what stands in those marks.
 */
export function shownFills(state: PacketState, only?: ReadonlySet<string>): ShownFill[] {
  const inks = new Map(state.plan.parties.map((p) => [p.id, p]));
  const marks = only ? state.plan.marks.filter((m) => only.has(m.id)) : state.plan.marks;
  return marks.flatMap((m): ShownFill[] => {
    const party = inks.get(m.partyId);
    if (m.kind === 'label' || m.readOnly) return shownWords(m);
    const base = placeOf(m, party?.ink ?? 0);
    const fill = state.fills[m.id];
    if (!fill || !party) return [];
    if ('text' in fill.value) return [{ ...base, shows: { form: 'text', text: fill.value.text } }];
    if ('tick' in fill.value) return [{ ...base, shows: { form: 'tick' } }];
    if ('file' in fill.value) return [{ ...base, shows: { form: 'text', text: `Added: ${fill.value.file.name}` } }];
    const set = state.hands[fill.value.hand];
    if (!set) throw new Error(`fill of ${m.id} names a hand that was never set`);
    return [{ ...base, shows: showHand(set.hand, m.kind === 'initials' ? 'initials' : 'signature', party.name) }];
  });
}

/** The documents of a packet: those that were sent, and the files its people added, each named by its mark. */
export function documentsOf(state: PacketState): PlanDocument[] {
  const added = state.plan.marks.flatMap((m): PlanDocument[] => {
    const value = state.fills[m.id]?.value;
    if (!value || !('file' in value)) return [];
    const { sha256, name, pages } = value.file;
    return [{ id: `file.${m.id}`, name: m.label ? `${m.label}: ${name}` : name, sha256, pages }];
  });
  return [...state.plan.documents, ...added];
}

/** The preparer's changes on the pages of a packet. */
export function shownRedlines(state: PacketState): Redline[] {
  return state.plan.redlines ?? [];
}

/** How a hand shows as signature or as initials. */
export function showHand(hand: Hand, as: 'signature' | 'initials', name: string): ShownFill['shows'] {
  if (hand.form === 'typed') return { form: 'typed', face: hand.face, text: hand[as] };
  const spoken = as === 'initials' ? hand.initialsText || initialsOf(name) : name;
  return hand.form === 'drawn'
    ? { form: 'drawn', drawing: hand[as], spoken }
    : { form: 'picture', picture: hand[as], spoken };
}
