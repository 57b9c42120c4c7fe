/** The firm's seal: a key and certificate from SEAL_P12, or made at the first start and kept. */
import { createPublicKey, generateKeyPair, randomBytes, sign, X509Certificate } from 'node:crypto';
import { existsSync } from 'node:fs';
import { link, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import * as asn1js from 'asn1js';
import {
  AlgorithmIdentifier,
  AttributeTypeAndValue,
  BasicConstraints,
  Certificate,
  Extension,
  PublicKeyInfo,
  RelativeDistinguishedNames,
} from 'pkijs';
import { ConfigError } from '../config';
import { newSecret } from '../ids';
import { sealKey, type SealKey } from '../pdf-sealing/cms';
import { itemAt, lastOf } from '@gatepath/core/sure';
import { openP12, type P12 } from './p12';

const OID = {
  commonName: '2.5.4.3',
  organizationName: '2.5.4.10',
  keyUsage: '2.5.29.15',
  basicConstraints: '2.5.29.19',
  sha256WithRsa: '1.2.840.113549.1.1.11',
};

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

/** Returns a new self-signed certificate for ten years and its key, both as PEM in one text. */
export async function makeSeal(firmName: string, now: Date): Promise<string> {
  return sealOf(await promisify(generateKeyPair)('rsa', KEY_OPTIONS), firmName, now);
}

/** Returns the seal of a key that exists, with a new self-signed certificate. */
export function sealOf(pair: { publicKey: string; privateKey: string }, firmName: string, now: Date): string {
  const cert = new Certificate({ version: 2 });
  // Positive, at most 20 octets (RFC 5280, 4.1.2.2).
  cert.serialNumber = new asn1js.Integer({ valueHex: new Uint8Array([0x4a, ...randomBytes(15)]).buffer });
  cert.notBefore.value = new Date(now.getTime() - 3_600_000);
  cert.notAfter.value = new Date(now.getTime() + 10 * 365.25 * 86_400_000);
  const names = [OID.commonName, OID.organizationName].map((type) =>
    new AttributeTypeAndValue({ type, value: new asn1js.Utf8String({ value: firmName }) }).toSchema(),
  );
  // Each in its own set. Built by the package, both would be in one set, which is a single name with two values.
  const sets = names.map((value) => new asn1js.Set({ value: [value] }));
  const name = RelativeDistinguishedNames.fromBER(new asn1js.Sequence({ value: sets }).toBER());
  cert.issuer = name;
  cert.subject = name;
  const extension = (extnID: string, critical: boolean, value: asn1js.BaseBlock) =>
    new Extension({ extnID, critical, extnValue: value.toBER() });
  cert.extensions = [
    extension(OID.basicConstraints, false, new BasicConstraints().toSchema()),
    // Bits 0 and 1: digital signature, non-repudiation.
    extension(OID.keyUsage, true, new asn1js.BitString({ valueHex: new Uint8Array([0xc0]).buffer, unusedBits: 6 })),
  ];
  const spki = createPublicKey(pair.publicKey).export({ type: 'spki', format: 'der' });
  cert.subjectPublicKeyInfo = PublicKeyInfo.fromBER(new Uint8Array(spki).buffer);
  const algorithm = { algorithmId: OID.sha256WithRsa, algorithmParams: new asn1js.Null() };
  cert.signature = new AlgorithmIdentifier(algorithm);
  cert.signatureAlgorithm = new AlgorithmIdentifier(algorithm);
  cert.tbsView = new Uint8Array(cert.encodeTBS().toBER());
  const signature = sign('sha256', cert.tbsView, pair.privateKey);
  cert.signatureValue = new asn1js.BitString({ valueHex: new Uint8Array(signature).buffer });
  const der = Buffer.from(cert.toSchema(true).toBER());
  return pair.privateKey + new X509Certificate(new Uint8Array(der)).toString();
}

/** Reads a PKCS #12 file. @throws ConfigError with the way out when it cannot serve */
export function fromP12(file: Uint8Array, password: string, name: string): Seal {
  let p12: P12;
  try {
    p12 = openP12(file, password);
  } catch {
    throw new ConfigError(`SEAL_P12 (${name}) cannot be opened with SEAL_P12_PASSWORD. Check both.`);
  }
  const key = p12.keys.find((k) => k.asymmetricKeyType === 'rsa');
  const certificates = p12.certificates.map((c) => new X509Certificate(new Uint8Array(c)));
  if (!key || !certificates.length)
    throw new ConfigError(`SEAL_P12 (${name}) must hold an RSA key and its certificate. Export it again with both.`);
  const own = certificates.find((c) => c.checkPrivateKey(key));
  if (!own) throw new ConfigError(`SEAL_P12 (${name}): none of its certificates belongs to its key.`);
  const chain = [own];
  for (let i = 0; i < certificates.length; i++) {
    const issuer = certificates.find((c) => !chain.includes(c) && lastOf(chain).checkIssued(c));
    if (!issuer) break;
    chain.push(issuer);
  }
  const pem = key.export({ type: 'pkcs8', format: 'pem' });
  return describe(
    pem.toString(),
    chain.map((c) => Buffer.from(new Uint8Array(c.raw))),
    false,
  );
}
