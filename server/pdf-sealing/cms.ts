/**
 * The signature inside a sealed copy: a CMS SignedData (RFC 5652) with the CAdES attribute signing-certificate-v2
 * (RFC 5035), detached, RSA with SHA-256. It is built from fixed parts, so that verification can build it again and
 * compare every byte.
 */
import { createHash, createPrivateKey, sign, verify, X509Certificate, type KeyObject } from 'node:crypto';
import * as asn1js from 'asn1js';
import { itemAt } from '@gatepath/core/sure';

const OID = {
  data: '1.2.840.113549.1.7.1',
  signedData: '1.2.840.113549.1.7.2',
  contentType: '1.2.840.113549.1.9.3',
  messageDigest: '1.2.840.113549.1.9.4',
  signingCertificateV2: '1.2.840.113549.1.9.16.2.47',
  sha256: '2.16.840.1.101.3.4.2.1',
  rsa: '1.2.840.113549.1.1.1',
};

/** A key and its certificates, the signer's own first; all DER. */
export interface SealKey {
  key: KeyObject;
  certificates: Buffer[];
}

/** Reads a key in PEM and certificates in DER. */
export function sealKey(keyPem: string, certificates: Buffer[]): SealKey {
  return { key: createPrivateKey(keyPem), certificates };
}

const seq = (...value: asn1js.BaseBlock[]) => new asn1js.Sequence({ value });
const set = (...value: asn1js.BaseBlock[]) => new asn1js.Set({ value });
const oid = (value: string) => new asn1js.ObjectIdentifier({ value });
const octets = (data: Uint8Array) => new asn1js.OctetString({ valueHex: exact(data) });
const raw = (der: Uint8Array) => {
  const parsed = asn1js.fromBER(exact(der));
  if (parsed.offset === -1) throw new Error('damaged DER');
  return parsed.result;
};

/** Returns a block as the given type. @throws if it is another one */
function asSort<T extends asn1js.BaseBlock>(sort: new (...args: never[]) => T, block: asn1js.BaseBlock | undefined): T {
  if (!(block instanceof sort)) throw new Error('damaged DER');
  return block;
}
/** Returns the contents of a sequence, a set or a tagged value. */
const inside = (block: asn1js.BaseBlock | undefined) => asSort(asn1js.Constructed, block).valueBlock.value;

const der = (block: asn1js.BaseBlock) => Buffer.from(block.toBER(false));
const exact = (data: Uint8Array): ArrayBuffer => new Uint8Array(data).buffer;
const sha256 = (data: Uint8Array) => createHash('sha256').update(data).digest();

/** Signs a digest. Returns the whole ContentInfo in DER. */
export function buildCms(digest: Buffer, seal: SealKey): Buffer {
  const attributes = signedAttributes(digest, itemAt(seal.certificates, 0));
  // The signature covers the attributes as a SET (RFC 5652, 5.4).
  const signature = sign('sha256', new Uint8Array(attributes), seal.key);
  return assemble(attributes, signature, seal.certificates);
}

function signedAttributes(digest: Buffer, certificate: Buffer): Buffer {
  const attribute = (type: string, value: asn1js.BaseBlock) => seq(oid(type), set(value));
  const parts = [
    attribute(OID.contentType, oid(OID.data)),
    attribute(OID.messageDigest, octets(digest)),
    // SigningCertificateV2 with one ESSCertIDv2; SHA-256 is its default hash and not written.
    attribute(OID.signingCertificateV2, seq(seq(seq(octets(sha256(certificate)))))),
  ].map(der);
  // DER sorts the members of a SET OF by their bytes.
  parts.sort(Buffer.compare);
  return der(set(...parts.map(raw)));
}

function assemble(attributes: Buffer, signature: Uint8Array, certificates: Buffer[]): Buffer {
  const tbs = inside(inside(raw(itemAt(certificates, 0)))[0]);
  const hasVersion = itemAt(tbs, 0).idBlock.tagClass === 3;
  const serial = itemAt(tbs, hasVersion ? 1 : 0);
  const issuer = itemAt(tbs, hasVersion ? 3 : 2);
  const digestAlgorithm = () => seq(oid(OID.sha256), new asn1js.Null());
  const signerInfo = seq(
    new asn1js.Integer({ value: 1 }),
    seq(raw(der(issuer)), raw(der(serial))),
    digestAlgorithm(),
    new asn1js.Constructed({ idBlock: { tagClass: 3, tagNumber: 0 }, value: inside(raw(attributes)) }),
    seq(oid(OID.rsa), new asn1js.Null()),
    octets(signature),
  );
  const signedData = seq(
    new asn1js.Integer({ value: 1 }),
    set(digestAlgorithm()),
    seq(oid(OID.data)),
    new asn1js.Constructed({ idBlock: { tagClass: 3, tagNumber: 0 }, value: certificates.map(raw) }),
    set(signerInfo),
  );
  return der(
    seq(oid(OID.signedData), new asn1js.Constructed({ idBlock: { tagClass: 3, tagNumber: 0 }, value: [signedData] })),
  );
}

/** The verification of a signature container: valid, or why not. */
export type CmsVerification =
  | { ok: true; certificate: X509Certificate }
  | { ok: false; why: string; certificate: X509Certificate | null };

/** Verifies a CMS built by `buildCms` against the digest of what it signs. Any other byte is a change. */
export function verifyCms(cms: Buffer, digest: Buffer): CmsVerification {
  let certificates: Buffer[];
  let attributes: Buffer;
  let signature: Buffer;
  let certificate: X509Certificate;
  try {
    const parts = inside(inside(inside(raw(cms))[1])[0]);
    certificates = inside(parts[3]).map(der);
    const signer = inside(inside(parts[4])[0]);
    attributes = der(set(...inside(signer[3])));
    signature = Buffer.from(asSort(asn1js.OctetString, signer[5]).valueBlock.valueHexView);
    certificate = new X509Certificate(new Uint8Array(itemAt(certificates, 0)));
  } catch {
    return { ok: false, why: 'the signature itself is damaged', certificate: null };
  }
  const fail = (why: string): CmsVerification => ({ ok: false, why, certificate });
  if (!signedAttributes(digest, itemAt(certificates, 0)).equals(attributes))
    return fail('the document was changed after it was sealed');
  if (!verify('sha256', new Uint8Array(attributes), certificate.publicKey, new Uint8Array(signature)))
    return fail('the signature does not belong to its certificate');
  // The signing-certificate attribute pins the signer's certificate; those above it must chain up.
  for (let i = 1; i < certificates.length; i++) {
    const issuer = new X509Certificate(new Uint8Array(itemAt(certificates, i)));
    const child = new X509Certificate(new Uint8Array(itemAt(certificates, i - 1)));
    if (!child.verify(issuer.publicKey)) return fail('a certificate in the chain is damaged');
  }
  if (!assemble(attributes, signature, certificates).equals(cms)) return fail('the signature itself is damaged');
  return { ok: true, certificate };
}
