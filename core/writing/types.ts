/**
 * The text of a form: blocks and pieces of lines as the editor stores them, with tags, conditions, repetitions and
 * places.
 */
import type { MarkKind } from '../packet/types';
import type { Side } from '../text/sides';

/** Styles of text. */
export const STYLES = ['bold', 'italic', 'underline', 'strike'] as const;
/** One of `STYLES`. */
export type Style = (typeof STYLES)[number];

/** What a person can fill within a line of text. */
export const INLINE_KINDS = ['text', 'number', 'money', 'date', 'initials', 'tick'] as const satisfies MarkKind[];
/** One of `INLINE_KINDS`. */
export type InlineKind = (typeof INLINE_KINDS)[number];

/** A piece of text with one style. */
export interface TextRun {
  type: 'text';
  text: string;
  marks?: { type: Style }[];
}
/** Stands for something the deal knows; see `tags.ts`. */
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

/** Alignment of a line; absent for left. */
export type Align = 'left' | 'center' | 'right';

/** When a conditional part is on the paper. */
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
  /** Language tag (BCP 47) for numbers, dates, lists and the product's own words. */
  language: string;
  doc: { type: 'doc'; content: Block[] };
}

/** Maximum sizes of one text. */
export const WRITTEN_LIMITS = {
  /** Blocks, pieces of lines, rows and cells together. */
  nodes: 8_000,
  /** UTF-16 units of all text. */
  letters: 300_000,
  /** UTF-16 units without a blank: typesetting one takes time proportional to its square. */
  word: 300,
  depth: 14,
  /** Lines, pieces and signers on the paper of one deal, after repetition. */
  composed: 40_000,
  columns: 12,
  /** UTF-16 units of a tag's key, a slot's id, and a value in a condition. */
  name: 80,
  label: 200,
} as const;

/** Returns a text to start with: its title, and an empty line. */
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

/** A text that cannot be used or typeset, with a sentence for its author. */
export class UnfitText extends Error {}
