/** A form's own text: blocks and runs of text as the editor keeps them, with tags, conditions, repetitions and places in it. */
import type { MarkKind } from '../packet/types';
import type { Side } from '../text/sides';

/** Styles of text. */
export const STYLES = ['bold', 'italic', 'underline', 'strike'] as const;
/** One of `STYLES`. */
export type Style = (typeof STYLES)[number];

/** What may stand within a line of text for a person to fill. */
export const INLINE_KINDS = ['text', 'number', 'money', 'date', 'initials', 'tick'] as const satisfies MarkKind[];
/** One of `INLINE_KINDS`. */
export type InlineKind = (typeof INLINE_KINDS)[number];

/** A piece of text with one style. */
export interface TextRun {
  type: 'text';
  text: string;
  marks?: { type: Style }[];
}
/** Stands for something the deal knows: see `tags.ts`. */
export interface TagRun {
  type: 'tag';
  attrs: { key: string };
}
/** A blank in the line that a person fills. */
export interface PlaceRun {
  type: 'place';
  attrs: { kind: InlineKind; slot: string; label: string; required: boolean; wide: boolean };
}
/** A line break. */
export interface BreakRun {
  type: 'hardBreak';
}
/** A piece of a line. */
export type Inline = TextRun | TagRun | PlaceRun | BreakRun;

/** Where a line of text stands; absent for the left. */
export type Align = 'left' | 'center' | 'right';

/** When what is inside stands on the paper. */
export const WHENS = ['there', 'not', 'equals'] as const;
/** One of `WHENS`. */
export type When = (typeof WHENS)[number];

/** A cell of a table. */
export interface Cell {
  type: 'tableCell' | 'tableHeader';
  attrs: { colspan: number };
  content: Block[];
}
/** A block of a written form's text. */
export type Block =
  | { type: 'heading'; attrs: { level: number }; content: Inline[] }
  | { type: 'paragraph'; attrs?: { align: Align }; content: Inline[] }
  | { type: 'bulletList' | 'orderedList'; content: { type: 'listItem'; content: Block[] }[] }
  | { type: 'table'; content: { type: 'tableRow'; content: Cell[] }[] }
  | { type: 'pageBreak' }
  | { type: 'when'; attrs: { key: string; is: When; value: string }; content: Block[] }
  | { type: 'each'; attrs: { side: Side }; content: Block[] }
  | { type: 'signatures'; attrs: { slots: string[]; date: boolean } };

/** The text of a written form. Slots are named by their ids in the form's draft. */
export interface Written {
  /** Its tag (BCP 47): figures, days, lists and the house's own words are written in it. */
  language: string;
  doc: { type: 'doc'; content: Block[] };
}

/** How much one text may be. */
export const WRITTEN_LIMITS = {
  /** Blocks, runs, rows and cells together. */
  nodes: 8_000,
  /** UTF-16 units of all its text. */
  letters: 300_000,
  /** UTF-16 units without a blank: setting one takes time by its square. */
  word: 300,
  depth: 14,
  /** Lines, runs and signers that stand on the paper of one deal, once everything is repeated. */
  composed: 40_000,
  columns: 12,
  /** Of a tag's key, a slot's id, and what a condition compares with. */
  name: 80,
  label: 200,
} as const;

/** A text to begin with: its title, and a line to write on. */
export const emptyWritten = (title: string): Written => ({
  language: 'en',
  doc: {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: title }] },
      { type: 'paragraph', content: [] },
    ],
  },
});

/** A text that cannot be taken or set, with a sentence for whoever wrote it. */
export class UnfitText extends Error {}
