/** Counting what a stranger's file contains besides its pages, to report what was left out. */
import { PDFArray, PDFDict, PDFName, PDFStream, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';
import type { LeftOut, LeftOutKind } from '@gatepath/contract';

const MEDIA = new Set(['Movie', 'Screen', 'Sound', '3D', 'RichMedia']);
const ACTIONS = new Set([
  'Launch',
  'GoToR',
  'GoToE',
  'SubmitForm',
  'ImportData',
  'ResetForm',
  'Rendition',
  'RichMediaExecute',
  'GoTo3DView',
  'Movie',
  'Sound',
  'Hide',
  'SetOCGState',
  'Trans',
  'Thread',
]);

/** Counts by kind. */
export class Tally {
  private readonly n = new Map<LeftOutKind, number>();

  add(what: LeftOutKind, n = 1): void {
    if (n > 0) this.n.set(what, (this.n.get(what) ?? 0) + n);
  }

  get list(): LeftOut[] {
    return [...this.n].map(([what, n]) => ({ what, n }));
  }
}

/** Counts every object of a file, direct ones too. */
export function tallyActive(doc: PDFDocument, tally: Tally): void {
  const name = (d: PDFDict, k: string) => {
    const v = d.get(PDFName.of(k));
    return v instanceof PDFName ? v.decodeText() : null;
  };
  const look = (object: PDFObject, depth: number): void => {
    if (depth > 40) return;
    const dict = object instanceof PDFStream ? object.dict : object;
    if (dict instanceof PDFArray) {
      for (const item of dict.asArray()) if (item instanceof PDFDict || item instanceof PDFArray) look(item, depth + 1);
      return;
    }
    if (!(dict instanceof PDFDict)) return;
    const s = name(dict, 'S');
    if (s === 'JavaScript' || (dict.has(PDFName.of('JS')) && s !== 'Rendition')) tally.add('scripts');
    else if (s && ACTIONS.has(s)) tally.add('actions');
    if (dict.has(PDFName.of('EF'))) tally.add('attachments');
    const subtype = name(dict, 'Subtype');
    if (subtype && MEDIA.has(subtype)) tally.add('media');
    if (dict.has(PDFName.of('XFA'))) tally.add('xfa');
    if (dict.has(PDFName.of('ByteRange')) && dict.has(PDFName.of('Contents'))) tally.add('signatures');
    for (const [, entry] of dict.entries())
      if (entry instanceof PDFDict || entry instanceof PDFArray) look(entry, depth + 1);
  };
  for (const [, object] of doc.context.enumerateIndirectObjects()) look(object, 0);
}
