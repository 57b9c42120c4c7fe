/** Whether a sealed copy is whole: by whom it was sealed, when, and what is wrong if it is not. */
import { createHash, type X509Certificate } from 'node:crypto';
import { checkCms } from './cms';

export interface SealCheck {
  whole: boolean;
  /** Why not, in words; empty when whole. */
  why: string;
  signer: string | null;
  issuer: string | null;
  /** Time in the seal, ISO 8601, as the sealing server's clock gave it. */
  at: string | null;
  fingerprint: string | null;
  /** The byte ranges the signature covers. */
  covers: [number, number, number, number] | null;
}

const nothing = { signer: null, issuer: null, at: null, fingerprint: null, covers: null };

/** Checks the bytes of a PDF. Any change since sealing, appended bytes included, is found. */
export function verifySealed(pdf: Buffer): SealCheck {
  const text = pdf.toString('latin1');
  const ranges = [...text.matchAll(/\/ByteRange \[ ?(\d+) (\d+) (\d+) (\d+) *\]/g)];
  const last = ranges[ranges.length - 1];
  if (!text.startsWith('%PDF-')) return { whole: false, why: 'this is not a PDF', ...nothing };
  if (!last) return { whole: false, why: 'it carries no seal, or the seal was damaged', ...nothing };
  const [a, b, c, d] = last.slice(1).map(Number) as [number, number, number, number];
  const covers: [number, number, number, number] = [a, b, c, d];
  const at = dateOf(text, last.index);
  const fail = (why: string, certificate: X509Certificate | null = null): SealCheck => ({
    whole: false,
    why,
    ...describe(certificate),
    at,
    covers,
  });
  if (a !== 0 || b >= c || c + d > pdf.length) return fail('the seal was damaged');
  if (c + d !== pdf.length) return fail('something was added after it was sealed');
  const hex = text.slice(b, c);
  const body = /^<([0-9a-f]*)>$/.exec(hex)?.[1];
  if (!body || body.length % 2) return fail('the signature itself is damaged');
  const bytes = Buffer.from(body, 'hex');
  const length = derLength(bytes);
  if (length === null || bytes.subarray(length).some((v) => v !== 0)) return fail('the signature itself is damaged');
  const digest = createHash('sha256').update(pdf.subarray(0, b)).update(pdf.subarray(c)).digest();
  const check = checkCms(bytes.subarray(0, length), digest);
  if (!check.ok) return fail(check.why, check.certificate);
  return { whole: true, why: '', ...describe(check.certificate), at, covers };
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

/** Length of the DER value that begins the bytes, header included. */
function derLength(bytes: Buffer): number | null {
  const first = bytes[1];
  if (bytes[0] !== 0x30 || first === undefined) return null;
  if (first < 0x80) return 2 + first;
  const n = first & 0x7f;
  if (n === 0 || n > 4 || bytes.length < 2 + n) return null;
  const length = 2 + n + bytes.readUIntBE(2, n);
  return length <= bytes.length ? length : null;
}

/** The /M entry of the signature dictionary around `index`, as ISO 8601. */
function dateOf(text: string, index: number): string | null {
  const start = text.lastIndexOf(' obj', index);
  const end = text.indexOf('endobj', index);
  const m = /\/M \(D:(\d{4})(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)Z?\)/.exec(text.slice(start, end));
  return m ? `${m[1]}-${m[2]}-${m[3]}T${m[4]}:${m[5]}:${m[6]}Z` : null;
}
