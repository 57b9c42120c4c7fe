/** Parts of the desk on their own: with a state that a test gives, and acts that it watches. */
import type { ReactElement } from 'react';
import { createStore } from 'zustand';
import { DeskContext } from '../features/desk/use-desk';
import { openDesk, type DeskState } from '../features/desk/desk-state';
import { PACKET_SETUP } from '../features/desk/desk-setup';
import type { DeskActs, DeskStore } from '../features/desk/desk-store';
import { underWay } from './office';

/** Returns a part of the desk with a desk around it. */
export function atDesk(part: ReactElement, state: Partial<DeskState>, acts: Partial<DeskActs>): ReactElement {
  const { packet } = underWay();
  const store = createStore(() => ({ ...openDesk(packet, PACKET_SETUP), ...state }));
  // A part asks for nothing but the state and the acts.
  const desk = { store, acts } as unknown as DeskStore;
  return <DeskContext.Provider value={desk}>{part}</DeskContext.Provider>;
}
