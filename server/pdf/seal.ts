/**
 * Sealing: every party's finished acts become a revision of the document, appended to what was
 * there (ISO 32000-1, 7.5.6) and digitally signed. Nothing before it is touched, so each earlier
 * state can be cut out of the file and every earlier seal stays valid. The signing record is
 * the last revision.
 */
import { createHash } from 'node:crypto';
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import type { Redline } from '@gatepath/core/marks';
import type { ShownFill } from '@gatepath/contract';
import { buildCms, sealKey, type SealKey } from '../proof/cms';
import { Typesetter } from './fonts';
import { appendRecord, type RecordContent } from './record';
import { stampFills, stampRedlines } from './stamp';

/** What a seal says about itself, for whoever opens the file and for `verify`. */
export interface Signing {
  keyPem: string;
  certificates: Uint8Array[];
  /** Whose acts it holds: a party, the member who made a correction, or the firm for the record. */
  name: string;
  reason: string;
  /** ISO 8601. */
  at: string;
  /** The event of the packet's chain it stands for. */
  event: { packetId: string; seq: number; hash: string };
}

export interface SealTask {
  /** The document as it is: as it was sent, or after its latest seal. */
  bytes: Uint8Array;
  fills: ShownFill[];
  redlines: Redline[];
  /** The signing record, once for every language that is spoken in the packet; only with the last seal. */
  records: RecordContent[];
  /** Pictures of hands by fingerprint: PNG bytes. */
  pictures: Record<string, Uint8Array>;
  signing: Signing;
}

/** Ten digits hold any offset in a file of up to 10 GB. */
const RANGE_SLOT = '/**********';

/** Appends one signed revision to a document: the whole new file. */
export async function seal(task: SealTask): Promise<Uint8Array> {
  const doc = await PDFDocument.load(task.bytes, { updateMetadata: false, forIncrementalUpdate: true });
  const type = new Typesetter(doc);
  await stampRedlines(doc, type, task.redlines);
  await stampFills(doc, type, task.fills, task.pictures);
  for (const record of task.records) await appendRecord(doc, type, record);
  const key = sealKey(
    task.signing.keyPem,
    task.signing.certificates.map((c) => Buffer.from(c)),
  );
  addSignatureField(doc, task.signing, cmsLength(key));
  const added = await doc.saveIncremental(doc.context.snapshot!, { useObjectStreams: false });
  const whole = Buffer.alloc(task.bytes.length + added.length);
  whole.set(task.bytes);
  whole.set(added, task.bytes.length);
  return fillSignature(whole, task.bytes.length, key);
}

/** Draws fills onto a plain copy, for somebody who wants to keep what they have signed so far. Not sealed. */
export async function copyWith(task: Pick<SealTask, 'bytes' | 'fills' | 'redlines' | 'pictures'>): Promise<Uint8Array> {
  const doc = await PDFDocument.load(task.bytes, { updateMetadata: false });
  const type = new Typesetter(doc);
  await stampRedlines(doc, type, task.redlines);
  await stampFills(doc, type, task.fills, task.pictures);
  return doc.save({ useObjectStreams: false, updateFieldAppearances: false });
}

const lengths = new WeakMap<SealKey, number>();

/** Bytes a signature by this key takes: always the same, so that no room is kept in vain. */
function cmsLength(key: SealKey): number {
  let n = lengths.get(key);
  if (n === undefined) lengths.set(key, (n = buildCms(Buffer.alloc(32), key).length));
  return n;
}

/** An invisible signature field on the last page, with room left for the signature. */
function addSignatureField(doc: PDFDocument, signing: Signing, length: number): void {
  const { context } = doc;
  const range = PDFArray.withContext(context);
  range.push(PDFNumber.of(0));
  for (let i = 0; i < 3; i++) range.push(PDFName.of(RANGE_SLOT.slice(1)));
  const signature = context.obj({
    Type: 'Sig',
    Filter: 'Adobe.PPKLite',
    SubFilter: 'ETSI.CAdES.detached',
    ByteRange: range,
    Contents: PDFHexString.of('0'.repeat(length * 2)),
    Name: PDFHexString.fromText(signing.name),
    Reason: PDFHexString.fromText(signing.reason),
    M: PDFString.fromDate(new Date(signing.at)),
    // Second-class names (ISO 32000-1, Annex E): which event of the packet's chain this seal is.
    GatePath_Packet: PDFString.of(signing.event.packetId),
    GatePath_Event: PDFNumber.of(signing.event.seq),
    GatePath_Hash: PDFString.of(signing.event.hash),
  }) as PDFDict;
  const signatureRef = context.register(signature);
  const pages = doc.getPages();
  const page = pages[pages.length - 1]!;
  const acro = acroForm(doc);
  const fields = acro.lookup(PDFName.of('Fields'), PDFArray);
  const widget = context.obj({
    Type: 'Annot',
    Subtype: 'Widget',
    FT: 'Sig',
    Rect: [0, 0, 0, 0],
    // Print and locked (ISO 32000-1, 12.5.3).
    F: 132,
    T: PDFHexString.fromText(`Seal ${fields.size() + 1}`),
    V: signatureRef,
    P: page.ref,
  });
  const widgetRef = context.register(widget);
  page.node.addAnnot(widgetRef);
  fields.push(widgetRef);
  const snapshot = context.snapshot!;
  snapshot.markRefsForSave([page.ref]);
  snapshot.markObjsForSave([acro, fields, doc.catalog, page.node]);
  const annots = page.node.Annots();
  if (annots) snapshot.markObjForSave(annots);
}

/** The document's form, made when there is none. */
function acroForm(doc: PDFDocument): PDFDict {
  const { context } = doc;
  const name = PDFName.of('AcroForm');
  const was = doc.catalog.lookup(name);
  const acro = was instanceof PDFDict ? was : (context.obj({}) as PDFDict);
  if (!(acro.lookup(PDFName.of('Fields')) instanceof PDFArray)) acro.set(PDFName.of('Fields'), context.obj([]));
  acro.set(PDFName.of('SigFlags'), PDFNumber.of(3));
  if (acro !== was) doc.catalog.set(name, context.register(acro));
  return acro;
}

/** Writes the byte range and the signature into the places of the newest revision, changing no length. */
function fillSignature(pdf: Buffer, from: number, key: SealKey): Buffer {
  const at = (what: string, start: number) => pdf.indexOf(what, start, 'latin1');
  const rangeAt = at(`${RANGE_SLOT} ${RANGE_SLOT} ${RANGE_SLOT}`, from);
  if (rangeAt < 0) throw new Error('no place for the byte range');
  const contentsKey = at('/Contents <', rangeAt);
  const open = contentsKey + '/Contents '.length;
  const close = at('>', open);
  if (contentsKey < 0 || close < 0) throw new Error('no place for the signature');
  const after = close + 1;
  const numbers = `${open} ${after} ${pdf.length - after}`;
  const slot = RANGE_SLOT.length * 3 + 2;
  pdf.write(numbers.padEnd(slot, ' '), rangeAt, 'latin1');
  const digest = createHash('sha256').update(pdf.subarray(0, open)).update(pdf.subarray(after)).digest();
  const hex = buildCms(digest, key).toString('hex');
  if (hex.length !== close - open - 1) throw new Error('the signature does not fit its place');
  pdf.write(hex, open + 1, 'latin1');
  return pdf;
}
