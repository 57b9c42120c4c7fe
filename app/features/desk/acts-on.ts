import type { DraftView } from '@gatepath/core/checks';
import type { Draft, DraftEdit, Mark } from '@gatepath/core/packet';
import type { Tool } from './desk-setup';
import type { PageAt } from './desk-state';

/** What the acts work on: the draft, the selection, and where results are announced. */
export interface ActsOn {
  draft: Draft;
  edit: (edits: DraftEdit[]) => void;
  view: DraftView;
  at: PageAt | null;
  partyId: string | null;
  tool: Tool;
  selected: Mark[];
  copied: Mark[];
  setCopied: (marks: Mark[]) => void;
  setSelected: (ids: string[]) => void;
  setRedline: (id: string | null) => void;
  setSaid: (what: string) => void;
}
