/**
 * What a later state of a PDF changed in an earlier one, object by object: kept fields may be filled
 * and signed, nothing else. `judges.ts` asks a viewer that is not ours; this one also sees when a
 * filled field is moved or shows something else, which that one lets pass.
 */
import { PDFDict, PDFDocument, PDFName, PDFStream, type PDFObject } from '@cantoo/pdf-lib';

/** Entries of a dictionary that filling and signing a form may change. */
function mayChange(dict: PDFDict): string[] {
  const is = (key: string, value: string) => dict.lookup(PDFName.of(key)) === PDFName.of(value);
  if (!is('Subtype', 'Widget')) return [];
  return is('FT', 'Sig') ? ['V'] : ['AP', 'V'];
}

function written(object: PDFObject): string {
  if (object instanceof PDFStream) return Buffer.from(object.getContents()).toString('base64') + object.dict.toString();
  if (!(object instanceof PDFDict)) return object.toString();
  const but = new Set(mayChange(object));
  const entries = object.entries().filter(([k]) => !but.has(k.decodeText()));
  return entries.map(([k, v]) => `${k.toString()} ${v.toString()}`).join('\n');
}

/** Returns one line for each change that is not a filled or signed field; empty if there is none. */
export async function changedBeyondMarks(before: Uint8Array, after: Uint8Array): Promise<string[]> {
  const [a, b] = await Promise.all([before, after].map((x) => PDFDocument.load(x, { updateMetadata: false })));
  const found: string[] = [];
  if (a!.getPageCount() !== b!.getPageCount()) found.push(`${b!.getPageCount() - a!.getPageCount()} pages added`);
  for (const [ref, was] of a!.context.enumerateIndirectObjects()) {
    const is = b!.context.lookup(ref);
    if (!is) found.push(`${ref.toString()} taken away`);
    else if (written(was) !== written(is)) found.push(`${ref.toString()} changed: ${written(was).slice(0, 200)}`);
  }
  return found;
}
