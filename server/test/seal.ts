/** A firm's seal for tests, made once. */
import { X509Certificate } from 'node:crypto';
import { makeSeal } from '../proof/seal-key';

/** The key in PEM and the certificate in DER. */
export function testSeal(): { keyPem: string; certificates: Buffer[] } {
  const pem = makeSeal('Towpath & Vane Realty', new Date());
  const cut = pem.indexOf('-----BEGIN CERT');
  return { keyPem: pem.slice(0, cut), certificates: [Buffer.from(new X509Certificate(pem.slice(cut)).raw)] };
}
