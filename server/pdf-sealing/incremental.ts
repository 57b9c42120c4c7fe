/** Opening a document for an incremental update, with changes recorded as they are made. */
import { PDFDocument, ParseSpeeds, type PDFContext, type PDFObject, type PDFRef } from '@cantoo/pdf-lib';

interface Watched {
  assign(ref: PDFRef, object: PDFObject): void;
  getObjectRef(object: PDFObject): PDFRef | undefined;
  registerObjectChange(object: PDFObject): void;
}

/**
 * Opens a document for an incremental update.
 *
 * The library looks through the whole file for the object that holds what was changed, with every
 * entry that is set anywhere; for a hundred pages that is most of a seal's time. Here each object
 * knows its number. What lies within another object (an array of annotations, say) is marked for
 * saving by whoever changes it.
 *
 * It also counts the catalog as changed, always. In a certified document that is a change nobody
 * allowed (ISO 32000-2, 12.8.2.2), so only what was really marked is written.
 */
export async function openToAppend(bytes: Uint8Array): Promise<PDFDocument> {
  const doc = await PDFDocument.load(bytes, {
    updateMetadata: false,
    forIncrementalUpdate: true,
    parseSpeed: ParseSpeeds.Fastest,
  });
  const context = doc.context as PDFContext & Watched;
  const last = context.largestObjectNumber;
  const changed = new Set<number>();
  Object.assign(context.snapshot!, {
    shouldSave: (n: number) => n > last || changed.has(n),
    markRefsForSave: (marked: (PDFRef | undefined)[]) => {
      for (const ref of marked) if (ref) changed.add(ref.objectNumber);
    },
  });
  const refs = new Map<PDFObject, PDFRef>();
  for (const [ref, object] of context.enumerateIndirectObjects()) refs.set(object, ref);
  const assign = context.assign.bind(context);
  context.assign = (ref, object) => {
    refs.set(object, ref);
    assign(ref, object);
  };
  context.getObjectRef = (object) => refs.get(object);
  context.registerObjectChange = (object) => {
    const ref = refs.get(object);
    if (ref) context.snapshot?.markRefForSave(ref);
  };
  return doc;
}
