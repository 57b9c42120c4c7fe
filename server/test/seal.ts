/** A firm's seal for tests, made once. */
import { generateKeyPairSync, X509Certificate } from 'node:crypto';
import type { Signing } from '../pdf-sealing/signature';
import { KEY_OPTIONS, sealOf } from '../proof/seal-key';

/** Returns the key in PEM and the certificate in DER. */
export function testSeal(): { keyPem: string; certificates: Buffer[] } {
  const pem = sealOf(generateKeyPairSync('rsa', KEY_OPTIONS), 'Towpath & Vane Realty', new Date());
  const cut = pem.indexOf('-----BEGIN CERT');
  return { keyPem: pem.slice(0, cut), certificates: [Buffer.from(new X509Certificate(pem.slice(cut)).raw)] };
}

/** Returns the parameters of a test seal, with overrides. */
export function testSigning(seal = testSeal()): (more?: Partial<Signing>) => Signing {
  return (more) => ({
    keyPem: seal.keyPem,
    certificates: seal.certificates.map((c) => new Uint8Array(c)),
    signer: 'wren',
    name: 'Wren Alder, Seller 1',
    reason: 'Signed: Papers',
    at: '2026-11-23T17:00:00.000Z',
    event: { packetId: 'p', seq: 12, hash: '0'.repeat(64) },
    ...more,
  });
}
