/**
 * The signature itself: its field, what it certifies and locks, its byte range, its bytes.
 *
 * A document's first seal certifies it (`DocMDP`, ISO 32000-2, 12.8.2.2): from then on fields may be
 * filled and signed, nothing else. Each seal after it locks the fields it holds (`FieldMDP`, 12.8.2.4),
 * and the last one of a round everything but what is kept for later rounds.
 */
import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { PDFArray, PDFDict, type PDFDocument, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import { buildCms, sealKey, type SealKey } from './cms';
import { FIELD_READ_ONLY, type Form, LOCKED, PRINT, ROUNDS, lockEntries, lockedBy, sealName, spareName } from './form';

/** What a seal says about itself, for viewers and for `verify`. */
export interface Signing {
  keyPem: string;
  certificates: Uint8Array[];
  /** Whose reserved signature field it fills: a party's id, `RECORD_SIGNER` or `CHANGE_SIGNER`. */
  signer: string;
  /** Whose acts it contains: a party, the member who made a correction, or the firm for the record. */
  name: string;
  reason: string;
  /** ISO 8601. */
  at: string;
  /** The event of the packet's chain it belongs to. */
  event: { packetId: string; seq: number; hash: string };
}

/** Signers that are not parties: a round's last seal, and a change after sending. A party's id contains no blank. */
export const RECORD_SIGNER = 'the record';
/** Name of the signature of a correction. */
export const CHANGE_SIGNER = 'a change';

/** A signature field reserved for somebody, with the names of the fields it will lock. */
export interface SavedSignature {
  signer: string;
  /** For screen readers: "Wren Alder, Seller 1". */
  words: string;
  locks: string[];
}

/** Number of signature fields of a round for what nobody could foresee: changes, their initials, people added. */
const SPARE = { own: 4, perSigner: 2, later: 6 };

/** Ten digits hold any offset in a file of up to 10 GB. */
const RANGE_SLOT = '/**********';

/** Reserves a signature field for a party that signs later. Must be called before the first seal. */
export function saveSignature(doc: PDFDocument, form: Form, { signer, words, locks }: SavedSignature): void {
  const field = signatureField(doc);
  field.set(PDFName.of('TU'), PDFHexString.fromText(words));
  // A lock has to be an object of its own (ISO 32000-2, table 235).
  const lock = doc.context.register(doc.context.obj({ Type: 'SigFieldLock', ...lockEntries(locks) }));
  field.set(PDFName.of('Lock'), lock);
  form.add(lastPage(doc), sealName(signer), field);
}

/** Reserves signature fields of each round that belong to nobody yet; `signers` are known to follow. */
export function reserveSpares(doc: PDFDocument, form: Form, signers: number): void {
  for (const [i, round] of ROUNDS.entries()) {
    const spare = i ? SPARE.later : SPARE.own + SPARE.perSigner * signers;
    for (let n = 1; n <= spare; n++) form.add(lastPage(doc), spareName(round, n), signatureField(doc));
  }
}

function lastPage(doc: PDFDocument) {
  return doc.getPage(doc.getPageCount() - 1);
}

/** Returns an invisible signature field. */
function signatureField(doc: PDFDocument): PDFDict {
  return doc.context.obj({
    Type: 'Annot',
    Subtype: 'Widget',
    FT: 'Sig',
    Ff: FIELD_READ_ONLY,
    Rect: [0, 0, 0, 0],
    F: PRINT | LOCKED,
    P: lastPage(doc).ref,
  });
}

/** What a signature says about its document. */
export interface Reach {
  /** Only for the first: whether anything may follow. */
  certifies: 'closed' | 'open' | null;
  /** Names of the fields it locks; a reserved signature field names them itself. */
  locks: string[];
}

/** Adds a signature with room for its bytes to its field. */
export function addSignature(doc: PDFDocument, form: Form, signing: Signing, reach: Reach, key: SealKey): void {
  const { context } = doc;
  const field = form.freeSignature(signing.signer);
  const own = field?.dict.lookup(PDFName.of('Lock'));
  const locks = own instanceof PDFDict ? lockedBy(own) : reach.locks;
  const range = PDFArray.withContext(context);
  range.push(PDFNumber.of(0));
  for (let i = 0; i < 3; i++) range.push(PDFName.of(RANGE_SLOT.slice(1)));
  const signature = context.obj({
    Type: 'Sig',
    Filter: 'Adobe.PPKLite',
    SubFilter: 'ETSI.CAdES.detached',
    ByteRange: range,
    Contents: PDFHexString.of('0'.repeat(cmsLength(key) * 2)),
    ...references(doc, reach.certifies, locks),
    Name: PDFHexString.fromText(signing.name),
    Reason: PDFHexString.fromText(signing.reason),
    M: PDFString.fromDate(new Date(signing.at)),
    // Second-class names (ISO 32000-1, Annex E): which event of the packet's chain this seal is.
    GatePath_Packet: PDFString.of(signing.event.packetId),
    GatePath_Event: PDFNumber.of(signing.event.seq),
    GatePath_Hash: PDFString.of(signing.event.hash),
  });
  const signatureRef = context.register(signature);
  if (field) {
    field.dict.set(PDFName.of('V'), signatureRef);
    context.snapshot?.markRefForSave(field.ref);
  } else {
    const added = signatureField(doc);
    added.set(PDFName.of('V'), signatureRef);
    form.add(lastPage(doc), form.seals ? `Seal ${form.seals + 1}` : sealName(signing.signer), added);
  }
  if (!reach.certifies) return;
  doc.catalog.set(PDFName.of('Perms'), context.obj({ DocMDP: signatureRef }));
  context.snapshot?.markObjsForSave([doc.catalog]);
}

function references(doc: PDFDocument, certifies: Reach['certifies'], locks: string[]) {
  const reference = (method: string, params: Record<string, unknown>) => ({
    Type: 'SigRef',
    TransformMethod: method,
    TransformParams: { Type: 'TransformParams', V: PDFName.of('1.2'), ...params },
  });
  const all = [
    ...(certifies ? [reference('DocMDP', { P: certifies === 'closed' ? 1 : 2 })] : []),
    ...(locks.length
      ? [{ ...reference('FieldMDP', lockEntries(locks)), Data: doc.context.getObjectRef(doc.catalog) }]
      : []),
  ];
  return all.length ? { Reference: all } : {};
}

/** Cached keys: a firm has one, which seals thousands of documents. */
const keys = new LRUCache<string, SealKey>({ max: 2 });

/** Returns the key of a seal, ready to sign with. */
export function keyOf({ keyPem, certificates }: Signing): SealKey {
  const chain = certificates.map((c) => Buffer.from(c));
  const named = [keyPem, ...chain.map((c) => c.toString('base64'))].join('\n');
  let key = keys.get(named);
  if (!key) keys.set(named, (key = sealKey(keyPem, chain)));
  return key;
}

const lengths = new WeakMap<SealKey, number>();

/** Returns the number of bytes a signature by this key takes; it is always the same. */
function cmsLength(key: SealKey): number {
  let n = lengths.get(key);
  if (n === undefined) lengths.set(key, (n = buildCms(Buffer.alloc(32), key).length));
  return n;
}

/** Writes byte range and signature into the newest revision without changing any length. */
export function fillSignature(pdf: Buffer, from: number, key: SealKey): Buffer {
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
