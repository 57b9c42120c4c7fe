import type { MarkKind, Rect } from '../marks/types';
import { initialsOf } from '../text/names';
import type { Drawing, Hand, PacketState, ScriptFace } from './types';

/** A filled mark, ready to be drawn on screen or paper: a hand's picture or plain text. */
export interface ShownFill {
  markId: string;
  documentId: string;
  /** From 1. */
  page: number;
  rect: Rect;
  kind: MarkKind;
  partyId: string;
  ink: number;
  shows:
    | { form: 'typed'; face: ScriptFace; text: string }
    | { form: 'drawn'; drawing: Drawing; spoken: string }
    | { form: 'text'; text: string };
}

/** Everything that stands on the pages so far, in the plan's order of marks. */
export function shownFills(state: PacketState): ShownFill[] {
  const inks = new Map(state.plan.parties.map((p) => [p.id, p]));
  return state.plan.marks.flatMap((m): ShownFill[] => {
    const fill = state.fills[m.id];
    const party = inks.get(m.partyId);
    if (!fill || !party) return [];
    const base = {
      markId: m.id,
      documentId: m.documentId,
      page: m.page,
      rect: m.rect,
      kind: m.kind,
      partyId: m.partyId,
      ink: party.ink,
    };
    if ('text' in fill.value) return [{ ...base, shows: { form: 'text', text: fill.value.text } }];
    const set = state.hands[fill.value.hand];
    if (!set) throw new Error(`fill of ${m.id} names a hand that was never set`);
    return [{ ...base, shows: showHand(set.hand, m.kind === 'initials' ? 'initials' : 'signature', party.name) }];
  });
}

/** How a hand shows as signature or as initials. */
export function showHand(hand: Hand, as: 'signature' | 'initials', name: string): ShownFill['shows'] {
  if (hand.form === 'typed') return { form: 'typed', face: hand.face, text: hand[as] };
  return {
    form: 'drawn',
    drawing: hand[as],
    spoken: as === 'initials' ? hand.initialsText || initialsOf(name) : name,
  };
}
