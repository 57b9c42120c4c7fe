/**
 * Sealing: every party's finished acts become a revision of the document, appended to what was
 * there (ISO 32000-1, 7.5.6) and digitally signed. Nothing before it is touched, so each earlier
 * state can be cut out of the file and every earlier seal stays valid. The signing record is
 * the last revision.
 */
import type { PDFDocument } from '@cantoo/pdf-lib';
import { type MarkKind, type Redline, isAutomatic, takesText } from '@gatepath/core/packet';
import type { PlanDocument, ShownFill } from '@gatepath/core/packet';
import { sizes } from './compose';
import { Typesetter } from '../typesetting/fonts';
import { Form, markName } from './form';
import { openToAppend } from './incremental';
import { Spots } from './spots';
import { emptyRecord, reserveRecordPages, writeRecords, type RecordPageWords, type RecordContent } from './record';
import {
  RECORD_SIGNER,
  addSignature,
  fillSignature,
  saveSignature,
  reserveSpares,
  keyOf,
  type Signing,
} from './signature';
import { spotOf, stampFills, stampRedlines } from './stamp';

export type { Signing } from './signature';

/** What to add to a file in one revision. */
export interface SealTask {
  /** The document as it is: as sent, or after its latest seal. */
  bytes: Uint8Array;
  fills: ShownFill[];
  redlines: Redline[];
  /** What each mark is, by its id, for screen readers. */
  names: Record<string, string>;
  /** With a document's first seal: what is reserved for later ones. Without it, nothing may follow. */
  room: Room | null;
  /** The signing record, once per language of the packet; only with the last seal. */
  records: RecordContent[];
  /** What a reserved record page says, in those languages. */
  recordPageWords: RecordPageWords;
  /** Pictures of hands by fingerprint, as PNG. */
  pictures: Record<string, Uint8Array>;
  signing: Signing;
}

/** What later seals will need, so that they only fill what exists. */
export interface Room {
  marks: (Pick<ShownFill, 'markId' | 'page' | 'rect' | 'kind' | 'lines'> & { partyId: string })[];
  /** The signers to come, with their name and side. */
  signers: { partyId: string; words: string }[];
  /** The record as it may become. */
  records: RecordContent[];
}

/** The result of sealing. */
export interface Sealed {
  bytes: Uint8Array;
  /** The signing record as a file of its own, if the document has no pages for it. */
  record: { bytes: Uint8Array; pages: PlanDocument['pages'] } | null;
}

/** Appends one signed revision to a document. Returns the whole new file. */
export async function seal(task: SealTask): Promise<Sealed> {
  const doc = await openToAppend(task.bytes);
  const type = new Typesetter(doc);
  const form = new Form(doc);
  const spots = new Spots(doc, form);
  const isFirst = !form.seals;
  const { packetId } = task.signing.event;
  await draw(doc, spots, type, task);
  if (isFirst && task.room) await makeRoom(doc, spots, type, task.room, task);
  const apart = task.records.length
    ? !(await writeRecords(spots, type, packetId, task.records, task.recordPageWords, isFirst || !form.certified))
    : false;
  spots.finish();
  const key = keyOf(task.signing);
  const certifies = isFirst ? (task.room ? 'open' : 'closed') : null;
  addSignature(doc, form, task.signing, { certifies, locks: locksOf(form, spots, task) }, key);
  return {
    bytes: fillSignature(await appended(doc, task.bytes), task.bytes.length, key),
    record: apart ? await recordApart(task) : null,
  };
}

/** Returns what a seal locks: the reserved fields it filled or, as the last of its round, everything of the round. */
function locksOf(form: Form, spots: Spots, task: SealTask): string[] {
  const round = form.round();
  if (task.records.length && round) return form.openIn(round);
  return form.certified ? spots.filled : [];
}

/** Returns the signing record as a document of its own, sealed and closed. */
async function recordApart(task: SealTask): Promise<Sealed['record']> {
  const empty = await emptyRecord();
  const { bytes } = await seal({ ...task, bytes: empty, fills: [], redlines: [], room: null });
  return { bytes, pages: await sizes(bytes) };
}

/** Reserves what later seals need. */
async function makeRoom(doc: PDFDocument, spots: Spots, type: Typesetter, room: Room, task: SealTask): Promise<void> {
  const now = new Set(task.fills.map((f) => f.markId));
  const marks = room.marks.filter((m) => !now.has(m.markId));
  for (const mark of marks) {
    const words = task.names[mark.markId] ?? mark.kind;
    spots.keep(spotOf(mark), words, holdsText(mark.kind) ? (mark.lines ? 'lines' : 'line') : null);
  }
  await reserveRecordPages(spots, type, task.signing.event.packetId, room.records, task.recordPageWords);
  spots.reserveRooms();
  const own = (partyId: string) => marks.filter((m) => m.partyId === partyId).map((m) => markName(m.markId));
  const { signer } = task.signing;
  const to = room.signers.filter((s) => s.partyId !== signer);
  reserveSpares(doc, spots.form, to.length);
  for (const { partyId, words } of to) saveSignature(doc, spots.form, { signer: partyId, words, locks: own(partyId) });
  const atEnd = spots.form.openIn('Unforeseen');
  saveSignature(doc, spots.form, { signer: RECORD_SIGNER, words: 'Signing record', locks: atEnd });
}

/** Returns whether a mark shows text that a reader may want to extract. */
const holdsText = (kind: MarkKind) => takesText(kind) || isAutomatic(kind) || kind === 'file';

/** What is drawn on a copy that is not signed. */
export type Copy = Pick<SealTask, 'bytes' | 'fills' | 'redlines' | 'names' | 'pictures'>;

/**
 * Returns a copy with what somebody has put on it so far. It is appended too, so that the seals of others stay valid;
 * it has none of its own.
 */
export async function copyWith(task: Copy): Promise<Uint8Array> {
  const doc = await openToAppend(task.bytes);
  const type = new Typesetter(doc);
  const spots = new Spots(doc, new Form(doc));
  await draw(doc, spots, type, task);
  spots.finish();
  return appended(doc, task.bytes);
}

async function draw(doc: PDFDocument, spots: Spots, type: Typesetter, task: Copy): Promise<void> {
  await stampRedlines(spots, type, task.redlines);
  await stampFills(doc, spots, type, task.fills, task.names, task.pictures);
}

/** Returns the file with its changes appended. */
async function appended(doc: PDFDocument, before: Uint8Array): Promise<Buffer> {
  // A worker has nothing else to do meanwhile: it need not pause for others every few objects.
  const added = await doc.saveIncremental(doc.context.snapshot!, { useObjectStreams: false, objectsPerTick: Infinity });
  const whole = Buffer.alloc(before.length + added.length);
  whole.set(before);
  whole.set(added, before.length);
  return whole;
}
