/**
 * Where looks go in a document. Before its first seal they become part of the page. After it a
 * page stays as it was sealed: what comes later fills the field that was kept for it or, when
 * nobody could know of it then, the page's room for that (`form.ts`). A document that was sealed
 * before seals certified has no such rooms: there it is laid on the page as a stamp.
 */
import {
  PDFDict,
  PDFHexString,
  PDFName,
  PDFRawStream,
  PDFStream,
  PDFString,
  concatTransformationMatrix,
  decodePDFRawStream,
  drawObject,
  popGraphicsState,
  pushGraphicsState,
  type PDFDocument,
  type PDFOperator,
  type PDFPage,
  PDFRef,
} from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import { FIELD_READ_ONLY, type Field, type Form, LOCKED, PRINT, ROUNDS, annotate, markName } from './form';
import { Appearance, short } from '../typesetting/appearance';
import { spaceOfPage, type Matrix, type PageSpace } from '../pdf/space';
import { itemAt } from '@gatepath/core/sure';

/** A position on a page, in points as displayed, y down. */
export interface Spot {
  /** Unique in the document; the same when reserved and when filled. */
  id: string;
  /** From 1. */
  page: number;
  rect: Rect;
  /** How far around the position an appearance may reach, in points. */
  around: number;
}

/** Annotation flags besides those of `form.ts`. */
const READ_ONLY = 64;
const LOCKED_CONTENTS = 512;
/** Field flags (ISO 32000-1, tables 226 and 228). */
const MULTILINE = 1 << 12;
const PUSHBUTTON = 1 << 16;

/** What is being put into the room of a page: operators, and the looks they draw by name. */
interface Filling {
  room: Field;
  before: string;
  operators: PDFOperator[];
  drawn: [name: string, ref: PDFRef][];
}

/** The places in a PDF where appearances go: reserved fields, or stamps on a page. */
export class Spots {
  private readonly pages: PDFPage[];
  private readonly spaces = new Map<number, PageSpace>();
  private readonly registered = new Map<string, PDFRef>();
  private readonly fillings = new Map<number, Filling>();
  /** Names of the kept fields that were filled. */
  readonly filled: string[] = [];

  constructor(
    private readonly doc: PDFDocument,
    readonly form: Form,
  ) {
    this.pages = doc.getPages();
  }

  /** Reserves a place for a later seal. Nothing shows there yet. Must be called before the first seal. */
  keep(place: Spot, words: string, text: 'line' | 'lines' | null, look = new Appearance()): void {
    const { context } = this.doc;
    const page = this.page(place);
    const flags = text ? (text === 'lines' ? MULTILINE : 0) : PUSHBUTTON;
    const widget = context.obj({
      Type: 'Annot',
      Subtype: 'Widget',
      FT: text ? 'Tx' : 'Btn',
      Ff: FIELD_READ_ONLY | flags,
      F: PRINT | LOCKED,
      TU: PDFHexString.fromText(words),
      Rect: this.rectOf(place),
      AP: { N: this.register(place, 'kept', look) },
    });
    if (text) widget.set(PDFName.of('DA'), PDFString.of('/Helv 0 Tf 0 g'));
    this.form.add(page, markName(place.id), widget);
    if (text) this.form.giveFont();
  }

  /** Reserves a room on every page for each round of signing. Must be called before the first seal. */
  reserveRooms(): void {
    const { context } = this.doc;
    // Hundreds of them in a long document: what they show at first is one object for pages of a size.
    const empty = new Map<string, PDFRef>();
    const boxes = this.pages.map((_, i) => this.wholePage(i + 1));
    for (const box of boxes) {
      if (empty.has(box.join())) continue;
      const N = context.register(roomAppearance(this.doc, '', box, {}));
      empty.set(box.join(), context.register(context.obj({ N })));
    }
    for (const round of ROUNDS) {
      const field = context.obj({ FT: 'Btn', Ff: FIELD_READ_ONLY | PUSHBUTTON });
      const rooms = boxes.map((Rect) =>
        context.obj({ Subtype: 'Widget', F: PRINT | LOCKED, Rect, AP: empty.get(Rect.join()) }),
      );
      this.form.addRooms(this.pages, round, field, rooms);
    }
  }

  /**
   * Draws an appearance in its place. `key` identifies equal appearances, so that the initials of ten pages are drawn
   * once; `words` name it, and `value` is the text of a text mark.
   */
  put(place: Spot, key: string, look: Appearance, words: string, value: string | null): void {
    const page = this.page(place);
    const drawn = this.register(place, key, look);
    const field = this.form.get(markName(place.id));
    if (field && !this.form.isLocked(field.name)) {
      field.dict.set(PDFName.of('AP'), this.doc.context.obj({ N: drawn }));
      if (value !== null) field.dict.set(PDFName.of('V'), PDFHexString.fromText(value));
      this.save(field.ref);
      this.filled.push(field.name);
    } else if (this.form.seals) {
      if (this.putInRoom(place, drawn)) return;
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
      page.pushOperators(...this.drawnAt(place, page.node.newXObject('Mark', drawn)));
      // What a page draws may be an object of its own, and then has to be written too.
      const parts = [page.node.Contents(), page.node.Resources()].filter((x) => !!x);
      this.doc.context.snapshot?.markObjsForSave(parts);
      this.save(page.ref);
    }
  }

  /** Draws into the page's room for the current round; returns false if none was reserved. */
  private putInRoom(place: Spot, drawn: PDFRef): boolean {
    const round = this.form.round();
    const room = round && this.form.room(round, place.page);
    if (!room) return false;
    let filling = this.fillings.get(place.page);
    if (!filling) this.fillings.set(place.page, (filling = this.openRoom(room)));
    const name = `Look${filling.drawn.length}`;
    filling.drawn.push([name, drawn]);
    filling.operators.push(...this.drawnAt(place, PDFName.of(name)));
    return true;
  }

  /** Returns a room as earlier seals left it, to draw on top of what they drew. */
  private openRoom(room: Field): Filling {
    const looks = room.dict.lookup(PDFName.of('AP'), PDFDict).lookup(PDFName.of('N'), PDFStream);
    const before =
      looks instanceof PDFRawStream ? Buffer.from(decodePDFRawStream(looks).decode()).toString('latin1') : '';
    const named = looks.dict.lookup(PDFName.of('Resources'), PDFDict).lookup(PDFName.of('XObject'));
    const drawn =
      named instanceof PDFDict
        ? named
            .entries()
            .flatMap(([key, ref]): [string, PDFRef][] => (ref instanceof PDFRef ? [[key.decodeText(), ref]] : []))
        : [];
    return { room, before, operators: [], drawn };
  }

  /** Writes the rooms that were drawn into. Must be called once, at the end. */
  finish(): void {
    for (const [page, { room, before, operators, drawn }] of this.fillings) {
      const content = [before, ...operators.map(String)].join('\n');
      const look = roomAppearance(this.doc, content, this.wholePage(page), Object.fromEntries(drawn));
      room.dict.set(PDFName.of('AP'), this.doc.context.obj({ N: this.doc.context.register(look) }));
      this.save(room.ref);
    }
  }

  /**
   * Returns the operators that draw an appearance in its place. The appearance contains its own rotation and only has
   * to be moved.
   */
  private drawnAt(place: Spot, name: PDFName): PDFOperator[] {
    const [x, y] = this.corner(place);
    return [pushGraphicsState(), concatTransformationMatrix(1, 0, 0, 1, x, y), drawObject(name), popGraphicsState()];
  }

  /** Adds a page of the document's own making, to be filled through `put`. Returns its number. */
  addPage(width: number, height: number, marked: { key: string; value: string } | null): number {
    const page = this.doc.addPage([width, height]);
    if (marked) page.node.set(PDFName.of(marked.key), PDFString.of(marked.value));
    return this.pages.push(page);
  }

  /** Returns the numbers of the pages that have a mark of `addPage`. */
  pagesMarked(key: string, value: string): number[] {
    return this.pages.flatMap((p, i) => {
      const found = p.node.lookup(PDFName.of(key));
      return found instanceof PDFString && found.asString() === value ? [i + 1] : [];
    });
  }

  private page(place: Spot): PDFPage {
    const page = this.pages[place.page - 1];
    if (!page) throw new Error(`${place.id} is on page ${place.page} of ${this.pages.length}`);
    return page;
  }

  private space(page: number): PageSpace {
    let space = this.spaces.get(page);
    if (!space) this.spaces.set(page, (space = spaceOfPage(itemAt(this.pages, page - 1))));
    return space;
  }

  /** Returns the lower left corner of a place as displayed, in user space. */
  private corner({ page, rect }: Spot): [number, number] {
    const { toUser, height } = this.space(page);
    const up = height - rect.y - rect.h;
    return [
      short(toUser[0] * rect.x + toUser[2] * up + toUser[4]),
      short(toUser[1] * rect.x + toUser[3] * up + toUser[5]),
    ];
  }

  /** Returns a place with its surroundings, in user space. */
  private rectOf(place: Spot): number[] {
    const { rect, around } = place;
    const [a, b, c, d] = this.space(place.page).toUser;
    const [x, y] = this.corner(place);
    const ends = [
      [-around, -around],
      [rect.w + around, rect.h + around],
    ].map(([u, v]) => [x + a * u! + c * v!, y + b * u! + d * v!]);
    const xs = ends.map((e) => itemAt(e, 0));
    const ys = ends.map((e) => itemAt(e, 1));
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(short);
  }

  /** Returns the visible part of a page, in user space. */
  private wholePage(page: number): number[] {
    const { width, height } = this.space(page);
    return this.rectOf({ id: '', page, rect: { x: 0, y: 0, w: width, h: height }, around: 0 });
  }

  private register({ page, rect, around }: Spot, key: string, look: Appearance): PDFRef {
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

  private save(ref: PDFRef): void {
    this.doc.context.snapshot?.markRefForSave(ref);
  }
}

/**
 * Returns the appearance of a room: a form (ISO 32000-1, 8.10) of its page's width that draws other forms at their
 * positions.
 */
function roomAppearance(doc: PDFDocument, content: string, box: number[], drawn: Record<string, PDFRef>): PDFStream {
  return doc.context.flateStream(content, {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: box,
    Resources: { XObject: drawn },
  });
}
