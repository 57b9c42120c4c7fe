/**
 * Preparing an original once, on import: form fields become part of the page, scripts and
 * actions go. What is prepared is what is drawn, shown, signed and sealed; the original stays.
 */
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFRef,
  PDFStream,
  concatTransformationMatrix,
  drawObject,
  popGraphicsState,
  pushGraphicsState,
  type PDFObject,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { pdfium } from './draw';
import { spaceOfPage } from './space';

export type PrepareProblem = 'not_pdf' | 'locked' | 'broken' | 'no_pages' | 'too_many_pages';

export type Prepared =
  | { ok: true; bytes: Uint8Array; pages: { width: number; height: number }[]; flattened: number }
  | { ok: false; problem: PrepareProblem };

const MAX_PAGES = 1000;

/** Checks and prepares the bytes of an uploaded file. */
export async function prepare(original: Uint8Array, at: (where: string) => void = () => undefined): Promise<Prepared> {
  at('its pages');
  // Readers accept the header anywhere in the first kilobyte (ISO 32000-1, Annex H).
  if (!Buffer.from(original.subarray(0, 1024)).includes('%PDF-')) return { ok: false, problem: 'not_pdf' };
  let pageCount: number;
  try {
    const doc = await (await pdfium()).loadDocument(original);
    pageCount = doc.getPageCount();
    doc.destroy();
  } catch (error) {
    const locked = /password|security/i.test(String(error));
    return { ok: false, problem: locked ? 'locked' : 'broken' };
  }
  if (pageCount === 0) return { ok: false, problem: 'no_pages' };
  if (pageCount > MAX_PAGES) return { ok: false, problem: 'too_many_pages' };
  let doc: PDFDocument;
  try {
    doc = await PDFDocument.load(original, { updateMetadata: false, throwOnInvalidObject: false });
    if (doc.isEncrypted) return { ok: false, problem: 'locked' };
    if (doc.getPageCount() !== pageCount) return { ok: false, problem: 'broken' };
  } catch (error) {
    return { ok: false, problem: /encrypt/i.test(String(error)) ? 'locked' : 'broken' };
  }
  try {
    const flattened = flattenForm(doc);
    removeActions(doc);
    const pages = doc.getPages().map((p) => {
      const s = spaceOfPage(p);
      return { width: round(s.width), height: round(s.height) };
    });
    const bytes = await doc.save({ useObjectStreams: false, updateFieldAppearances: false });
    return { ok: true, bytes, pages, flattened };
  } catch {
    return { ok: false, problem: 'broken' };
  }
}

const round = (n: number) => Math.round(n * 1000) / 1000;

/** Draws every field's appearance onto its page and removes the form. Returns the number of widgets. */
function flattenForm(doc: PDFDocument): number {
  const acro = doc.catalog.lookup(PDFName.of('AcroForm'));
  if (acro instanceof PDFDict) {
    acro.delete(PDFName.of('XFA'));
    try {
      // Fields whose look was left to the viewer get one now.
      const form = doc.getForm();
      for (const field of form.getFields()) {
        if (form.fieldIsDirty(field.ref) || fieldLacksLook(field.acroField.getWidgets().map((w) => w.dict)))
          form.markFieldAsDirty(field.ref);
      }
      form.updateFieldAppearances();
    } catch {
      // A field of a kind we cannot draw keeps the look it came with.
    }
  }
  let n = 0;
  for (const page of doc.getPages()) n += flattenPage(doc, page);
  doc.catalog.delete(PDFName.of('AcroForm'));
  return n;
}

function fieldLacksLook(widgets: PDFDict[]): boolean {
  return widgets.some((w) => !w.has(PDFName.of('AP')));
}

/** Annotation flags (ISO 32000-1, table 165). */
const HIDDEN = 1 << 1;
const NO_VIEW = 1 << 5;

function flattenPage(doc: PDFDocument, page: PDFPage): number {
  const annots = page.node.Annots();
  if (!annots) return 0;
  const keep = doc.context.obj([]);
  let n = 0;
  for (let i = 0; i < annots.size(); i++) {
    const ref = annots.get(i);
    const annot = annots.lookup(i);
    if (!(annot instanceof PDFDict)) continue;
    if (annot.lookup(PDFName.of('Subtype')) !== PDFName.of('Widget')) {
      keep.push(ref);
      continue;
    }
    n++;
    const flags = Number(annot.lookup(PDFName.of('F'))?.toString() ?? 0);
    if (flags & (HIDDEN | NO_VIEW)) continue;
    const look = lookOf(doc, annot);
    if (look) drawLook(page, annot, look);
  }
  if (keep.size()) page.node.set(PDFName.of('Annots'), keep);
  else page.node.delete(PDFName.of('Annots'));
  return n;
}

/** The normal appearance stream of a widget, for the state it is in. */
function lookOf(doc: PDFDocument, annot: PDFDict): { ref: PDFRef; stream: PDFStream } | null {
  const ap = annot.lookup(PDFName.of('AP'));
  if (!(ap instanceof PDFDict)) return null;
  let entry: PDFObject | undefined = ap.get(PDFName.of('N'));
  let target = entry instanceof PDFRef ? doc.context.lookup(entry) : entry;
  if (target instanceof PDFDict && !(target instanceof PDFStream)) {
    const state = annot.lookup(PDFName.of('AS'));
    if (!(state instanceof PDFName)) return null;
    entry = target.get(state);
    target = entry instanceof PDFRef ? doc.context.lookup(entry) : entry;
  }
  return entry instanceof PDFRef && target instanceof PDFStream ? { ref: entry, stream: target } : null;
}

/** Places an appearance as a viewer would (ISO 32000-1, 12.5.5, algorithm 8.1). */
function drawLook(page: PDFPage, annot: PDFDict, look: { ref: PDFRef; stream: PDFStream }): void {
  const rect = numbers(annot.lookup(PDFName.of('Rect')), 4);
  const bbox = numbers(look.stream.dict.lookup(PDFName.of('BBox')), 4);
  if (!rect || !bbox) return;
  const m = numbers(look.stream.dict.lookup(PDFName.of('Matrix')), 6) ?? [1, 0, 0, 1, 0, 0];
  const xs: number[] = [];
  const ys: number[] = [];
  for (const x of [bbox[0]!, bbox[2]!])
    for (const y of [bbox[1]!, bbox[3]!]) {
      xs.push(m[0]! * x + m[2]! * y + m[4]!);
      ys.push(m[1]! * x + m[3]! * y + m[5]!);
    }
  const bx = Math.min(...xs);
  const by = Math.min(...ys);
  const bw = Math.max(...xs) - bx;
  const bh = Math.max(...ys) - by;
  if (!bw || !bh) return;
  const rx = Math.min(rect[0]!, rect[2]!);
  const ry = Math.min(rect[1]!, rect[3]!);
  const sx = Math.abs(rect[2]! - rect[0]!) / bw;
  const sy = Math.abs(rect[3]! - rect[1]!) / bh;
  look.stream.dict.set(PDFName.of('Type'), PDFName.of('XObject'));
  look.stream.dict.set(PDFName.of('Subtype'), PDFName.of('Form'));
  const name = page.node.newXObject('Field', look.ref);
  page.pushOperators(
    pushGraphicsState(),
    concatTransformationMatrix(sx, 0, 0, sy, rx - bx * sx, ry - by * sy),
    drawObject(name),
    popGraphicsState(),
  );
}

function numbers(value: PDFObject | undefined, n: number): number[] | null {
  if (!(value instanceof PDFArray) || value.size() < n) return null;
  const out = value.asArray().map((v) => Number(v.toString()));
  return out.every(Number.isFinite) ? out : null;
}

/** Kinds of action that can run something or send something away (ISO 32000-1, 12.6.4). */
const DANGEROUS = new Set([
  'JavaScript',
  'Launch',
  'SubmitForm',
  'ImportData',
  'ResetForm',
  'Rendition',
  'RichMediaExecute',
  'GoToE',
]);

/** Takes scripts and actions out of the whole file; plain links within it and to the web stay. */
function removeActions(doc: PDFDocument): void {
  for (const key of ['OpenAction', 'AA', 'JavaScript']) doc.catalog.delete(PDFName.of(key));
  const names = doc.catalog.lookup(PDFName.of('Names'));
  if (names instanceof PDFDict) names.delete(PDFName.of('JavaScript'));
  for (const page of doc.getPages()) page.node.delete(PDFName.of('AA'));
  const dropped: PDFRef[] = [];
  for (const [ref, object] of doc.context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFDict)) continue;
    object.delete(PDFName.of('AA'));
    const action = object.lookup(PDFName.of('A'));
    if (action instanceof PDFDict && isDangerous(action)) object.delete(PDFName.of('A'));
    if (isDangerous(object)) dropped.push(ref);
  }
  for (const ref of dropped) doc.context.delete(ref);
}

function isDangerous(dict: PDFDict): boolean {
  const s = dict.lookup(PDFName.of('S'));
  return s instanceof PDFName && DANGEROUS.has(s.decodeText());
}
