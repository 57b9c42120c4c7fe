/**
 * A document's form: its fields by their full names, and what the seals on it lock (ISO 32000-2,
 * 12.8.2). The first seal certifies the document: from then on fields may be filled and signed, and
 * nothing else may change, neither the form itself nor the catalog. So everything that a later seal
 * can need is kept with the first one; what nobody could foresee goes into the rooms of a round.
 */
import { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, PDFRef, PDFString } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { itemAt } from '@gatepath/core/sure';

/** A field, or its appearance on one page. */
export interface Field {
  name: string;
  ref: PDFRef;
  dict: PDFDict;
}

/**
 * What is kept for what nobody could foresee, once for each round of signing: the packet itself, and
 * late rounds on its sealed copy. Each has one field that shows on every page, as wide as the page
 * (its rooms), and signature fields. The last seal of a round locks them and leaves later ones open.
 */
export const ROUNDS = ['Unforeseen', 'Late 1', 'Late 2'] as const;
/** One of `ROUNDS`. */
export type Round = (typeof ROUNDS)[number];

/** Annotation flags (ISO 32000-1, table 165): printed; not moved or removed by a viewer. */
export const PRINT = 4;
/** Annotation flag: the field cannot be moved or changed by a viewer (ISO 32000-1, table 165). */
export const LOCKED = 128;
/** Field flag (table 221). */
export const FIELD_READ_ONLY = 1;

const name = (text: string) => PDFName.of(text);

/** The form of a sealed copy: its fields for marks, signatures and record pages. */
export class Form {
  private readonly fields = new Map<string, Field>();
  /** The rooms of each round, page by page. */
  private readonly rooms = new Map<Round, { ref: PDFRef; dict: PDFDict }[]>();
  private readonly locked = new Set<string>();
  /** Number of seals on the document. */
  readonly seals: number = 0;
  /** Whether the first of them says what may change after it. A document sealed long ago says nothing. */
  readonly certified: boolean;

  constructor(private readonly doc: PDFDocument) {
    const acro = doc.catalog.lookup(name('AcroForm'));
    for (const { ref, dict } of this.read(acro instanceof PDFDict ? acro.lookup(name('Fields')) : undefined)) {
      const full = textIn(dict.lookup(name('T')));
      this.fields.set(full, { name: full, ref, dict });
      const round = ROUNDS.find((r) => r === full);
      if (round) this.rooms.set(round, this.read(dict.lookup(name('Kids'))));
    }
    for (const { dict } of this.fields.values()) {
      const signature = dict.lookup(name('V'));
      if (dict.lookup(name('FT')) !== name('Sig') || !(signature instanceof PDFDict)) continue;
      this.seals += 1;
      for (const full of locksOf(signature)) this.locked.add(full);
    }
    const perms = doc.catalog.lookup(name('Perms'));
    this.certified = perms instanceof PDFDict && perms.has(name('DocMDP'));
  }

  private read(list: PDFObject | undefined): { ref: PDFRef; dict: PDFDict }[] {
    if (!(list instanceof PDFArray)) return [];
    return list.asArray().flatMap((ref) => {
      const dict = ref instanceof PDFRef ? this.doc.context.lookup(ref) : undefined;
      return ref instanceof PDFRef && dict instanceof PDFDict ? [{ ref, dict }] : [];
    });
  }

  get(full: string): Field | undefined {
    return this.fields.get(full);
  }

  /** Returns whether a seal on the document forbids a change of this field. */
  isLocked(full: string): boolean {
    return this.locked.has(full);
  }

  /** Returns the current round: the first whose rooms no seal has locked. */
  round(): Round | null {
    return ROUNDS.find((r) => this.rooms.has(r) && !this.isLocked(r)) ?? null;
  }

  /** Returns what the last seal of a round locks: every field except those reserved for later rounds. */
  openIn(round: Round): string[] {
    const later = new Set(ROUNDS.slice(ROUNDS.indexOf(round) + 1).flatMap((r) => [r, ...this.sparesOf(r)]));
    return [...this.fields.keys()].filter((full) => !later.has(full) && !this.isLocked(full));
  }

  /** Returns the names of the signature fields of a round. */
  private sparesOf(round: Round): string[] {
    return [...this.fields.keys()].filter((n) => n.startsWith(`${round} seal `));
  }

  /** Returns the room of a round on a page; pages count from 1. */
  room(round: Round, page: number): Field | undefined {
    const found = this.rooms.get(round)?.[page - 1];
    return found && { name: round, ...found };
  }

  /** Returns the signature field reserved for `signer`, or the next free one of the current round. */
  freeSignature(signer: string): Field | null {
    const free = (f: Field | undefined) => f && !f.dict.has(name('V')) && !this.isLocked(f.name) && f;
    const own = free(this.get(sealName(signer)));
    if (own) return own;
    const round = this.round();
    return (
      (round &&
        this.sparesOf(round)
          .map((n) => free(this.get(n)))
          .find((f) => !!f)) ||
      null
    );
  }

  /** Adds a field with an appearance on a page. After the first seal, that is a change nobody certified. */
  add(page: PDFPage, full: string, entries: PDFDict): void {
    entries.set(name('T'), written(full));
    const ref = this.doc.context.register(entries);
    annotate(this.doc, page, ref);
    this.tops().push(ref);
    this.fields.set(full, { name: full, ref, dict: entries });
  }

  /** Adds the rooms of a round: `field` is what they have in common, `rooms` one per page in order. */
  addRooms(pages: PDFPage[], round: Round, field: PDFDict, rooms: PDFDict[]): void {
    const { context } = this.doc;
    const parent = context.register(field);
    const kids = rooms.map((room, i) => {
      room.set(name('Parent'), parent);
      const ref = context.register(room);
      annotate(this.doc, itemAt(pages, i), ref);
      return { ref, dict: room };
    });
    field.set(name('T'), written(round));
    field.set(name('Kids'), context.obj(kids.map(({ ref }) => ref)));
    this.tops().push(parent);
    this.fields.set(round, { name: round, ref: parent, dict: field });
    this.rooms.set(round, kids);
  }

  /** Adds the font in which a viewer shows a text field's value if it does not show ours. */
  giveFont(): void {
    const acro = this.acro();
    if (acro.has(name('DR'))) return;
    const font = { Type: 'Font', Subtype: 'Type1', BaseFont: 'Helvetica', Encoding: 'WinAnsiEncoding' };
    const { context } = this.doc;
    acro.set(name('DR'), context.obj({ Font: { Helv: context.register(context.obj(font)) } }));
  }

  private tops(): PDFArray {
    return this.acro().lookup(name('Fields'), PDFArray);
  }

  /** Returns the document's form, created if there is none, marked to be written again. */
  private acro(): PDFDict {
    const { context, catalog } = this.doc;
    const was = catalog.lookup(name('AcroForm'));
    const acro = was instanceof PDFDict ? was : context.obj({});
    if (!(acro.lookup(name('Fields')) instanceof PDFArray)) acro.set(name('Fields'), context.obj([]));
    // Seals stand in it, and the file is only ever appended to.
    acro.set(name('SigFlags'), PDFNumber.of(3));
    if (acro !== was) catalog.set(name('AcroForm'), context.register(acro));
    context.snapshot?.markObjsForSave([acro, acro.lookup(name('Fields'), PDFArray), catalog]);
    return acro;
  }
}

/** Returns an id without dots, which field names may not contain (ISO 32000-1, 12.7.3.2). */
const plain = (id: string) => id.replace(/\./g, '·');

/** Returns the name of a mark's field. */
export const markName = (markId: string) => plain(`Mark ${markId}`);
/** Returns the name of the signature field reserved for a signer. */
export const sealName = (signer: string) => plain(`Seal ${signer}`);
/** Returns the name of a round's signature field, counted from 1. */
export const spareName = (round: Round, n: number) => `${round} seal ${n}`;

/** Returns a text as a PDF string: plain where that is safe, otherwise UTF-16. */
export const written = (text: string) => (/^[\w -]*$/.test(text) ? PDFString.of(text) : PDFHexString.fromText(text));

/** Returns the text of a PDF string object. */
export const textIn = (object: PDFObject | undefined) =>
  object instanceof PDFHexString || object instanceof PDFString ? object.decodeText() : '';

/** Returns the names of the fields that a signature says it locks. */
function locksOf(signature: PDFDict): string[] {
  const references = signature.lookup(name('Reference'));
  if (!(references instanceof PDFArray)) return [];
  return references.asArray().flatMap((_, i) => {
    const params = references.lookup(i, PDFDict).lookup(name('TransformParams'));
    return params instanceof PDFDict ? lockedBy(params) : [];
  });
}

/** Returns the names of the fields in a lock dictionary (ISO 32000-2, table 236 or 259). */
export function lockedBy(dict: PDFDict): string[] {
  const fields = dict.lookup(name('Fields'));
  return fields instanceof PDFArray ? fields.asArray().map(textIn) : [];
}

/**
 * Returns the entries of a dictionary that describes a lock. They always list the locked fields: "all" and "all but"
 * would be shorter, but some viewers then miss an earlier lock by name.
 */
export const lockEntries = (fields: string[]) => ({ Action: 'Include', Fields: fields.map(written) });

/** Adds an annotation to a page and leaves everything else on it as it is written. */
export function annotate(doc: PDFDocument, page: PDFPage, ref: PDFRef): void {
  // The library's own way puts the page's content in order first: a change, to a viewer that compares.
  const annots = page.node.Annots();
  if (annots) annots.push(ref);
  else page.node.set(name('Annots'), doc.context.obj([ref]));
  doc.context.snapshot?.markObjsForSave(annots ? [annots, page.node] : [page.node]);
}
