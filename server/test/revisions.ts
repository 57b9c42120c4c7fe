/**
 * What a later state of a PDF changed in an earlier one, read the way a strict viewer reads it
 * (ISO 32000-1, 12.8.2.2): fields may be filled, annotations and seals added, nothing else.
 */
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFStream, type PDFObject } from '@cantoo/pdf-lib';

/** Entries of a dictionary that filling a form and adding annotations may change. */
function mayChange(dict: PDFDict): string[] {
  const is = (key: string, value: string) => dict.lookup(PDFName.of(key)) === PDFName.of(value);
  if (is('Type', 'Page')) return ['Annots'];
  if (is('Type', 'Pages')) return [];
  if (is('Type', 'Catalog')) return ['AcroForm'];
  if (is('Subtype', 'Widget') && !is('FT', 'Sig')) return ['AP', 'V'];
  if (dict.has(PDFName.of('Fields'))) return ['Fields', 'SigFlags', 'DR'];
  return [];
}

function written(object: PDFObject): string {
  if (object instanceof PDFStream) return Buffer.from(object.getContents()).toString('base64') + object.dict.toString();
  if (!(object instanceof PDFDict)) return object.toString();
  const but = new Set(mayChange(object));
  const entries = object.entries().filter(([k]) => !but.has(k.decodeText()));
  return entries.map(([k, v]) => `${k.toString()} ${v.toString()}`).join('\n');
}

/** A line for everything that is not a field filled or an annotation added; empty when there is nothing. */
export async function changedBeyondMarks(before: Uint8Array, after: Uint8Array): Promise<string[]> {
  const [a, b] = await Promise.all([before, after].map((x) => PDFDocument.load(x, { updateMetadata: false })));
  const found: string[] = [];
  if (a!.getPageCount() !== b!.getPageCount()) found.push(`${b!.getPageCount() - a!.getPageCount()} pages added`);
  for (const [ref, was] of a!.context.enumerateIndirectObjects()) {
    const is = b!.context.lookup(ref);
    if (!is) found.push(`${ref.toString()} taken away`);
    else if (was instanceof PDFArray && is instanceof PDFArray && is.toString().startsWith(was.toString().slice(0, -1)))
      continue;
    else if (written(was) !== written(is)) found.push(`${ref.toString()} changed: ${written(was).slice(0, 200)}`);
  }
  return found;
}
