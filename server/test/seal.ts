/** A firm's seal for tests, made once. */
import { generateKeyPairSync, X509Certificate } from 'node:crypto';
import { KEY_OPTIONS, sealOf } from '../proof/seal-key';

/** The key in PEM and the certificate in DER. */
export function testSeal(): { keyPem: string; certificates: Buffer[] } {
  const pem = sealOf(generateKeyPairSync('rsa', KEY_OPTIONS), 'Towpath & Vane Realty', new Date());
  const cut = pem.indexOf('-----BEGIN CERT');
  return { keyPem: pem.slice(0, cut), certificates: [Buffer.from(new X509Certificate(pem.slice(cut)).raw)] };
}
