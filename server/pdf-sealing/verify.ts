/** Whether a sealed copy is whole, and what its revisions say: who sealed what when. */
import { createHash, type X509Certificate } from 'node:crypto';
import type { VerifiedRevision } from '@gatepath/contract';
import { sizes } from './compose';
import { verifyCms } from './cms';
import { itemAt, lastOf } from '@gatepath/core/sure';

/** One signed revision of a file, with what only this side needs to know of it. */
export interface RevisionVerification extends VerifiedRevision {
  /** Who vouches for the certificate. */
  issuer: string | null;
  /** The event of the packet's chain it stands for. */
  event: { packetId: string; seq: number; hash: string } | null;
  /** The byte ranges the signature covers. */
  covers: [number, number, number, number];
}

/** The most seals a file may carry: a packet has at most 60 parties, who are asked again for each change. */
const MOST_SEALS = 400;

/** The verification of a sealed copy. */
export interface SealVerification {
  whole: boolean;
  why: string;
  revisions: RevisionVerification[];
  /** SHA-256 of what stood there before the first seal, with none, one and two ends of line behind it. */
  before: string[];
}

const sha256 = (data: Uint8Array) => createHash('sha256').update(data).digest('hex');

/** Checks the bytes of a PDF. Any change since the last seal, appended bytes included, is found. */
export function verifySealed(pdf: Buffer): SealVerification {
  const nothing = (why: string): SealVerification => ({ whole: false, why, revisions: [], before: [] });
  const text = pdf.toString('latin1');
  if (!text.startsWith('%PDF-')) return nothing('this is not a PDF');
  const ranges: RegExpExecArray[] = [];
  for (const match of text.matchAll(/\/ByteRange \[ ?(\d{1,12}) (\d{1,12}) (\d{1,12}) (\d{1,12}) {0,40}\]/g)) {
    // Each is a signature over everything before it.
    if (ranges.push(match) > MOST_SEALS) return nothing(`it claims to carry more than ${MOST_SEALS} seals`);
  }
  if (!ranges.length) return nothing('it carries no seal, or the seal was damaged');
  const revisions: RevisionVerification[] = [];
  const prefix = new Prefix(pdf);
  for (const match of ranges) {
    const start = revisions[revisions.length - 1]?.end ?? 0;
    revisions.push(verifyRevision(prefix, text, match, revisions.length + 1, start));
  }
  const first = itemAt(ranges, 0).index;
  const bad = revisions.find((r) => !r.whole);
  const last = lastOf(revisions);
  const why = bad
    ? revisions.length > 1
      ? `seal ${bad.n}: ${bad.why}`
      : bad.why
    : last.end !== pdf.length
      ? 'something was added after it was sealed'
      : '';
  return { whole: !why, why, revisions, before: startsBefore(pdf, text.lastIndexOf('%%EOF', first)) };
}

/** Verifies a sealed copy like `verifySealed`, and returns the number of pages of each intact revision too. */
export async function verifyCopy(bytes: Uint8Array): Promise<{ check: SealVerification; pages: (number | null)[] }> {
  const pdf = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const check = verifySealed(pdf);
  const pages: (number | null)[] = [];
  for (const r of check.revisions)
    pages.push(
      r.whole
        ? await sizes(new Uint8Array(pdf.subarray(0, r.end))).then(
            (p) => p.length,
            () => null,
          )
        : null,
    );
  return { check, pages };
}

/**
 * Returns the hashes the file may have had before the first seal: up to an end-of-file mark, without and with a line
 * break of one or two bytes.
 */
function startsBefore(pdf: Buffer, mark: number): string[] {
  if (mark < 0) return [];
  return [5, 6, 7].map((n) => sha256(pdf.subarray(0, mark + n)));
}

/** The hash of a file's beginnings, each going on from the one before: a file of 400 seals is gone through once. */
class Prefix {
  private readonly hash = createHash('sha256');
  private at = 0;

  constructor(readonly pdf: Buffer) {}

  /** Returns the hash of the file up to a byte, which must not be before the one asked for last. */
  upTo(end: number) {
    if (end < this.at) throw new RangeError('the hash of a file only goes on');
    this.hash.update(this.pdf.subarray(this.at, end));
    this.at = end;
    return this.hash.copy();
  }
}

function verifyRevision(
  prefix: Prefix,
  text: string,
  match: RegExpMatchArray & { index?: number },
  n: number,
  start: number,
): RevisionVerification {
  const [a = 0, b = 0, c = 0, d = 0] = match.slice(1).map(Number);
  const { pdf } = prefix;
  const at = match.index!;
  const end = c + d;
  const objectStart = text.lastIndexOf(' obj', at);
  const object = text.slice(objectStart, text.indexOf('endobj', at));
  const base: Omit<RevisionVerification, 'whole' | 'why' | 'signer' | 'issuer' | 'fingerprint'> = {
    n,
    name: textEntry(object, 'Name'),
    reason: textEntry(object, 'Reason'),
    at: dateEntry(object),
    end,
    sha256: '',
    event: eventEntry(object),
    covers: [a, b, c, d],
  };
  let whole = '';
  const fail = (why: string, certificate: X509Certificate | null = null): RevisionVerification => ({
    ...base,
    sha256: whole,
    whole: false,
    why,
    ...describe(certificate),
  });
  if (a !== 0 || b >= c || end > pdf.length) return fail('the seal was damaged');
  // A seal signs its own dictionary, and everything from where the one before it ended.
  if (at < start || at > end || b < start || objectStart < start) return fail('the seals are out of order');
  const body = /^<([0-9a-f]*)>$/.exec(text.slice(b, c))?.[1];
  if (!body || body.length % 2) return fail('the signature itself is damaged');
  const bytes = Buffer.from(body, 'hex');
  const length = derLength(bytes);
  if (length === null || bytes.subarray(length).some((v) => v !== 0)) return fail('the signature itself is damaged');
  const digest = prefix.upTo(b).update(pdf.subarray(c, end)).digest();
  whole = prefix.upTo(end).digest('hex');
  const check = verifyCms(bytes.subarray(0, length), digest);
  if (!check.ok) return fail(check.why, check.certificate);
  return { ...base, sha256: whole, whole: true, why: '', ...describe(check.certificate) };
}

function describe(certificate: X509Certificate | null) {
  if (!certificate) return { signer: null, issuer: null, fingerprint: null };
  const name = (dn: string) => /^CN=(.+)$/m.exec(dn)?.[1] ?? dn.replace(/\n/g, ', ');
  return {
    signer: name(certificate.subject),
    issuer: name(certificate.issuer),
    fingerprint: certificate.fingerprint256.replace(/:/g, '').toLowerCase(),
  };
}

/** Returns the length of the DER value at the start of the bytes, header included. */
function derLength(bytes: Buffer): number | null {
  const first = bytes[1];
  if (bytes[0] !== 0x30 || first === undefined) return null;
  if (first < 0x80) return 2 + first;
  const n = first & 0x7f;
  if (n === 0 || n > 4 || bytes.length < 2 + n) return null;
  const length = 2 + n + bytes.readUIntBE(2, n);
  return length <= bytes.length ? length : null;
}

/** Returns a text entry of a signature dictionary. The product writes them as UTF-16 in hex digits. */
function textEntry(object: string, key: string): string {
  const hex = new RegExp(`/${key} <FEFF([0-9A-Fa-f]*)>`).exec(object)?.[1];
  if (!hex) return '';
  const bytes = Buffer.from(hex, 'hex');
  // A file from outside may have half a character at its end.
  return bytes
    .subarray(0, bytes.length - (bytes.length % 2))
    .swap16()
    .toString('utf16le');
}

/** Returns the /M entry as ISO 8601. */
function dateEntry(object: string): string | null {
  const m = /\/M \(D:(\d{4})(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)Z?\)/.exec(object);
  return m ? `${m[1]}-${m[2]}-${m[3]}T${m[4]}:${m[5]}:${m[6]}Z` : null;
}

function eventEntry(object: string): RevisionVerification['event'] {
  const packetId = /\/GatePath_Packet \(([\w-]+)\)/.exec(object)?.[1];
  const seq = /\/GatePath_Event (\d+)/.exec(object)?.[1];
  const hash = /\/GatePath_Hash \(([0-9a-f]{64})\)/.exec(object)?.[1];
  return packetId && seq && hash ? { packetId, seq: Number(seq), hash } : null;
}
