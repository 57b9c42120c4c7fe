/** A blank with everything that rules ask about it; each answer is computed once, when it is first needed. */
import { afterRow } from './around';
import type { Blank, PageScan } from './blanks';
import { BLANK, flowOf, type Flow } from './flow';
import { captionsOf, tail, type Captions } from './captions';
import type { PlaceKind, PlaceMeaning, PlaceRole } from './types';
import { isRoleHeading, kindOfWords, plain, roleOfWords, type RoleRead, type Sense } from './words';

/** A place as the rules decided it. */
export interface Judged {
  blank: Blank;
  captions: Captions;
  kind: PlaceKind;
  role: RoleRead | null;
  label: string;
  confidence: number;
  /** Whether it is within a sentence that continues on both sides. */
  inText: boolean;
  amid: boolean;
  /** What decided the kind, for what follows for its neighbors. */
  by: 'words' | 'role' | 'shape' | 'none';
  /** What it may be instead, if that is nearly as probable. */
  other?: PlaceMeaning;
}

/** What rules may know about the whole document. */
export interface PaperContext extends Sense {
  /** Whether the document asks for initials before its clauses. */
  asksInitials: boolean;
  /** Whether it speaks of initials at all. */
  speaksOfInitials: boolean;
  /** Who is asked for initials. */
  initialsBy: RoleRead | null;
  /** The letters by which a legend abbreviates roles: "B = Buyer". */
  letters: ReadonlyMap<string, PlaceRole>;
  /** Roles whose name the document gives, or may give, to another role: a seller who is called "Buyer" in it, an "owner". */
  misnamed: ReadonlyMap<PlaceRole, PlaceRole>;
}

/** The kind that captions name, with its confidence and the words that name it. */
interface Best {
  kind: Exclude<PlaceKind, 'checkbox'>;
  weight: number;
  text: string;
}

/** Returns whether words before a blank are a sentence that runs up to it, not its caption. */
function runsOn(before: string): boolean {
  const sentence = before.split(/[.;!?] /).pop() ?? '';
  const own = sentence.split(BLANK).pop()?.trim() ?? '';
  const named = kindOfWords(tail(own, 3));
  if (/[:.;]$/.test(own) || isRoleHeading(own) || (named && named !== 'text')) return false;
  return wordsIn(sentence) > 2;
}

const wordsIn = (sentence: string) =>
  plain(sentence)
    .split(' ')
    .filter((w) => /^[a-z']{2,}[,;]?$/.test(w)).length;

/** Returns a caption at the end of a line whose blank begins the next line: "Tenant:". */
function captionAtEnd(before: string): string {
  const own = before.split(BLANK).pop()?.trim() ?? '';
  return /:$/.test(own) && own.split(' ').length < 6 ? own : '';
}

/** A blank being judged, with everything rules may ask about its surroundings. */
export class Asked {
  readonly c: Captions;
  readonly width: number;
  /** The last five words before the blank, and the words after it, both folded. */
  readonly leftTail: string;
  readonly right: string;
  /** The words before the blank if they are a caption; empty if they are the end of a sentence. */
  readonly shortLeft: string;
  readonly below: string;
  /** Whether a sentence runs up to the blank: nobody signs there. */
  readonly runs: boolean;
  /** Whether it spans the page: a line to write on. */
  readonly pageWide: boolean;
  /** Whether a sentence continues after the blank: it is not its caption. */
  readonly flows: boolean;
  private readonly known = new Map<string, unknown>();

  constructor(
    readonly scan: PageScan,
    readonly b: Blank,
    readonly paper: PaperContext,
    private readonly soFar: ReadonlyMap<Blank, Judged>,
  ) {
    const c = captionsOf(scan, b);
    const pageWidth = scan.right - scan.left;
    this.c = c;
    this.width = b.x1 - b.x0;
    this.leftTail = tail(c.left, 5);
    this.right = plain(c.right);
    this.shortLeft = c.sentence ? '' : c.left || captionAtEnd(flowOf(scan, b).before);
    this.runs = runsOn(flowOf(scan, b).before);
    // Words below a sentence are its next line, not a caption.
    this.below = this.runs ? '' : c.below.map((p) => p.text).join(' ');
    this.pageWide = this.width > 0.86 * pageWidth && pageWidth > 200;
    this.flows = /^[,;.]|^[a-z]{2,}/.test(c.right) && !/^(?:date|fecha|signature|firma|initials)\b/.test(this.right);
  }

  private once<T>(name: string, find: () => T): T {
    if (!this.known.has(name)) this.known.set(name, find());
    return this.known.get(name) as T;
  }

  /** Returns the role that words name. */
  role(text: string): RoleRead | null {
    return text ? roleOfWords(text, this.paper) : null;
  }

  /** Returns the running text around the blank. */
  get flow(): Flow {
    return flowOf(this.scan, this.b);
  }

  /** Returns the judgment of the blank before this one in the text. */
  get lastInText(): Judged | undefined {
    return this.flow.last ? this.soFar.get(this.flow.last) : undefined;
  }

  /** Returns the judgment of the blank just before on the row. */
  get prior(): Judged | undefined {
    return this.c.after ? this.soFar.get(this.c.after) : undefined;
  }

  /** Returns the words after the last blank of the row. */
  get after(): string {
    return this.once('after', () => afterRow(this.scan, this.b));
  }

  /** Returns the role in the brackets after the blank: "____ (landlord) and ____ (tenant)". */
  get bracket(): RoleRead | null {
    return this.once('bracket', () => (/^\(/.test(this.c.right) ? this.role(this.c.right.split(')')[0] ?? '') : null));
  }

  /** Returns words above the blank that can be its caption. */
  private get above(): string {
    // A sentence that ends over the blank says nothing about it.
    const ended = /[.;]$/.test(this.c.above) && this.c.above.split(' ').length > 3;
    return ended || this.runs || this.flows || (this.pageWide && this.b.made === 'rule') ? '' : this.c.above;
  }

  /** Returns the role of the blank, as far as the words around it name one. */
  get who(): RoleRead | null {
    return this.once('who', () => {
      const { c } = this;
      // The person a sentence after the blank speaks of is not the one who fills it.
      const right = this.flows && c.right.split(' ').length > 3 ? '' : c.right;
      const named = [c.cell, this.shortLeft, this.below, right, c.rowHead, c.colHead, this.above].map((t) =>
        this.role(t),
      );
      const first = named.find((r) => r) ?? null;
      // One that says which one it is, if it is of the same role as the first.
      return this.bracket ?? named.find((r) => r !== null && r.ordinal !== null && first?.role === r.role) ?? first;
    });
  }

  /** Returns the words that may be a caption, with their weights. */
  private get sources(): { text: string; weight: number }[] {
    const { c, b, shortLeft } = this;
    const inTable = b.made === 'cell' && !c.cell;
    const behind = /^[(]|^,?\s*(?:date|initials?|signature|fecha|firma|iniciales)\b/i.test(c.right) && !c.rightTaken;
    return [
      { text: c.cell, weight: 1 },
      { text: inTable ? c.colHead : '', weight: 0.95 },
      { text: c.cell ? '' : shortLeft, weight: 0.97 },
      { text: this.below, weight: 0.96 },
      { text: c.sentence ? tail(c.left, 4) : '', weight: 0.6 },
      { text: behind ? c.right : '', weight: 0.85 },
      { text: inTable ? c.rowHead : '', weight: 0.8 },
      // Words over the line count only if there are none before it.
      { text: plain(shortLeft).length > 2 || c.cell ? '' : this.above, weight: 0.8 },
    ];
  }

  /**
   * Returns the most certain kind that a caption names. A caption under the line counts more than a role or an unclear
   * word to its left.
   */
  get best(): Best | null {
    return this.once('best', () => {
      let best: Best | null = null;
      for (const s of this.sources) {
        const kind = s.text ? kindOfWords(s.text) : null;
        if (!kind || (kind === 'signature' && s.text.split(' ').length > 9)) continue;
        const weight = kind === 'text' ? s.weight - 0.25 : s.weight;
        if (!best || weight > best.weight) best = { kind, weight, text: s.text };
      }
      return best;
    });
  }

  get label(): string {
    const { c } = this;
    return this.best?.text ?? (this.shortLeft || this.below || c.cell || c.above || c.left || c.right);
  }

  /** Returns the words nearest to the blank. */
  get words(): string {
    const { c } = this;
    return (c.left || c.right || this.below || c.cell || c.above).trim();
  }

  /** Returns whether a sentence that began before the blank continues after it. */
  private get goesOn(): boolean {
    const behind = this.flow.after.split(BLANK)[0]?.trim() ?? '';
    return this.flow.before !== '' && /^,? ?[a-z]/.test(behind) && behind.split(' ').length > 3;
  }

  /** Returns the judgment for a part of the document's text: the end of a term, the day of an offer. */
  ofText(...said: Parameters<Asked['is']>): Judged {
    return { ...this.is(...said), inText: true };
  }

  /** Returns the judgment: what the blank, or a part of it, is for. */
  is(
    kind: PlaceKind,
    role: RoleRead | null,
    label: string,
    confidence: number,
    by: Judged['by'],
    blank: Blank = this.b,
  ): Judged {
    const amid = this.goesOn && wordsIn(this.flow.before.split(/[.;!?] /).pop() ?? '') > 2;
    const inText = amid || this.runs || (kind === 'date' && this.goesOn);
    return { blank, captions: this.c, kind, role, label: label.trim().slice(0, 120), confidence, inText, amid, by };
  }
}
