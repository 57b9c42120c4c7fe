/**
 * The packet's state machine: a command becomes events or is refused with a reason. It has no clock: callers stamp
 * the events.
 */
import { holdsGate, receives } from '../packet/acts';
import { decideChange, isChange, type ChangeCommand } from './changes';
import { decidePartyAct, type PartyCommand } from './party-acts';
import { decideOpened } from './delivery';
import { partyOf } from './progress';
import { firstHeld, openFrom, pathProblem, readersOf } from './gates';
import { accept, refuse, refuseWith, type Decision } from './refusal';
import { decideSystem, isSystem, type SystemCommand } from './system-acts';
import type { PacketEventBody, PacketState } from './types';
import type { Plan } from '../packet/types';

/** Any command on a packet. */
export type PacketCommand = { type: 'send'; plan: Plan } | PartyCommand | ChangeCommand | SystemCommand;

/** Decides a command against the state so far (`null`: the packet has not been sent). */
export function decide(state: PacketState | null, command: PacketCommand): Decision {
  if (command.type === 'send') return state ? refuse('already_sent') : decideSend(command.plan);
  if (!state) return refuse('not_sent');
  if (isSystem(command)) return decideSystem(state, command);
  if (isChange(command)) return decideChange(state, command);
  if (state.status !== 'at_gate') return decideLate(state, command);
  return decidePartyAct(state, command);
}

/** Decides a party's command after the packet's end: only opening what was delivered is still recorded. */
function decideLate(state: PacketState, command: PartyCommand): Decision {
  const party = partyOf(state.plan, command.partyId);
  if (command.type === 'open' && state.status === 'executed' && party && receives(party))
    return decideOpened(state, party.id);
  return refuse(`ended_${state.status as Exclude<PacketState['status'], 'at_gate'>}`);
}

function decideSend(plan: Plan): Decision {
  const wrong = pathProblem(plan);
  if (wrong) return refuseWith('bad_plan', wrong);
  if (!plan.parties.some(holdsGate))
    return refuseWith('bad_plan', 'No one has to sign or approve anything in this packet, and nothing is delivered.');
  const inGates = new Set(plan.gates.flatMap((g) => g.partyIds));
  const copies = plan.parties.filter((p) => !holdsGate(p) && p.copyAt === 'sending' && !inGates.has(p.id));
  return accept(
    { type: 'sent', plan },
    ...copies.map((p): PacketEventBody => ({ type: 'asked', partyId: p.id })),
    ...openFrom(plan, 0),
    ...(plan.readAlong ? readersOf(plan, firstHeld(plan)) : []),
  );
}
