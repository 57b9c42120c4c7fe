/** Reading a written form's text from outside, part by part: only what can be typeset is accepted. */
import { SIDES, type Side } from '../text/sides';
import { isClean, oneLine } from '../text/hygiene';
import {
  INLINE_KINDS,
  STYLES,
  UnfitText,
  WHENS,
  WRITTEN_LIMITS,
  type Align,
  type Block,
  type Cell,
  type Inline,
  type Style,
  type Written,
} from './types';

type Bag = Record<string, unknown>;

/**
 * Returns the written form that a value from outside describes. Unknown attributes of known parts, such as an editor's
 * own, are left out.
 *
 * @throws UnfitText where a part is unknown, where it is too much or too deep, or where it holds what no paper can
 */
export function writtenFrom(value: unknown): Written {
  const from = bagOf(value, 'The text');
  const doc = bagOf(from['doc'], 'The text');
  if (doc['type'] !== 'doc') throw new UnfitText('This is not the text of a form.');
  return {
    language: languageOf(from['language'] ?? 'en'),
    doc: { type: 'doc', content: new Reader().blocks(doc['content'], 1) },
  };
}

class Reader {
  private repeated = false;
  private nodes = 0;
  private letters = 0;

  blocks(value: unknown, depth: number): Block[] {
    return this.list(value, depth).map((b) => this.block(b, depth));
  }

  /** Returns the parts of a list, whose number is checked before any of them is read. */
  private list(value: unknown, depth: number): Bag[] {
    if (value === undefined) return [];
    if (!Array.isArray(value)) throw new UnfitText('A part of the text is not valid.');
    if (depth > WRITTEN_LIMITS.depth) throw new UnfitText('Lists and tables are nested too deeply.');
    this.nodes += value.length;
    if (this.nodes > WRITTEN_LIMITS.nodes)
      throw new UnfitText('The text is too long for one form. Split it into two forms.');
    return value.map((v) => bagOf(v, 'A part of the text'));
  }

  private block(b: Bag, depth: number): Block {
    const attrs = b['attrs'] === undefined || b['attrs'] === null ? {} : bagOf(b['attrs'], 'A part of the text');
    switch (b['type']) {
      case 'heading':
        return {
          type: 'heading',
          attrs: { level: whole(attrs['level'], 1, 3, 'The level of a heading') },
          content: this.inlines(b['content'], depth + 1),
        };
      case 'paragraph': {
        const align = alignOf(attrs['align'] ?? attrs['textAlign']);
        return {
          type: 'paragraph',
          ...(align ? { attrs: { align } } : {}),
          content: this.inlines(b['content'], depth + 1),
        };
      }
      case 'bulletList':
      case 'orderedList':
        return {
          type: b['type'],
          content: this.list(b['content'], depth + 1).map((item) => {
            if (item['type'] !== 'listItem') throw new UnfitText('A list contains something that is not a list item.');
            return { type: 'listItem', content: this.blocks(item['content'], depth + 2) };
          }),
        };
      case 'table':
        return { type: 'table', content: this.rows(b['content'], depth + 1) };
      case 'pageBreak':
        return { type: 'pageBreak' };
      case 'when':
        return {
          type: 'when',
          attrs: {
            key: this.word(attrs['key'], WRITTEN_LIMITS.name, 'What a condition asks about'),
            is: oneOf(attrs['is'], WHENS, 'A condition'),
            value: this.word(attrs['value'] ?? '', WRITTEN_LIMITS.name, 'What a condition compares with'),
          },
          content: this.blocks(b['content'], depth + 1),
        };
      case 'each':
        return this.each(b, oneOf(attrs['side'], SIDES, 'For whom a part is repeated'), depth);
      case 'signatures':
        return { type: 'signatures', attrs: { slots: this.slots(attrs['slots']), date: attrs['date'] !== false } };
      default:
        throw new UnfitText('The text contains a part that forms do not support.');
    }
  }

  /**
   * Reads a repeated part. Within another repeated part it is refused, because the text would grow with the square of
   * the people.
   */
  private each(b: Bag, side: Side, depth: number): Block {
    if (this.repeated) throw new UnfitText('A repeated part cannot be inside another one. Put it after it.');
    this.repeated = true;
    try {
      return { type: 'each', attrs: { side }, content: this.blocks(b['content'], depth + 1) };
    } finally {
      this.repeated = false;
    }
  }

  private rows(value: unknown, depth: number): { type: 'tableRow'; content: Cell[] }[] {
    return this.list(value, depth).map((row) => {
      if (row['type'] !== 'tableRow') throw new UnfitText('A table contains something that is not a row.');
      const content = this.list(row['content'], depth + 1).map((cell): Cell => {
        if (cell['type'] !== 'tableCell' && cell['type'] !== 'tableHeader')
          throw new UnfitText('A table row contains something that is not a cell.');
        const attrs = cell['attrs'] === undefined || cell['attrs'] === null ? {} : bagOf(cell['attrs'], 'A cell');
        return {
          type: cell['type'],
          attrs: { colspan: whole(attrs['colspan'] ?? 1, 1, WRITTEN_LIMITS.columns, 'The width of a cell') },
          content: this.blocks(cell['content'], depth + 2),
        };
      });
      if (content.reduce((sum, c) => sum + c.attrs.colspan, 0) > WRITTEN_LIMITS.columns)
        throw new UnfitText(`A table has at most ${WRITTEN_LIMITS.columns} columns.`);
      return { type: 'tableRow', content };
    });
  }

  private inlines(value: unknown, depth: number): Inline[] {
    return this.list(value, depth).map((r): Inline => {
      const attrs = r['attrs'] === undefined || r['attrs'] === null ? {} : bagOf(r['attrs'], 'A part of the text');
      switch (r['type']) {
        case 'text': {
          const marks = this.styles(r['marks']);
          return {
            type: 'text',
            text: this.word(r['text'], WRITTEN_LIMITS.letters, 'A line of the text'),
            ...(marks.length ? { marks } : {}),
          };
        }
        case 'hardBreak':
          return { type: 'hardBreak' };
        case 'tag':
          return { type: 'tag', attrs: { key: this.word(attrs['key'], WRITTEN_LIMITS.name, 'A tag') } };
        case 'place':
          return {
            type: 'place',
            attrs: {
              kind: oneOf(attrs['kind'], INLINE_KINDS, 'A place in the text'),
              slot: this.word(attrs['slot'], WRITTEN_LIMITS.name, 'Whose place it is'),
              label: oneLine(this.word(attrs['label'] ?? '', WRITTEN_LIMITS.label, 'What a place asks for')),
              required: attrs['required'] !== false,
              wide: attrs['wide'] === true,
            },
          };
        default:
          throw new UnfitText('A line contains something that forms do not support.');
      }
    });
  }

  private styles(value: unknown): { type: Style }[] {
    if (value === undefined || value === null) return [];
    if (!Array.isArray(value) || value.length > 20) throw new UnfitText('How a piece of text looks is not known.');
    return STYLES.filter((style) => value.some((m) => bagOf(m, 'A part of the text')['type'] === style)).map(
      (type) => ({
        type,
      }),
    );
  }

  private slots(value: unknown): string[] {
    if (!Array.isArray(value) || value.length > 60) throw new UnfitText('Who signs is not said.');
    return [...new Set(value.map((s) => this.word(s, WRITTEN_LIMITS.name, 'Who signs')))];
  }

  private word(value: unknown, most: number, what: string): string {
    if (typeof value !== 'string') throw new UnfitText(`${what} is no text.`);
    if (value.length > most) throw new UnfitText(`${what} is too long: at most ${most} letters.`);
    this.letters += value.length;
    if (this.letters > WRITTEN_LIMITS.letters)
      throw new UnfitText('The text is too long for one form. Split it into two forms.');
    if (!isClean(value)) throw new UnfitText(`${what} holds a character that cannot be printed.`);
    const long = longestWord(value);
    if (long.length > WRITTEN_LIMITS.word)
      throw new UnfitText(
        `${what} holds a word of ${long.length} letters, “${long.slice(0, 20)}…”. Split it or remove it: it does not fit on a line.`,
      );
    return value;
  }
}

/** Returns the longest word. */
const longestWord = (text: string) =>
  text.split(/\s/u).reduce((long, word) => (word.length > long.length ? word : long), '');

function bagOf(value: unknown, what: string): Bag {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new UnfitText(`${what} is not valid.`);
  return value as Bag;
}

function oneOf<T extends string>(value: unknown, all: readonly T[], what: string): T {
  const found = all.find((x) => x === value);
  if (found === undefined) throw new UnfitText(`${what} is not known.`);
  return found;
}

function whole(value: unknown, least: number, most: number, what: string): number {
  if (typeof value !== 'number' || !Number.isInteger(value) || value < least || value > most)
    throw new UnfitText(`${what} is a whole number from ${least} to ${most}.`);
  return value;
}

/**
 * Returns a language tag after checking its form. Which languages exist is known to the server; a paper in an unknown
 * one is written in English.
 */
function languageOf(value: unknown): string {
  if (typeof value !== 'string' || !/^[a-z]{2,3}(?:-[A-Za-z]{1,8})?$/.test(value))
    throw new UnfitText('The language of the paper is not known.');
  return value;
}

const alignOf = (value: unknown): Align | null => (value === 'center' || value === 'right' ? value : null);
