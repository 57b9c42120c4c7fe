/**
 * Sealing: every party's finished acts become a revision of the document, appended to what was
 * there (ISO 32000-1, 7.5.6) and digitally signed. Nothing before it is touched, so each earlier
 * state can be cut out of the file and every earlier seal stays valid. The signing record is
 * the last revision.
 */
import { createHash } from 'node:crypto';
import { PDFArray, PDFDict, type PDFDocument, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import { type MarkKind, type Redline, isAutomatic, takesText } from '@gatepath/core/packet';
import type { ShownFill } from '@gatepath/core/packet';
import { buildCms, sealKey, type SealKey } from '../proof/cms';
import { Typesetter } from './fonts';
import { openToAppend } from './incremental';
import { acroForm, annotate, Places } from './places';
import { keepRecordPages, writeRecords, type KeptWords, type RecordContent } from './record';
import { placeOf, stampFills, stampRedlines } from './stamp';

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
  /** What each mark is, by its id, for those who listen. */
  names: Record<string, string>;
  /** With a document's first seal: what is kept free for the seals after it. */
  room: Room | null;
  /** The signing record, once for every language that is spoken in the packet; only with the last seal. */
  records: RecordContent[];
  /** What a page kept for the record says, in those languages. */
  keptWords: KeptWords;
  /** Pictures of hands by fingerprint: PNG bytes. */
  pictures: Record<string, Uint8Array>;
  signing: Signing;
}

/** What the seals after the first will need: so they only fill what was there already. */
export interface Room {
  marks: Pick<ShownFill, 'markId' | 'page' | 'rect' | 'kind' | 'lines'>[];
  /** The record as it may come out. */
  records: RecordContent[];
}

/** Ten digits hold any offset in a file of up to 10 GB. */
const RANGE_SLOT = '/**********';

/** Appends one signed revision to a document: the whole new file. */
export async function seal(task: SealTask): Promise<Uint8Array> {
  const doc = await openToAppend(task.bytes);
  const type = new Typesetter(doc);
  const places = new Places(doc);
  await draw(doc, places, type, task);
  await makeRoom(places, type, task);
  if (task.records.length) await writeRecords(places, type, task.signing.event.packetId, task.records, task.keptWords);
  const key = sealKey(
    task.signing.keyPem,
    task.signing.certificates.map((c) => Buffer.from(c)),
  );
  addSignatureField(doc, places.seals + 1, task.signing, cmsLength(key));
  return fillSignature(await appended(doc, task.bytes), task.bytes.length, key);
}

/** Makes room for what comes after the first seal. A document sealed before has no room left to make. */
async function makeRoom(places: Places, type: Typesetter, task: SealTask): Promise<void> {
  if (!task.room || places.seals) return;
  const now = new Set(task.fills.map((f) => f.markId));
  for (const mark of task.room.marks) {
    if (now.has(mark.markId)) continue;
    const words = task.names[mark.markId] ?? mark.kind;
    places.keep(placeOf(mark), words, holdsText(mark.kind) ? (mark.lines ? 'lines' : 'line') : null);
  }
  await keepRecordPages(places, type, task.signing.event.packetId, task.room.records, task.keptWords);
}

/** Whether a mark shows text that a reader may want to take out again. */
const holdsText = (kind: MarkKind) => takesText(kind) || isAutomatic(kind) || kind === 'file';

export type Copy = Pick<SealTask, 'bytes' | 'fills' | 'redlines' | 'names' | 'pictures'>;

/**
 * A copy with what somebody has put in so far, for them to keep. It is appended too, so that the
 * seals of others on it stay valid; it has none of its own.
 */
export async function copyWith(task: Copy): Promise<Uint8Array> {
  const doc = await openToAppend(task.bytes);
  const type = new Typesetter(doc);
  await draw(doc, new Places(doc), type, task);
  return appended(doc, task.bytes);
}

async function draw(doc: PDFDocument, places: Places, type: Typesetter, task: Copy): Promise<void> {
  await stampRedlines(places, type, task.redlines);
  await stampFills(doc, places, type, task.fills, task.names, task.pictures);
}

/** The file with what was changed in it appended. */
async function appended(doc: PDFDocument, before: Uint8Array): Promise<Buffer> {
  // A worker has nothing else to do meanwhile: it need not pause for others every few objects.
  const added = await doc.saveIncremental(doc.context.snapshot!, { useObjectStreams: false, objectsPerTick: Infinity });
  const whole = Buffer.alloc(before.length + added.length);
  whole.set(before);
  whole.set(added, before.length);
  return whole;
}

const lengths = new WeakMap<SealKey, number>();

/** Bytes a signature by this key takes: always the same, so that no room is kept in vain. */
function cmsLength(key: SealKey): number {
  let n = lengths.get(key);
  if (n === undefined) lengths.set(key, (n = buildCms(Buffer.alloc(32), key).length));
  return n;
}

/** An invisible signature field on the last page, with room left for the signature. */
function addSignatureField(doc: PDFDocument, number: number, signing: Signing, length: number): void {
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
    T: PDFHexString.fromText(`Seal ${number}`),
    V: signatureRef,
    P: page.ref,
  });
  const widgetRef = context.register(widget);
  annotate(doc, page, widgetRef);
  fields.push(widgetRef);
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
