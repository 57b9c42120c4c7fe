/** What is prepared at the desk, and the tools for it. */
import { CHECK_RULES, type CheckRule } from '@gatepath/core/checks';
import type { MarkKind } from '@gatepath/core/packet';
import { PACKET_HOME, type DraftHome } from './draft-home';

/** What touching the page does: places a mark of a kind, or changes the words there. */
export type Tool = MarkKind | 'strike' | 'insert';

/** Tells the desk whether it prepares a packet or a form, where that is saved, and which rules check it. */
export interface DeskSetup {
  what: 'packet' | 'form';
  home: DraftHome;
  /** The rules of the gate check. */
  rules: readonly CheckRule[];
}

export const PACKET_SETUP: DeskSetup = { what: 'packet', home: PACKET_HOME, rules: CHECK_RULES };
