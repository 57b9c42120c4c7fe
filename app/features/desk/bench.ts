import type { DraftView } from '@gatepath/core/checks';
import type { Draft, DraftEdit, Mark, MarkKind } from '@gatepath/core/packet';

/** What a touch on the page does: puts a mark of a kind, or changes the words there. */
export type Tool = MarkKind | 'strike' | 'insert';

/** What the acts work on: the draft, what is in hand, and where things are told. */
export interface Bench {
  draft: Draft;
  edit: (edits: DraftEdit[]) => void;
  view: DraftView;
  at: { documentId: string; page: number } | null;
  partyId: string | null;
  tool: Tool;
  selected: Mark[];
  copied: Mark[];
  setCopied: (marks: Mark[]) => void;
  setSelected: (ids: string[]) => void;
  setRedline: (id: string | null) => void;
  setSaid: (what: string) => void;
}
