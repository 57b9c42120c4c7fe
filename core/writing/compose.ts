/** From a form's text and what a deal knows to what stands on the paper: conditions decided, repetitions made, tags filled in. */
import type { MarkKind } from '../packet/types';
import type { Side } from '../text/sides';
import { say, type Words } from '../words';
import { EACH_NAME, tagFact, tagWords, type TagDef, type TagValues } from './tags';
import { UnfitText, WRITTEN_LIMITS, type Align, type Block, type Inline, type Style, type Written } from './types';

/** A piece of a line; with a place, it is that place's blank. */
export interface PaperRun {
  text: string;
  styles?: Style[];
  /** Index of its place. */
  place?: number;
}
/** A signer, with the indexes of their places. */
export interface Signer {
  name: string;
  under: string;
  sign: number;
  date: number | null;
}
/** A block of a composed paper. */
export type PaperBlock =
  | { is: 'heading'; level: number; runs: PaperRun[] }
  | { is: 'paragraph'; runs: PaperRun[]; align: Align }
  | { is: 'list'; ordered: boolean; items: PaperBlock[][] }
  | { is: 'table'; rows: { head: boolean; across: number; blocks: PaperBlock[] }[][] }
  | { is: 'break' }
  | { is: 'signers'; signers: Signer[]; dateWord: string };

/** A place on the paper before its position is known. Sizes in points. */
export interface PaperPlace {
  kind: MarkKind;
  /** The slot, or the person in a slot for everyone. */
  partyId: string;
  label: string;
  required: boolean;
  w: number;
  h: number;
}

/** A person in a slot, under the id their places use. */
export interface SlotPerson {
  partyId: string;
  name: string;
  /** "Seller 1". */
  under: string;
}

/** A composed paper: its blocks and places. */
export interface Composed {
  blocks: PaperBlock[];
  places: PaperPlace[];
  /** Keys of unknown tags that are on the paper, or decide what is. */
  missing: string[];
}

/** Printed where something is unknown. */
const BLANK = '____________';

/** Sizes of places in points. */
const SIZE: Record<string, { w: number; h: number }> = {
  signature: { w: 210, h: 26 },
  date_signed: { w: 100, h: 18 },
  initials: { w: 44, h: 18 },
  tick: { w: 11, h: 11 },
  date: { w: 90, h: 15 },
  number: { w: 70, h: 15 },
  money: { w: 90, h: 15 },
  text: { w: 130, h: 15 },
};
const WIDE_TEXT = 300;

/** What a written form is composed for: values, people, language. */
export interface ComposeFor {
  /** Of the paper's language. */
  words: Words;
  tags: ReadonlyMap<string, TagDef>;
  values: TagValues;
  /** The people in each slot, by its id; empty for an unfilled one. */
  slots: ReadonlyMap<string, readonly SlotPerson[]>;
  /** Sides of the slots that are for everyone of a side, by the slot's id. */
  everyOf: ReadonlyMap<string, Side>;
  /** People of each side, for repeated parts, with the ids their places use. */
  sides: ReadonlyMap<Side, readonly SlotPerson[]>;
  /** A sample while writing: tags are named, and every conditional part is shown. */
  sample?: boolean;
}

/**
 * Returns what is printed on the paper of a written form. Text is never interpreted: tags in it are not filled in.
 *
 * @throws UnfitText where it is repeated for so many people that no paper holds it
 */
export function composed(text: Written, on: ComposeFor): Composed {
  return new Composer(on).all(text.doc.content);
}

class Composer {
  private readonly places: PaperPlace[] = [];
  private readonly missing = new Set<string>();
  private made = 0;

  constructor(private readonly on: ComposeFor) {}

  all(content: readonly Block[]): Composed {
    const blocks = this.blocks(content, null);
    return { blocks, places: this.places, missing: [...this.missing] };
  }

  private blocks(content: readonly Block[], one: Repeated | null): PaperBlock[] {
    return content.flatMap((b) => this.block(b, one));
  }

  /** Counts items before they are composed. */
  private count(n: number): void {
    this.made += n;
    if (this.made > WRITTEN_LIMITS.composed)
      throw new UnfitText('With everyone in this deal, the text is too long for one paper. Split the form in two.');
  }

  private block(b: Block, one: Repeated | null): PaperBlock[] {
    this.count(1);
    switch (b.type) {
      case 'heading':
        return [{ is: 'heading', level: b.attrs.level, runs: this.runs(b.content, one) }];
      case 'paragraph':
        return [{ is: 'paragraph', runs: this.runs(b.content, one), align: b.attrs?.align ?? 'left' }];
      case 'bulletList':
      case 'orderedList': {
        const items = b.content.map((i) => this.blocks(i.content, one)).filter((i) => i.length > 0);
        return items.length ? [{ is: 'list', ordered: b.type === 'orderedList', items }] : [];
      }
      case 'table': {
        const rows = b.content.map((row) =>
          row.content.map((c) => ({
            head: c.type === 'tableHeader',
            across: c.attrs.colspan,
            blocks: this.blocks(c.content, one),
          })),
        );
        const full = rows.filter((r) => r.length > 0);
        return full.length ? [{ is: 'table', rows: full }] : [];
      }
      case 'pageBreak':
        return [{ is: 'break' }];
      case 'when':
        return this.holds(b.attrs) ? this.blocks(b.content, one) : [];
      case 'each':
        return (this.on.sides.get(b.attrs.side) ?? []).flatMap((person) =>
          this.blocks(b.content, { side: b.attrs.side, person }),
        );
      case 'signatures': {
        const signers = b.attrs.slots.flatMap((slot) => this.who(slot, one)).map((p) => this.signer(p, b.attrs.date));
        return signers.length ? [{ is: 'signers', signers, dateWord: say(this.on.words, 'paper.date') }] : [];
      }
    }
  }

  /**
   * Returns whether the part that depends on a condition is printed. A condition with an unknown fact is reported, and
   * the part is not printed.
   */
  private holds({ key, is, value }: { key: string; is: string; value: string }): boolean {
    if (this.on.sample) return true;
    const known = tagFact(key, this.on.values);
    if (known === undefined) this.missing.add(key);
    const there = known !== undefined && known !== false && known !== '';
    if (is === 'there') return there;
    return is === 'not' ? !there : known !== undefined && String(known) === value;
  }

  /** Returns the people in a slot; within a part repeated for a side, the one it is repeated for. */
  private who(slot: string, one: Repeated | null): readonly SlotPerson[] {
    if (one && this.on.everyOf.get(slot) === one.side) return [one.person];
    return this.on.slots.get(slot) ?? [];
  }

  private signer(p: SlotPerson, date: boolean): Signer {
    this.count(1);
    const place = (kind: MarkKind) => this.place(kind, p, '', true);
    return {
      name: p.name,
      under: p.under,
      sign: place('signature'),
      date: date ? place('date_signed') : null,
    };
  }

  private place(kind: MarkKind, p: SlotPerson, label: string, required: boolean, wide = false): number {
    const size = SIZE[kind] ?? { w: 130, h: 15 };
    const w = wide && kind === 'text' ? WIDE_TEXT : size.w;
    return this.places.push({ kind, partyId: p.partyId, label, required, w, h: size.h }) - 1;
  }

  private runs(content: readonly Inline[], one: Repeated | null): PaperRun[] {
    this.count(content.length);
    return content.flatMap((r): PaperRun[] => {
      switch (r.type) {
        case 'text':
          return [{ text: r.text, ...(r.marks?.length ? { styles: r.marks.map((m) => m.type) } : {}) }];
        case 'hardBreak':
          return [{ text: '\n' }];
        case 'tag':
          return [{ text: this.tag(r.attrs.key, one) }];
        case 'place': {
          const { kind, slot, label, required, wide } = r.attrs;
          const who = this.who(slot, one);
          this.count(who.length);
          return who.flatMap((p, i) => [
            ...(i ? [{ text: ' ' }] : []),
            { text: '', place: this.place(kind, p, label, required && kind !== 'tick', wide) },
          ]);
        }
      }
    });
  }

  private tag(key: string, one: Repeated | null): string {
    if (key === EACH_NAME && one) return one.person.name;
    const def = this.on.tags.get(key);
    if (this.on.sample) return `‹${def?.label ?? 'a tag that is gone'}›`;
    const words = tagWords(key, def, this.on.values, this.on.words);
    if (words !== null) return words;
    this.missing.add(key);
    return BLANK;
  }
}

/** Whom a part is being repeated for. */
interface Repeated {
  side: Side;
  person: SlotPerson;
}
