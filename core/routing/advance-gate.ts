/** Closing the open gate and opening what follows. */
import { holdsGate } from '../packet/acts';
import { openFrom } from './gates';
import { isNeeded, partyOf, progressOf } from './progress';
import type { PacketEventBody, PacketState } from './types';

/** Closes the open gate, excuses those of it whose act is no longer needed, and opens what follows. */
export function advanceGate(state: PacketState, done: readonly string[] = []): PacketEventBody[] {
  const excused = (state.plan.gates[state.gate]?.partyIds ?? []).filter(
    (id) =>
      !done.includes(id) &&
      holdsGate(partyOf(state.plan, id)!) &&
      progressOf(state, id).status !== 'done' &&
      isNeeded(progressOf(state, id).status),
  );
  return [
    ...excused.map((partyId): PacketEventBody => ({ type: 'excused', partyId })),
    { type: 'gate_passed', gate: state.gate },
    ...openFrom(state.plan, state.gate + 1),
  ];
}
