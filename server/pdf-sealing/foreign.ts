/**
 * Digital signatures that a paper came with, made by any program: whose they are, and whether they hold for the file as it came
 * (ISO 32000-1, 12.8; CMS, RFC 5652). Who vouches for a certificate is told and not judged: the house trusts nobody by itself.
 */
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { AttributeTypeAndValue, ContentInfo, SignedData, type Certificate } from 'pkijs';
import type { PaperSignature } from '@gatepath/contract';
import { clip, isClean, oneLine } from '@gatepath/core/text';

/** Maximum number of signatures verified; a file with more is suspicious. */
export const MOST_SIGNATURES = 40;

/** Returns the signatures of a file in the order in which they were made; none if it is not a PDF. */
export async function foreignSignatures(bytes: Uint8Array): Promise<{ signatures: PaperSignature[]; more: number }> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false, ignoreEncryption: true }).catch(() => null);
  const found = doc ? dictionaries(doc) : [];
  found.sort((a, b) => endOf(a) - endOf(b));
  const signatures: PaperSignature[] = [];
  for (const dict of found.slice(0, MOST_SIGNATURES)) signatures.push(await checked(bytes, dict));
  return { signatures, more: Math.max(0, found.length - MOST_SIGNATURES) };
}

const entry = (dict: PDFDict, key: string): PDFObject | undefined => dict.lookup(PDFName.of(key));

function dictionaries(doc: PDFDocument): PDFDict[] {
  const out = new Set<PDFDict>();
  const look = (object: PDFObject | undefined) => {
    if (object instanceof PDFDict && rangeOf(object) && entry(object, 'Contents') instanceof PDFHexString)
      out.add(object);
  };
  for (const [, object] of doc.context.enumerateIndirectObjects()) {
    look(object);
    // A field may carry its signature within itself.
    if (object instanceof PDFDict) look(object.get(PDFName.of('V')));
  }
  return [...out];
}

/** Returns the signed byte range: the whole file except the signature itself. */
function rangeOf(dict: PDFDict): [number, number, number, number] | null {
  const range = entry(dict, 'ByteRange');
  if (!(range instanceof PDFArray) || range.size() !== 4) return null;
  const n = range.asArray().map((x) => (x instanceof PDFNumber ? x.asNumber() : NaN));
  const [a = NaN, b = NaN, c = NaN, d = NaN] = n;
  return n.every((x) => Number.isInteger(x) && x >= 0) ? [a, b, c, d] : null;
}

const endOf = (dict: PDFDict) => {
  const range = rangeOf(dict);
  return range ? range[2] + range[3] : 0;
};

async function checked(bytes: Uint8Array, dict: PDFDict): Promise<PaperSignature> {
  const told = textIn(dict, 'Name');
  const at = momentIn(dict);
  const say = (
    state: PaperSignature['state'],
    why: string,
    certificate: Certificate | null = null,
  ): PaperSignature => ({
    signer: (certificate && nameIn(certificate, 'subject')) || told || 'Someone',
    issuer: certificate && nameIn(certificate, 'issuer'),
    selfMade: certificate !== null && nameIn(certificate, 'subject') === nameIn(certificate, 'issuer'),
    at,
    state,
    why,
  });
  const range = rangeOf(dict);
  const contents = entry(dict, 'Contents');
  const [a, b, c, d] = range ?? [1, 0, 0, 0];
  if (a !== 0 || b >= c || c + d > bytes.length || !(contents instanceof PDFHexString))
    return say('broken', 'what it covers is not what stands in the file');
  // Between the two parts is the signature and nothing else: bytes hidden there would not be covered.
  const gap = Buffer.from(bytes.buffer, bytes.byteOffset + b, c - b).toString('latin1');
  if (!gap.startsWith('<') || !gap.endsWith('>') || gap.slice(1, -1) !== contents.asString())
    return say('broken', 'what it covers is not what stands in the file');
  const filter = nameEntry(dict, 'SubFilter');
  if (filter === 'ETSI.RFC3161') return say('unknown', 'it is a time stamp, which is not checked here');
  if (filter !== 'adbe.pkcs7.detached' && filter !== 'ETSI.CAdES.detached')
    return say('unknown', 'it is of a kind that cannot be checked here');
  const whole = c + d === bytes.length;
  return verifiedCms(contents.asBytes(), [bytes.subarray(0, b), bytes.subarray(c, c + d)], at, whole, say);
}

type Say = (state: PaperSignature['state'], why: string, certificate?: Certificate | null) => PaperSignature;

async function verifiedCms(
  cms: Uint8Array,
  parts: [Uint8Array, Uint8Array],
  at: string | null,
  whole: boolean,
  say: Say,
): Promise<PaperSignature> {
  let signed: SignedData;
  try {
    signed = new SignedData({ schema: ContentInfo.fromBER(exact(cms)).content });
  } catch {
    return say('broken', 'the signature itself is damaged');
  }
  const shape = unusualShape(signed);
  if (shape) return say(...shape);
  const data = new Uint8Array(Buffer.concat(parts)).buffer;
  const answer = await signed
    .verify({ signer: 0, data, checkChain: false, extendedMode: true })
    .catch((e: unknown) => e);
  const certificate = certificateIn(answer);
  const fine = typeof answer === 'object' && answer !== null && Reflect.get(answer, 'signatureVerified') === true;
  if (!fine) {
    // Its code for digests that differ, and for signatures that are not the certificate's.
    const code: unknown = typeof answer === 'object' && answer ? Reflect.get(answer, 'code') : null;
    return code === 5 || code === 6 || code === 8 || certificate
      ? say('broken', 'the file was changed after it was signed', certificate)
      : say('unknown', 'it could not be checked', certificate);
  }
  if (weak(signed)) return say('unknown', 'it is made with a method that is no longer safe', certificate);
  if (certificate && at && !holdsOn(certificate, at))
    return say('unknown', 'its certificate did not hold on the day it says', certificate);
  return say('holds', whole ? '' : 'something was added to the file after it', certificate);
}

const DATA = '1.2.840.113549.1.7.1';

/**
 * Returns what keeps a container from being a detached signature of one person over the bytes of the file (RFC 5652;
 * ISO 32000-1, 12.8.3.3); null if nothing. Content inside the container would be verified in place of the file's.
 */
function unusualShape({ encapContentInfo, signerInfos }: SignedData): [PaperSignature['state'], string] | null {
  if (encapContentInfo.eContent || encapContentInfo.eContentType !== DATA)
    return ['broken', 'what was signed is not this file'];
  const [signer, ...others] = signerInfos;
  if (!signer || others.length) return ['broken', 'it is not the signature of one person'];
  if (!signer.signedAttrs?.attributes.length) return ['unknown', 'it does not say what was signed'];
  return null;
}

const exact = (data: Uint8Array): ArrayBuffer => new Uint8Array(data).buffer;

function certificateIn(answer: unknown): Certificate | null {
  const found: unknown = typeof answer === 'object' && answer ? Reflect.get(answer, 'signerCertificate') : null;
  return isCertificate(found) ? found : null;
}

const isCertificate = (x: unknown): x is Certificate =>
  typeof x === 'object' && x !== null && 'subject' in x && 'notAfter' in x;

/** SHA-1 and MD5 (RFC 6151, RFC 8933): two files with the same digest can be made on purpose. */
const WEAK = new Set(['1.3.14.3.2.26', '1.2.840.113549.2.5']);
const weak = (signed: SignedData) => signed.signerInfos.some((s) => WEAK.has(s.digestAlgorithm.algorithmId));

function holdsOn(certificate: Certificate, at: string): boolean {
  const t = Date.parse(at);
  return (
    t >= certificate.notBefore.value.getTime() - 86_400_000 && t <= certificate.notAfter.value.getTime() + 86_400_000
  );
}

const COMMON_NAME = '2.5.4.3';
const ORGANISATION = '2.5.4.10';

function nameIn(certificate: Certificate, who: 'subject' | 'issuer'): string {
  const parts: AttributeTypeAndValue[] = certificate[who].typesAndValues;
  const found = parts.find((p) => p.type === COMMON_NAME) ?? parts.find((p) => p.type === ORGANISATION);
  return shown(String(found?.value.valueBlock.value ?? ''));
}

/** Returns text of a stranger's file as one line that is safe to show. */
const shown = (text: string) => clip(oneLine([...clip(text, 1_000)].filter((c) => isClean(c)).join('')), 200).trim();

function textIn(dict: PDFDict, key: string): string {
  const value = entry(dict, key);
  return value instanceof PDFString || value instanceof PDFHexString ? shown(value.decodeText()) : '';
}

const nameEntry = (dict: PDFDict, key: string) => {
  const value = entry(dict, key);
  return value instanceof PDFName ? value.decodeText() : '';
};

function momentIn(dict: PDFDict): string | null {
  const value = entry(dict, 'M');
  if (!(value instanceof PDFString || value instanceof PDFHexString)) return null;
  try {
    return value.decodeDate().toISOString();
  } catch {
    return null;
  }
}
