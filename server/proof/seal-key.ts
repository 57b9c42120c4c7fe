/** The firm's seal: a key and certificate from SEAL_P12, or made at the first start and kept. */
import { generateKeyPair, X509Certificate } from 'node:crypto';
import { existsSync } from 'node:fs';
import { link, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import forge from 'node-forge';
import { ConfigError } from '../config';
import { newSecret } from '../ids';
import { sealKey, type SealKey } from '../pdf-sealing/cms';
import { itemAt, lastOf } from '@gatepath/core/sure';

/** The firm's seal: key, certificate, and what it says about itself. */
export interface Seal extends SealKey {
  keyPem: string;
  selfMade: boolean;
  subject: string;
  issuer: string;
  validUntil: string;
  fingerprint: string;
}

/** Opens the seal named by the configuration, or the self-made one in the data folder. */
export async function openSeal(options: {
  sealP12: string | null;
  password: string;
  dataDir: string;
  firmName: string;
  now: Date;
}): Promise<Seal> {
  if (options.sealP12) return fromP12(await readFile(options.sealP12), options.password, options.sealP12);
  const file = path.join(options.dataDir, 'seal.pem');
  if (!existsSync(file)) {
    // If several servers share the folder, one makes it: the name appears with its whole content, once.
    const temp = `${file}.${newSecret()}`;
    await writeFile(temp, await makeSeal(options.firmName, options.now), { mode: 0o600 });
    await link(temp, file).catch((error: { code?: string }) => {
      if (error.code !== 'EEXIST') throw error;
    });
    await rm(temp, { force: true });
  }
  const pem = await readFile(file, 'utf8');
  const keyPem = /-----BEGIN (?:RSA )?PRIVATE KEY-----[\s\S]+?-----END (?:RSA )?PRIVATE KEY-----/.exec(pem)?.[0];
  const certPem = /-----BEGIN CERTIFICATE-----[\s\S]+?-----END CERTIFICATE-----/.exec(pem)?.[0];
  if (!keyPem || !certPem)
    throw new ConfigError(`${file} is damaged. Restore it from a backup, or move it away to make a new seal.`);
  return describe(keyPem, [Buffer.from(new X509Certificate(certPem).raw)], true);
}

function describe(keyPem: string, certificates: Buffer[], selfMade: boolean): Seal {
  const own = new X509Certificate(new Uint8Array(itemAt(certificates, 0)));
  const name = (dn: string) => /^CN=(.+)$/m.exec(dn)?.[1] ?? dn.replace(/\n/g, ', ');
  return {
    ...sealKey(keyPem, certificates),
    keyPem,
    selfMade,
    subject: name(own.subject),
    issuer: name(own.issuer),
    validUntil: new Date(own.validTo).toISOString(),
    fingerprint: own.fingerprint256.replace(/:/g, '').toLowerCase(),
  };
}

/** An RSA key as PEM, as seals are made with. */
export const KEY_OPTIONS = {
  modulusLength: 3072,
  publicKeyEncoding: { type: 'spki', format: 'pem' },
  privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
} as const;

/** The tag of a text in UTF-8 (X.690); the package takes it, its types do not. */
const UTF8_STRING = 12 as never;

/** Returns a new self-signed certificate for ten years and its key, both as PEM in one text. */
export async function makeSeal(firmName: string, now: Date): Promise<string> {
  return sealOf(await promisify(generateKeyPair)('rsa', KEY_OPTIONS), firmName, now);
}

/** Returns the seal of a key and certificate that exist. */
export function sealOf(pair: { publicKey: string; privateKey: string }, firmName: string, now: Date): string {
  const cert = forge.pki.createCertificate();
  cert.publicKey = forge.pki.publicKeyFromPem(pair.publicKey);
  // Positive, at most 20 octets (RFC 5280, 4.1.2.2).
  cert.serialNumber = '4a' + forge.util.bytesToHex(forge.random.getBytesSync(15));
  cert.validity.notBefore = new Date(now.getTime() - 3_600_000);
  cert.validity.notAfter = new Date(now.getTime() + 10 * 365.25 * 86_400_000);
  const name = [
    { name: 'commonName', value: firmName, valueTagClass: UTF8_STRING },
    { name: 'organizationName', value: firmName, valueTagClass: UTF8_STRING },
  ];
  cert.setSubject(name);
  cert.setIssuer(name);
  cert.setExtensions([
    { name: 'basicConstraints', cA: false },
    { name: 'keyUsage', critical: true, digitalSignature: true, nonRepudiation: true },
  ]);
  cert.sign(forge.pki.privateKeyFromPem(pair.privateKey), forge.md.sha256.create());
  return pair.privateKey + forge.pki.certificateToPem(cert);
}

/** Reads a PKCS #12 file. Throws `ConfigError` with the way out when it cannot serve. */
export function fromP12(file: Buffer, password: string, name: string): Seal {
  let p12: forge.pkcs12.Pkcs12Pfx;
  try {
    p12 = forge.pkcs12.pkcs12FromAsn1(forge.asn1.fromDer(file.toString('binary')), password);
  } catch {
    throw new ConfigError(`SEAL_P12 (${name}) cannot be opened with SEAL_P12_PASSWORD. Check both.`);
  }
  const bag = (type: string) => p12.getBags({ bagType: type })[type] ?? [];
  const key = [...bag(forge.pki.oids['pkcs8ShroudedKeyBag']!), ...bag(forge.pki.oids['keyBag']!)][0]?.key;
  const certs = bag(forge.pki.oids['certBag']!)
    .map((b) => b.cert)
    .filter((c): c is forge.pki.Certificate => !!c);
  if (!key || !certs.length)
    throw new ConfigError(`SEAL_P12 (${name}) must hold an RSA key and its certificate. Export it again with both.`);
  const rsa = key as forge.pki.rsa.PrivateKey;
  const own = certs.find((c) => (c.publicKey as forge.pki.rsa.PublicKey).n?.equals(rsa.n));
  if (!own) throw new ConfigError(`SEAL_P12 (${name}): none of its certificates belongs to its key.`);
  const chain = [own];
  for (let i = 0; i < certs.length; i++) {
    const issuer = certs.find((c) => !chain.includes(c) && c.subject.hash === lastOf(chain).issuer.hash);
    if (!issuer) break;
    chain.push(issuer);
  }
  const der = (c: forge.pki.Certificate) =>
    Buffer.from(forge.asn1.toDer(forge.pki.certificateToAsn1(c)).getBytes(), 'binary');
  return describe(forge.pki.privateKeyToPem(key), chain.map(der), false);
}
