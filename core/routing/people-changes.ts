/** Changes by the sender about people who have put nothing on a page yet: removal, another act, other marks. */
import { ACT_FACTS, byLink, holdsGate, puts } from '../packet/acts';
import { PACKET_LIMITS } from '../packet/draft';
import { isAutomatic, isForClient } from '../packet/kinds';
import { hasDocument } from '../packet/place-party';
import type { Act, Gate, Mark, PacketParty } from '../packet/types';
import { grow, overlapArea } from '../paper/geometry';
import { firstName } from '../text/names';
import { aheadOnly, pathProblem } from './gates';
import { advanceGate } from './advance-gate';
import { gateOf, hasActed, isHeld, isNeeded, progressOf, stillIn } from './progress';
import { accept, refuse, refuseWith, type Decision } from './refusal';
import type { PacketState } from './types';

const NOBODY_LEFT = 'No one would be left who signs or approves. Withdraw the packet instead.';

/** Returns whether a party has done nothing yet that others rely on. Its tasks can then still be changed. */
function isUntouched(state: PacketState, partyId: string): boolean {
  const s = progressOf(state, partyId);
  return !hasActed(state, partyId) && !s.again && s.status !== 'declined' && isNeeded(s.status);
}

/** Removes a party. If the open gate waited for it alone, the gate closes. */
export function decideRemove(state: PacketState, party: PacketParty, reason: string): Decision {
  if (!reason) return refuse('reason_wanted');
  if (!isUntouched(state, party.id)) return refuse('has_acted');
  if (!stillIn(state).some((p) => p.id !== party.id && holdsGate(p))) return refuseWith('bad_plan', NOBODY_LEFT);
  const held = isHeld(state, [], party.id);
  return accept({ type: 'party_dropped', partyId: party.id, reason }, ...(held ? [] : advanceGate(state, [party.id])));
}

/** Gives a party at a later gate another act. */
export function decideAct(
  state: PacketState,
  party: PacketParty,
  { act, gates, marks, only }: { act: Act; gates: Gate[]; marks: Mark[]; only?: string[] },
): Decision {
  if (act === party.act) return accept();
  const at = gateOf(state.plan, party.id);
  if (progressOf(state, party.id).askedAt || (at >= 0 && at <= state.gate))
    return refuseWith('bad_plan', `${party.name} has already been asked. Remove them and add them again instead.`);
  const changed: PacketParty = { ...party, act, ...(only ? { only } : {}) };
  if (byLink(changed) && !party.email && !party.memberId) return refuse('bad_contact');
  const people = stillIn(state).map((p) => (p.id === party.id ? changed : p));
  if (!people.some(holdsGate)) return refuseWith('bad_plan', NOBODY_LEFT);
  const wrong = aheadOnly(state, gates) ?? pathProblem({ parties: people, gates });
  if (wrong) return refuseWith('bad_plan', wrong);
  const stray = marks.some(
    (m) => m.partyId !== party.id || !isOnPage(state, m) || state.plan.marks.some((x) => x.id === m.id),
  );
  if (stray || (marks.length && !puts(changed)))
    return refuseWith('bad_plan', 'A new mark is not this person’s, or not on a page of this packet.');
  const all = [...state.plan.marks.filter((m) => m.partyId === party.id), ...marks];
  if (ACT_FACTS[act].signs && !signsSomewhere(all)) return refuseWith('bad_plan', nothingToSign(party));
  return accept({ type: 'act_changed', partyId: party.id, act, gates, marks, ...(only ? { only } : {}) });
}

/** Adds, moves and removes marks of a party. */
export function decideMarks(
  state: PacketState,
  party: PacketParty,
  { put, drop }: { put: Mark[]; drop: string[] },
): Decision {
  if (!isUntouched(state, party.id)) return refuse('has_acted');
  if (!puts(party)) return refuseWith('bad_plan', `${firstName(party.name)} has no marks on the pages.`);
  const { marks } = state.plan;
  const known = new Map(marks.map((m) => [m.id, m]));
  const dropped = [...new Set(drop)].flatMap((id) => known.get(id) ?? []);
  if (dropped.some((m) => m.partyId !== party.id)) return refuse('not_your_mark');
  if (dropped.some((m) => m.redlineId && !put.some((x) => x.redlineId === m.redlineId)))
    return refuseWith('bad_plan', 'Initials beside a change stay with it. Move them instead.');
  const seen = new Set<string>();
  for (const m of put) {
    const wrong = wrongWithMark(state, party, m, known.get(m.id)) ?? (seen.has(m.id) ? 'A mark appears twice.' : null);
    if (wrong) return refuseWith('bad_plan', wrong);
    seen.add(m.id);
  }
  const gone = new Set([...dropped.map((m) => m.id), ...seen]);
  const after = [...marks.filter((m) => !gone.has(m.id)), ...put];
  const mine = after.filter((m) => m.partyId === party.id);
  if (ACT_FACTS[party.act].signs && !signsSomewhere(mine)) return refuseWith('bad_plan', nothingToSign(party));
  if (after.length > PACKET_LIMITS.marks)
    return refuseWith('bad_plan', `A packet takes at most ${PACKET_LIMITS.marks} marks.`);
  const over = put.find((m) => after.some((x) => x.id !== m.id && liesOn(m, x)));
  if (over)
    return refuseWith('bad_plan', `On page ${over.page} it would overlap another mark. Put it where there is room.`);
  if (!put.length && !dropped.length) return accept();
  return accept({ type: 'marks_changed', partyId: party.id, put, dropped: dropped.map((m) => m.id) });
}

/** Returns what is wrong with a mark to add, in words; null if nothing. */
function wrongWithMark(state: PacketState, party: PacketParty, m: Mark, was: Mark | undefined): string | null {
  if (m.partyId !== party.id || (was && was.partyId !== party.id)) return 'A mark belongs to someone else.';
  if (!isForClient(m) && !isAutomatic(m.kind)) return 'Only marks that a person fills can be added after sending.';
  if (!isOnPage(state, m) || !hasDocument(party, m.documentId))
    return `A mark is not on a page that ${firstName(party.name)} gets.`;
  const moved =
    was && (was.page !== m.page || was.documentId !== m.documentId || was.kind !== m.kind || !sameRect(was, m));
  return moved ? 'A mark that moves needs a new id.' : null;
}

const sameRect = (a: Mark, b: Mark) =>
  a.rect.x === b.rect.x && a.rect.y === b.rect.y && a.rect.w === b.rect.w && a.rect.h === b.rect.h;

const liesOn = (a: Mark, b: Mark) =>
  a.documentId === b.documentId && a.page === b.page && overlapArea(grow(a.rect, -0.5), grow(b.rect, -0.5)) > 0;

const signsSomewhere = (marks: Mark[]) => marks.some((m) => m.kind === 'signature' || m.kind === 'initials');
const nothingToSign = (party: PacketParty) =>
  `${party.name} would have nothing to sign. Leave a signature or initials, or change what they do.`;

function isOnPage(state: PacketState, { documentId, page, rect }: Mark): boolean {
  const size = state.plan.documents.find((d) => d.id === documentId)?.pages[page - 1];
  return (
    !!size &&
    rect.w > 0 &&
    rect.h > 0 &&
    rect.x >= 0 &&
    rect.y >= 0 &&
    rect.x + rect.w <= size.width &&
    rect.y + rect.h <= size.height
  );
}
