/**
 * Preparing a paper once, as it is brought in: its pages are copied into a fresh file, with what
 * they need to be seen and nothing else. Form fields and annotations become part of the page,
 * layers that are off go. What is prepared is what is drawn, shown, signed and sealed; the
 * original stays as it came.
 */
import { deflateSync } from 'node:zlib';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFStream,
  PDFString,
  type PDFObject,
  type PDFPage,
} from '@cantoo/pdf-lib';
import type { LeftOut } from '@gatepath/contract';
import { Cleaner } from './clean';
import { pdfium } from '../pdf/draw';
import { Layers } from './layers';
import { tallyActive, Tally } from './left-out';
import { Links, type Target } from './links';
import { countContent } from '../pdf/operators';
import { PAPER_LIMITS, Refused, type PaperRefusal } from './refusal';
import { sizesOf, type Matrix } from '../pdf/space';
import { Scale } from './weigh';
import { itemAt } from '@gatepath/core/sure';

/** A prepared file, or why it cannot be used. */
export type Prepared =
  | { ok: true; bytes: Uint8Array; pages: { width: number; height: number }[]; leftOut: LeftOut[] }
  | { ok: false; refusal: PaperRefusal };

const key = (name: string) => PDFName.of(name);

/** Validates and prepares the bytes of an added PDF. */
export async function prepare(original: Uint8Array, at: (where: string) => void = () => undefined): Promise<Prepared> {
  try {
    return await prepared(original, at);
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    // A library that failed is broken for every later paper: the worker must end.
    if (error instanceof WebAssembly.RuntimeError || /abort\(|out of memory|RuntimeError/i.test(String(error)))
      throw error;
    const locked = /encrypt|password|security/i.test(String(error));
    return { ok: false, refusal: { problem: locked ? 'locked' : 'broken' } };
  }
}

async function prepared(original: Uint8Array, at: (where: string) => void): Promise<Prepared> {
  // Readers accept the header anywhere in the first kilobyte (ISO 32000-1, Annex H).
  if (!Buffer.from(original.subarray(0, 1024)).includes('%PDF-')) throw new Refused({ problem: 'not_pdf' });
  const pageCount = await pagesByPdfium(original);
  const from = await PDFDocument.load(original, { updateMetadata: false, throwOnInvalidObject: false });
  if (from.isEncrypted) throw new Refused({ problem: 'locked' });
  if (from.context.largestObjectNumber > PAPER_LIMITS.objects * 4) throw new Refused({ problem: 'too_many_objects' });
  if (from.getPageCount() !== pageCount) throw new Refused({ problem: 'broken' });
  const tally = new Tally();
  tallyActive(from, tally);
  drawFields(from);
  const to = await PDFDocument.create({ updateMetadata: false });
  const copy = new Copy(from, to, tally);
  from.getPages().forEach((page, i) => {
    at(`page ${i + 1}`);
    copy.page(page, i + 1);
  });
  copy.links();
  const bytes = await to.save({ useObjectStreams: false, updateFieldAppearances: false });
  return { ok: true, bytes, pages: sizesOf(to), leftOut: tally.list };
}

/** Returns how many pages another library finds. If they differ, nobody can say what the document is. */
async function pagesByPdfium(bytes: Uint8Array): Promise<number> {
  const doc = await (await pdfium()).loadDocument(bytes);
  const n = doc.getPageCount();
  doc.destroy();
  if (n === 0) throw new Refused({ problem: 'no_pages' });
  if (n > PAPER_LIMITS.pages) throw new Refused({ problem: 'too_many_pages' });
  return n;
}

/** Gives fields an appearance if it was left to the viewer. */
function drawFields(doc: PDFDocument): void {
  const acro = doc.catalog.lookup(key('AcroForm'));
  if (!(acro instanceof PDFDict)) return;
  // Pages of such a form say "please wait"; the form itself is in another language (XFA).
  if (acro.has(key('XFA')) && doc.catalog.lookup(key('NeedsRendering'))?.toString() === 'true')
    throw new Refused({ problem: 'xfa_only' });
  acro.delete(key('XFA'));
  try {
    const form = doc.getForm();
    for (const field of form.getFields())
      if (form.fieldIsDirty(field.ref) || field.acroField.getWidgets().some((w) => !w.dict.has(key('AP'))))
        form.markFieldAsDirty(field.ref);
    form.updateFieldAppearances();
  } catch {
    // A field of a kind we cannot draw keeps its own appearance.
  }
}

/** Annotation flags (ISO 32000-1, table 165). */
const HIDDEN = 1 << 1;
const NO_VIEW = 1 << 5;
/** Annotations that are not part of the page. */
const BESIDE = new Set(['Popup', 'FileAttachment', 'Sound', 'Movie', 'Screen', '3D', 'RichMedia', 'TrapNet', 'Redact']);
const SIDE = new Set(['MediaBox', 'CropBox']);

class Copy {
  private readonly cleaner: Cleaner;
  private readonly scale: Scale;
  private readonly layers: Layers;
  private readonly targets: Links;
  private readonly found: { page: PDFPage; rect: number[]; target: Target }[] = [];

  constructor(
    from: PDFDocument,
    private readonly to: PDFDocument,
    private readonly tally: Tally,
  ) {
    this.layers = new Layers(from);
    tally.add('layers', this.layers.hidden);
    this.cleaner = new Cleaner(from.context, to.context, this.layers);
    this.scale = new Scale((stream) => this.cleaner.unpack(stream, PAPER_LIMITS.content));
    this.targets = new Links(from);
  }

  page(page: PDFPage, n: number): void {
    this.cleaner.page = this.scale.page = n;
    const out = this.to.addPage([1, 1]);
    const { node } = out;
    for (const name of SIDE) node.delete(key(name));
    const box = boxOf(page, 'MediaBox');
    if (!box || !isSize(box)) throw tooOdd(n, box);
    node.set(key('MediaBox'), this.to.context.obj(box));
    const crop = boxOf(page, 'CropBox');
    if (crop && isSize(crop)) node.set(key('CropBox'), this.to.context.obj(crop));
    const turn = page.node.Rotate()?.asNumber() ?? 0;
    if (turn % 90 === 0 && turn % 360 !== 0) node.set(key('Rotate'), PDFNumber.of(((turn % 360) + 360) % 360));
    const unit = page.node.lookup(key('UserUnit'));
    if (unit instanceof PDFNumber && unit.asNumber() > 0 && unit.asNumber() !== 1) {
      if (!isSize(box, unit.asNumber())) throw tooOdd(n, box, unit.asNumber());
      node.set(key('UserUnit'), unit);
    }
    const group = this.cleaner.take(page.node.get(key('Group')), 'group');
    if (group) node.set(key('Group'), group);
    const resources = this.resourcesOf(page);
    this.contents(page, node, resources);
  }

  private resourcesOf(page: PDFPage): PDFDict {
    const taken = this.cleaner.take(page.node.Resources(), 'resources');
    const dict = taken instanceof PDFRef ? this.to.context.lookup(taken) : taken;
    // A copy of the page's own: what is drawn onto it gets a name there.
    const own = PDFDict.withContext(this.to.context);
    if (dict instanceof PDFDict) for (const [name, entry] of dict.entries()) own.set(name, entry);
    return own;
  }

  /** Sets the page's content, with its annotations drawn after it. */
  private contents(page: PDFPage, node: PDFDict, resources: PDFDict): void {
    const streams = streamsOf(page);
    const source = page.node.Resources() ?? null;
    let content = this.cleaner.withoutHidden(joined(streams, this.cleaner), source);
    const count = countContent(content);
    const drawn = this.annotations(page, resources);
    if (drawn.length) {
      const text = `\n${'Q '.repeat(count.open)}Q\n${drawn.map((d) => d.operators).join('\n')}\n`;
      content = new Uint8Array(Buffer.concat([Buffer.from('q\n'), content, Buffer.from(text, 'latin1')]));
      for (const d of drawn) count.draws.set(d.name, 1);
    }
    this.scale.weigh(count, resources);
    node.set(key('Resources'), resources);
    const dict = PDFDict.withContext(this.to.context);
    dict.set(key('Filter'), key('FlateDecode'));
    node.set(key('Contents'), this.to.context.register(PDFRawStream.of(dict, new Uint8Array(deflateSync(content)))));
  }

  /** Returns the appearances of fields and annotations as forms of the page; the rest is counted and left out. */
  private annotations(page: PDFPage, resources: PDFDict): { name: string; operators: string }[] {
    const annots = page.node.Annots();
    const out: { name: string; operators: string }[] = [];
    for (let i = 0; i < (annots?.size() ?? 0); i++) {
      const annot = annots!.lookup(i);
      if (!(annot instanceof PDFDict)) continue;
      const subtype = annot.lookup(key('Subtype'));
      const kind = subtype instanceof PDFName ? subtype.decodeText() : '';
      if (kind === 'Link') {
        this.link(annot);
        continue;
      }
      const flags = Number(annot.lookup(key('F'))?.toString() ?? 0);
      const shown = !(flags & (HIDDEN | NO_VIEW)) && !this.layers.isHidden(annot.lookup(key('OC')));
      const look = shown && !BESIDE.has(kind) ? this.look(annot) : null;
      if (!look) {
        if (kind !== 'Widget' && kind !== 'Popup' && kind !== 'FileAttachment') this.tally.add('notes');
        continue;
      }
      const matrix = placed(annot, look.dict);
      if (!matrix) continue;
      const name = `Drawn${i}`;
      const xobjects = ownMap(resources, 'XObject');
      xobjects.set(key(name), look.ref);
      out.push({ name, operators: `q ${matrix.map(number).join(' ')} cm /${name} Do Q` });
    }
    return out;
  }

  /** Copies the appearance of an annotation in its current state. */
  private look(annot: PDFDict): { ref: PDFRef; dict: PDFDict } | null {
    const ap = annot.lookup(key('AP'));
    if (!(ap instanceof PDFDict)) return null;
    let entry: PDFObject | undefined = ap.lookup(key('N'));
    if (entry instanceof PDFDict && !(entry instanceof PDFStream)) {
      const state = annot.lookup(key('AS'));
      entry = state instanceof PDFName ? entry.lookup(state) : undefined;
    }
    if (!(entry instanceof PDFStream)) return null;
    if (!entry.dict.has(key('Subtype'))) entry.dict.set(key('Subtype'), key('Form'));
    const ref = this.cleaner.take(entry, 'xobject');
    const made = ref instanceof PDFRef ? this.to.context.lookup(ref) : null;
    if (!(ref instanceof PDFRef) || !(made instanceof PDFStream)) return null;
    made.dict.set(key('Type'), key('XObject'));
    return { ref, dict: made.dict };
  }

  private link(annot: PDFDict): void {
    const target = this.targets.targetOf(annot);
    const rect = numbers(annot.lookup(key('Rect')), 4);
    if (!target || !rect) this.tally.add('links');
    else this.found.push({ page: itemAt(this.to.getPages(), this.to.getPageCount() - 1), rect, target });
  }

  /** Makes the links again, once all pages exist. */
  links(): void {
    const { context } = this.to;
    const pages = this.to.getPages();
    for (const { page, rect, target } of this.found) {
      const link = context.obj({ Type: 'Annot', Subtype: 'Link', Rect: rect, Border: [0, 0, 0] });
      if ('page' in target) link.set(key('Dest'), context.obj([itemAt(pages, target.page).ref, 'Fit']));
      else {
        const action = context.obj({ S: 'URI' });
        action.set(key('URI'), PDFString.of(target.address));
        link.set(key('A'), action);
      }
      const annots = page.node.lookup(key('Annots'));
      const list = annots instanceof PDFArray ? annots : PDFArray.withContext(context);
      list.push(context.register(link));
      page.node.set(key('Annots'), list);
    }
  }
}

const number = (n: number) => String(Math.round(n * 100_000) / 100_000);

/** A box as in the file: two corners, in any order. */
type Box = [x0: number, y0: number, x1: number, y1: number];

function numbers(value: PDFObject | undefined, n: number): number[] | null {
  if (!(value instanceof PDFArray) || value.size() < n) return null;
  const out = Array.from({ length: n }, (_, i) => Number(value.lookup(i)?.toString()));
  return out.every(Number.isFinite) ? out : null;
}

function boxIn(value: PDFObject | undefined): Box | null {
  const [x0, y0, x1, y1] = numbers(value, 4) ?? [];
  return x0 === undefined || y0 === undefined || x1 === undefined || y1 === undefined ? null : [x0, y0, x1, y1];
}

function matrixIn(value: PDFObject | undefined): Matrix | null {
  const [a, b, c, d, e, f] = numbers(value, 6) ?? [];
  if (a === undefined || b === undefined || c === undefined) return null;
  return d === undefined || e === undefined || f === undefined ? null : [a, b, c, d, e, f];
}

function boxOf(page: PDFPage, name: 'MediaBox' | 'CropBox'): Box | null {
  const found = page.node.getInheritableAttribute(key(name));
  const value = found instanceof PDFRef ? page.node.context.lookup(found) : found;
  return boxIn(value);
}

const sidesOf = ([x0, y0, x1, y1]: Box) => ({ width: Math.abs(x1 - x0), height: Math.abs(y1 - y0) });

const isSize = (of: Box, unit = 1) =>
  Object.values(sidesOf(of)).every((side) => side * unit >= 3 && side * unit <= PAPER_LIMITS.side);

function tooOdd(page: number, of: Box | null, unit = 1): Refused {
  const { width, height } = of ? sidesOf(of) : { width: 0, height: 0 };
  return new Refused({ problem: 'page_size', page, width: width * unit, height: height * unit });
}

function streamsOf(page: PDFPage): PDFStream[] {
  const contents = page.node.Contents();
  if (contents instanceof PDFStream) return [contents];
  if (!(contents instanceof PDFArray)) return [];
  return contents.asArray().flatMap((_, i) => {
    const s = contents.lookup(i);
    return s instanceof PDFStream ? [s] : [];
  });
}

function joined(streams: PDFStream[], cleaner: Cleaner): Uint8Array {
  let left: number = PAPER_LIMITS.content;
  const parts: Buffer[] = [];
  for (const s of streams) {
    const part = cleaner.unpack(s, left);
    left -= part.length;
    // Operators may not run on from one stream into the next (7.8.2).
    parts.push(Buffer.from(part), Buffer.from('\n'));
  }
  return new Uint8Array(Buffer.concat(parts));
}

function ownMap(resources: PDFDict, category: string): PDFDict {
  const was = resources.lookup(key(category));
  const own = PDFDict.withContext(resources.context);
  if (was instanceof PDFDict) for (const [name, entry] of was.entries()) own.set(name, entry);
  resources.set(key(category), own);
  return own;
}

/** Places an appearance as a viewer would (ISO 32000-1, 12.5.5, algorithm 8.1). */
function placed(annot: PDFDict, look: PDFDict): Matrix | null {
  const rect = boxIn(annot.lookup(key('Rect')));
  const bbox = boxIn(look.lookup(key('BBox')));
  if (!rect || !bbox) return null;
  const [a, b, c, d, e, f] = matrixIn(look.lookup(key('Matrix'))) ?? [1, 0, 0, 1, 0, 0];
  const [x0, y0, x1, y1] = bbox;
  const corners = [x0, x1].flatMap((x) => [y0, y1].map((y) => [a * x + c * y + e, b * x + d * y + f] as const));
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  const bx = Math.min(...xs);
  const by = Math.min(...ys);
  const bw = Math.max(...xs) - bx;
  const bh = Math.max(...ys) - by;
  if (!bw || !bh) return null;
  const { width, height } = sidesOf(rect);
  const sx = width / bw;
  const sy = height / bh;
  return [sx, 0, 0, sy, Math.min(rect[0], rect[2]) - bx * sx, Math.min(rect[1], rect[3]) - by * sy];
}
