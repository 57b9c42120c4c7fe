import type { DraftView } from '@gatepath/core/checks';
import type { Draft, DraftEdit, Mark, MarkKind } from '@gatepath/core/packet';

/** What touching the page does: places a mark of a kind, or changes the words there. */
export type Tool = MarkKind | 'strike' | 'insert';

/** What the acts work on: the draft, the selection, and where results are announced. */
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
