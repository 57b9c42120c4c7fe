/**
 * Where looks go in a document. Before its first seal they become part of the page. After it,
 * a page's content stays as it was sealed: what comes later fills a field that was kept for it,
 * or, when nobody could know of it then, is laid on the page as a stamp. A viewer that compares
 * revisions finds only fields filled and stamps added (ISO 32000-1, 12.8.2.2).
 */
import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFString,
  concatTransformationMatrix,
  drawObject,
  popGraphicsState,
  pushGraphicsState,
  type PDFDocument,
  type PDFPage,
} from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import { Look, short } from './look';
import { spaceOfPage, type Matrix, type PageSpace } from './space';

/** A place on a page, in points as displayed, y down. */
export interface Place {
  /** Unique in the document; the same when it is kept and when it is filled. */
  id: string;
  /** From 1. */
  page: number;
  rect: Rect;
  /** How far around the place a look may reach. */
  around: number;
}

/** Annotation flags (ISO 32000-1, table 165): printed; not moved or taken off by a viewer. */
const PRINT = 4;
const READ_ONLY = 64;
const LOCKED = 128;
const LOCKED_CONTENTS = 512;
/** Field flags (tables 221, 226 and 228). */
const FIELD_READ_ONLY = 1;
const MULTILINE = 1 << 12;
const PUSHBUTTON = 1 << 16;

export class Places {
  private readonly pages: PDFPage[];
  private readonly spaces = new Map<number, PageSpace>();
  private readonly registered = new Map<string, PDFRef>();
  private fields: Map<string, PDFRef> | null = null;
  /** How many seals stand on the document already. */
  readonly seals: number;

  constructor(private readonly doc: PDFDocument) {
    this.pages = doc.getPages();
    const isSeal = (dict: PDFDict) => dict.lookup(PDFName.of('FT')) === PDFName.of('Sig');
    this.seals = this.fieldRefs().filter(({ dict }) => isSeal(dict)).length;
  }

  /** Keeps a place for what comes later. Nothing shows there yet. Only before the first seal. */
  keep(place: Place, words: string, text: 'line' | 'lines' | null, look = new Look()): void {
    const { context } = this.doc;
    const page = this.page(place);
    const flags = text ? (text === 'lines' ? MULTILINE : 0) : PUSHBUTTON;
    const widget = context.obj({
      Type: 'Annot',
      Subtype: 'Widget',
      FT: text ? 'Tx' : 'Btn',
      Ff: FIELD_READ_ONLY | flags,
      F: PRINT | LOCKED,
      T: PDFHexString.fromText(fieldName(place.id)),
      TU: PDFHexString.fromText(words),
      Rect: this.rectOf(place),
      AP: { N: this.register(place, 'kept', look) },
    }) as PDFDict;
    if (text) widget.set(PDFName.of('DA'), PDFString.of('/Helv 0 Tf 0 g'));
    const ref = context.register(widget);
    annotate(this.doc, page, ref);
    const acro = acroForm(this.doc);
    acro.lookup(PDFName.of('Fields'), PDFArray).push(ref);
    if (text) giveFont(this.doc, acro);
    this.known().set(fieldName(place.id), ref);
  }

  /**
   * Puts a look in its place. `key` names looks that are the same, so that the initials of ten
   * pages are drawn once; `words` say what it is, and `value` is the text of a text mark.
   */
  put(place: Place, key: string, look: Look, words: string, value: string | null): void {
    const page = this.page(place);
    const drawn = this.register(place, key, look);
    const field = this.known().get(fieldName(place.id));
    if (field) {
      const widget = this.doc.context.lookup(field, PDFDict);
      widget.set(PDFName.of('AP'), this.doc.context.obj({ N: drawn }));
      if (value !== null) widget.set(PDFName.of('V'), PDFHexString.fromText(value));
      this.save(field);
    } else if (this.seals) {
      const stamp = this.doc.context.obj({
        Type: 'Annot',
        Subtype: 'Stamp',
        F: PRINT | READ_ONLY | LOCKED | LOCKED_CONTENTS,
        NM: PDFHexString.fromText(place.id),
        Contents: PDFHexString.fromText(value === null ? words : `${words}: ${value}`),
        Rect: this.rectOf(place),
        AP: { N: drawn },
      });
      annotate(this.doc, page, this.doc.context.register(stamp));
    } else {
      const [x, y] = this.corner(place);
      page.pushOperators(
        pushGraphicsState(),
        // The form turns itself; it only has to be brought to its place.
        concatTransformationMatrix(1, 0, 0, 1, x, y),
        drawObject(page.node.newXObject('Mark', drawn)),
        popGraphicsState(),
      );
      // What a page draws may be an object of its own, and then has to be written too.
      const parts = [page.node.Contents(), page.node.Resources()].filter((x) => !!x);
      this.doc.context.snapshot?.markObjsForSave(parts);
      this.save(page.ref);
    }
  }

  /** Adds a page of the document's own making, to be filled through `put`. Returns its number. */
  addPage(width: number, height: number, marked: { key: string; value: string } | null): number {
    const page = this.doc.addPage([width, height]);
    if (marked) page.node.set(PDFName.of(marked.key), PDFString.of(marked.value));
    return this.pages.push(page);
  }

  /** Numbers of the pages that carry a mark of `addPage`. */
  pagesMarked(key: string, value: string): number[] {
    return this.pages.flatMap((p, i) => {
      const found = p.node.lookup(PDFName.of(key));
      return found instanceof PDFString && found.asString() === value ? [i + 1] : [];
    });
  }

  private page(place: Place): PDFPage {
    const page = this.pages[place.page - 1];
    if (!page) throw new Error(`${place.id} is on page ${place.page} of ${this.pages.length}`);
    return page;
  }

  private space(page: number): PageSpace {
    let space = this.spaces.get(page);
    if (!space) this.spaces.set(page, (space = spaceOfPage(this.pages[page - 1]!)));
    return space;
  }

  /** The place's lower left corner as displayed, in user space. */
  private corner({ page, rect }: Place): [number, number] {
    const { toUser, height } = this.space(page);
    const up = height - rect.y - rect.h;
    return [
      short(toUser[0] * rect.x + toUser[2] * up + toUser[4]),
      short(toUser[1] * rect.x + toUser[3] * up + toUser[5]),
    ];
  }

  /** The place with what is around it, in user space. */
  private rectOf(place: Place): number[] {
    const { rect, around } = place;
    const [a, b, c, d] = this.space(place.page).toUser;
    const [x, y] = this.corner(place);
    const ends = [
      [-around, -around],
      [rect.w + around, rect.h + around],
    ].map(([u, v]) => [x + a * u! + c * v!, y + b * u! + d * v!]);
    const xs = ends.map((e) => e[0]!);
    const ys = ends.map((e) => e[1]!);
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(short);
  }

  private register({ page, rect, around }: Place, key: string, look: Look): PDFRef {
    const [a, b, c, d] = this.space(page).toUser;
    const turn: Matrix = [a, b, c, d, 0, 0];
    const whole = JSON.stringify([key, short(rect.w), short(rect.h), around, turn]);
    let ref = this.registered.get(whole);
    if (!ref) {
      ref = look.register(this.doc, [-around, -around, rect.w + around, rect.h + around], turn);
      this.registered.set(whole, ref);
    }
    return ref;
  }

  private fieldRefs(): { ref: PDFRef; dict: PDFDict }[] {
    const acro = this.doc.catalog.lookup(PDFName.of('AcroForm'));
    const fields = acro instanceof PDFDict ? acro.lookup(PDFName.of('Fields')) : null;
    if (!(fields instanceof PDFArray)) return [];
    return fields.asArray().flatMap((ref) => {
      const dict = ref instanceof PDFRef ? this.doc.context.lookup(ref) : null;
      return ref instanceof PDFRef && dict instanceof PDFDict ? [{ ref, dict }] : [];
    });
  }

  private known(): Map<string, PDFRef> {
    this.fields ??= new Map(
      this.fieldRefs().flatMap(({ ref, dict }): [string, PDFRef][] => {
        const name = dict.lookup(PDFName.of('T'));
        return name instanceof PDFHexString || name instanceof PDFString ? [[name.decodeText(), ref]] : [];
      }),
    );
    return this.fields;
  }

  private save(ref: PDFRef): void {
    this.doc.context.snapshot?.markRefForSave(ref);
  }
}

/** Adds an annotation to a page and leaves all else on it as it is written. */
export function annotate(doc: PDFDocument, page: PDFPage, ref: PDFRef): void {
  // The library's own way puts the page's content in order first: a change, to a viewer that compares.
  const annots = page.node.Annots();
  if (annots) annots.push(ref);
  else page.node.set(PDFName.of('Annots'), doc.context.obj([ref]));
  doc.context.snapshot?.markObjsForSave(annots ? [annots, page.node] : [page.node]);
}

/** Names of fields may not have dots (ISO 32000-1, 12.7.3.2). */
const fieldName = (id: string) => `Mark ${id.replace(/\./g, '·')}`;

/** The document's form, made when there is none. */
export function acroForm(doc: PDFDocument): PDFDict {
  const { context } = doc;
  const name = PDFName.of('AcroForm');
  const was = doc.catalog.lookup(name);
  const acro = was instanceof PDFDict ? was : (context.obj({}) as PDFDict);
  if (!(acro.lookup(PDFName.of('Fields')) instanceof PDFArray)) acro.set(PDFName.of('Fields'), context.obj([]));
  // Seals stand in it, and the file is only ever appended to.
  acro.set(PDFName.of('SigFlags'), PDFNumber.of(3));
  if (acro !== was) doc.catalog.set(name, context.register(acro));
  context.snapshot?.markObjsForSave([acro, acro.lookup(PDFName.of('Fields'), PDFArray), doc.catalog]);
  return acro;
}

/** The face that a viewer shows a text field's value in, if it does not show ours. */
function giveFont(doc: PDFDocument, acro: PDFDict): void {
  if (acro.has(PDFName.of('DR'))) return;
  const font = { Type: 'Font', Subtype: 'Type1', BaseFont: 'Helvetica', Encoding: 'WinAnsiEncoding' };
  acro.set(PDFName.of('DR'), doc.context.obj({ Font: { Helv: doc.context.register(doc.context.obj(font)) } }));
}
