/** Sealing: marks made part of the pages, the record appended, and the whole digitally signed. */
import { createHash } from 'node:crypto';
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import type { Redline } from '@gatepath/core/marks';
import type { ShownFill } from '@gatepath/contract';
import { buildCms, sealKey, type SealKey } from '../proof/cms';
import { Typesetter } from './fonts';
import { appendRecord, type RecordContent } from './record';
import { stampFills, stampRedlines } from './stamp';

export interface SealTask {
  /** The prepared document. */
  bytes: Uint8Array;
  fills: ShownFill[];
  redlines: Redline[];
  record: RecordContent;
  signing: { keyPem: string; certificates: Uint8Array[]; name: string; reason: string; at: string };
}

/** Bytes kept for the signature; a certificate with a chain of three takes about five thousand. */
const CONTENTS_BYTES = 12_288;
/** Ten digits hold any offset in a file of up to 10 GB. */
const RANGE_SLOT = '/**********';

/** Makes the sealed copy of one document. */
export async function seal(task: SealTask): Promise<Uint8Array> {
  const doc = await PDFDocument.load(task.bytes, { updateMetadata: false });
  const type = new Typesetter(doc);
  await stampRedlines(doc, type, task.redlines);
  await stampFills(doc, type, task.fills);
  await appendRecord(doc, type, task.record);
  doc.setProducer('Gate Path');
  doc.setModificationDate(new Date(task.signing.at));
  addSignatureField(doc, task.signing);
  const bytes = await doc.save({ useObjectStreams: false, updateFieldAppearances: false });
  const key = sealKey(
    task.signing.keyPem,
    task.signing.certificates.map((c) => Buffer.from(c)),
  );
  return fillSignature(Buffer.from(bytes), key);
}

/** An invisible signature field on the last page, with room left for the signature. */
function addSignatureField(doc: PDFDocument, signing: SealTask['signing']): void {
  const { context } = doc;
  const range = PDFArray.withContext(context);
  range.push(PDFNumber.of(0));
  for (let i = 0; i < 3; i++) range.push(PDFName.of(RANGE_SLOT.slice(1)));
  const signature = context.obj({
    Type: 'Sig',
    Filter: 'Adobe.PPKLite',
    SubFilter: 'ETSI.CAdES.detached',
    ByteRange: range,
    Contents: PDFHexString.of('0'.repeat(CONTENTS_BYTES * 2)),
    Name: PDFHexString.fromText(signing.name),
    Reason: PDFHexString.fromText(signing.reason),
    M: PDFString.fromDate(new Date(signing.at)),
  }) as PDFDict;
  const signatureRef = context.register(signature);
  const pages = doc.getPages();
  const page = pages[pages.length - 1]!;
  const widget = context.obj({
    Type: 'Annot',
    Subtype: 'Widget',
    FT: 'Sig',
    Rect: [0, 0, 0, 0],
    // Print and locked (ISO 32000-1, 12.5.3).
    F: 132,
    T: PDFHexString.fromText('Seal'),
    V: signatureRef,
    P: page.ref,
  });
  const widgetRef = context.register(widget);
  page.node.addAnnot(widgetRef);
  doc.catalog.set(PDFName.of('AcroForm'), context.register(context.obj({ Fields: [widgetRef], SigFlags: 3 })));
}

/** Writes the byte range and the signature into their places, changing no length. */
export function fillSignature(pdf: Buffer, key: SealKey): Buffer {
  const text = pdf.toString('latin1');
  const rangeAt = text.lastIndexOf(`${RANGE_SLOT} ${RANGE_SLOT} ${RANGE_SLOT}`);
  if (rangeAt < 0) throw new Error('no place for the byte range');
  const contentsKey = text.indexOf('/Contents <', rangeAt);
  const open = contentsKey + '/Contents '.length;
  const close = text.indexOf('>', open);
  if (contentsKey < 0 || close < 0) throw new Error('no place for the signature');
  const after = close + 1;
  const numbers = `${open} ${after} ${pdf.length - after}`;
  const slot = RANGE_SLOT.length * 3 + 2;
  pdf.write(numbers.padEnd(slot, ' '), rangeAt, 'latin1');
  const digest = createHash('sha256').update(pdf.subarray(0, open)).update(pdf.subarray(after)).digest();
  const hex = buildCms(digest, key).toString('hex');
  if (hex.length > close - open - 1) throw new Error('the certificates are too large for the seal');
  pdf.write(hex, open + 1, 'latin1');
  return pdf;
}
