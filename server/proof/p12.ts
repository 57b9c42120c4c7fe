/** PKCS #12 files (RFC 7292): the key and the certificates inside, opened with their password. */
import {
  createDecipheriv,
  createHash,
  createHmac,
  createPrivateKey,
  pbkdf2Sync,
  timingSafeEqual,
  type KeyObject,
} from 'node:crypto';
import * as asn1js from 'asn1js';
import forge from 'node-forge';
import {
  AuthenticatedSafe,
  CertBag,
  EncryptedData,
  PBES2Params,
  PBKDF2Params,
  PFX,
  PKCS8ShroudedKeyBag,
  PrivateKeyInfo,
  SafeContents,
  type AlgorithmIdentifier,
  type MacData,
} from 'pkijs';

/** The contents of a PKCS #12 file: private keys, and certificates in DER. */
export interface P12 {
  keys: KeyObject[];
  certificates: Buffer[];
}

const CONTENT = { data: '1.2.840.113549.1.7.1', encrypted: '1.2.840.113549.1.7.6' };
const HASHES: Record<string, { name: string; bytes: number; block: number }> = {
  '1.3.14.3.2.26': { name: 'sha1', bytes: 20, block: 64 },
  '2.16.840.1.101.3.4.2.1': { name: 'sha256', bytes: 32, block: 64 },
  '2.16.840.1.101.3.4.2.2': { name: 'sha384', bytes: 48, block: 128 },
  '2.16.840.1.101.3.4.2.3': { name: 'sha512', bytes: 64, block: 128 },
};
const SHA1 = { name: 'sha1', bytes: 20, block: 64 };
/** HMAC by which PBKDF2 derives keys (RFC 8018, B.1.2). */
const HMACS: Record<string, string> = {
  '1.2.840.113549.2.7': 'sha1',
  '1.2.840.113549.2.9': 'sha256',
  '1.2.840.113549.2.10': 'sha384',
  '1.2.840.113549.2.11': 'sha512',
};
/** Ciphers of PBES2, with the bytes of their keys. */
const CIPHERS: Record<string, { name: string; key: number }> = {
  '2.16.840.1.101.3.4.1.2': { name: 'aes-128-cbc', key: 16 },
  '2.16.840.1.101.3.4.1.22': { name: 'aes-192-cbc', key: 24 },
  '2.16.840.1.101.3.4.1.42': { name: 'aes-256-cbc', key: 32 },
  '1.2.840.113549.3.7': { name: 'des-ede3-cbc', key: 24 },
};
const PBES2 = '1.2.840.113549.1.5.13';
/** Ciphers of older programs (RFC 7292, appendix C), with the bytes of their keys. */
const OLDER: Record<string, { key: number; rc2: boolean }> = {
  '1.2.840.113549.1.12.1.3': { key: 24, rc2: false },
  '1.2.840.113549.1.12.1.5': { key: 16, rc2: true },
  '1.2.840.113549.1.12.1.6': { key: 5, rc2: true },
};
/** Identifiers of what is derived from the password (RFC 7292, B.3). */
const FOR = { key: 1, iv: 2, mac: 3 };
/** Maximum number of hash iterations that a file may ask for. More would delay the server's start by minutes. */
const MOST_ITERATIONS = 10_000_000;

/**
 * Opens a PKCS #12 file.
 *
 * @throws Error if the file is damaged, the password is wrong, or it is encrypted in a way that is not known
 */
export function openP12(file: Uint8Array, password: string): P12 {
  const pfx = PFX.fromBER(exact(file));
  const safe = octets(pfx.authSafe.content);
  // The MAC is optional. Without it, a wrong password is noticed when decryption fails.
  if (pfx.macData && !isWhole(pfx.macData, safe, password)) throw new Error('wrong password');
  const out: P12 = { keys: [], certificates: [] };
  for (const info of AuthenticatedSafe.fromBER(exact(safe)).safeContents) {
    const bytes =
      info.contentType === CONTENT.encrypted
        ? contentOf(new EncryptedData({ schema: info.content }), password)
        : info.contentType === CONTENT.data
          ? octets(info.content)
          : null;
    if (bytes) for (const { bagValue } of SafeContents.fromBER(exact(bytes)).safeBags) takeBag(out, bagValue, password);
  }
  return out;
}

function takeBag(out: P12, bag: unknown, password: string): void {
  const key = (der: Uint8Array) => createPrivateKey({ key: Buffer.from(der), format: 'der', type: 'pkcs8' });
  if (bag instanceof CertBag && bag.certValue instanceof asn1js.OctetString)
    out.certificates.push(Buffer.from(bag.certValue.getValue()));
  if (bag instanceof PrivateKeyInfo) out.keys.push(key(new Uint8Array(bag.toSchema().toBER())));
  if (bag instanceof PKCS8ShroudedKeyBag)
    out.keys.push(key(decrypted(bag.encryptionAlgorithm, new Uint8Array(bag.encryptedData.getValue()), password)));
}

function contentOf({ encryptedContentInfo: info }: EncryptedData, password: string): Uint8Array {
  return decrypted(info.contentEncryptionAlgorithm, new Uint8Array(info.getEncryptedContent()), password);
}

/** Returns whether a file's MAC matches its contents and the password. */
function isWhole({ mac, macSalt, iterations }: MacData, safe: Uint8Array, password: string): boolean {
  const hash = HASHES[mac.digestAlgorithm.algorithmId];
  if (!hash) throw new Error('unknown digest');
  const key = derived(hash, {
    password,
    salt: bytesOf(macSalt),
    rounds: iterations ?? 1,
    use: FOR.mac,
    length: hash.bytes,
  });
  const right = createHmac(hash.name, key).update(safe).digest();
  const told = bytesOf(mac.digest);
  return told.length === right.length && timingSafeEqual(told, new Uint8Array(right));
}

function decrypted({ algorithmId, algorithmParams }: AlgorithmIdentifier, data: Uint8Array, password: string) {
  if (algorithmId === PBES2) return byPbes2(new PBES2Params({ schema: algorithmParams }), data, password);
  const cipher = OLDER[algorithmId];
  if (!cipher) throw new Error('unknown cipher');
  // pkcs-12PbeParams is a SEQUENCE of salt and iterations (RFC 7292, C).
  const [salt, rounds] = (algorithmParams as asn1js.Sequence).valueBlock.value;
  if (!(salt instanceof asn1js.OctetString) || !(rounds instanceof asn1js.Integer)) throw new Error('damaged');
  const given = { password, salt: bytesOf(salt), rounds: rounds.valueBlock.valueDec };
  const key = derived(SHA1, { ...given, use: FOR.key, length: cipher.key });
  const iv = derived(SHA1, { ...given, use: FOR.iv, length: 8 });
  return cipher.rc2 ? byRc2(key, iv, data) : byCipher('des-ede3-cbc', key, iv, data);
}

function byPbes2({ keyDerivationFunc, encryptionScheme }: PBES2Params, data: Uint8Array, password: string): Uint8Array {
  const cipher = CIPHERS[encryptionScheme.algorithmId];
  const kdf = new PBKDF2Params({ schema: keyDerivationFunc.algorithmParams });
  const hmac = kdf.prf ? HMACS[kdf.prf.algorithmId] : 'sha1';
  const iv: unknown = encryptionScheme.algorithmParams;
  if (!cipher || !hmac || !(kdf.salt instanceof asn1js.OctetString) || !(iv instanceof asn1js.OctetString))
    throw new Error('unknown cipher');
  if (!(kdf.iterationCount <= MOST_ITERATIONS)) throw new Error('too many iterations');
  const key = pbkdf2Sync(password, bytesOf(kdf.salt), kdf.iterationCount, cipher.key, hmac);
  return byCipher(cipher.name, new Uint8Array(key), bytesOf(iv), data);
}

function byCipher(name: string, key: Uint8Array, iv: Uint8Array, data: Uint8Array): Uint8Array {
  const decipher = createDecipheriv(name, key, iv);
  return new Uint8Array(Buffer.concat([new Uint8Array(decipher.update(data)), new Uint8Array(decipher.final())]));
}

/** Decrypts RC2 (RFC 2268), which no longer comes with Node: certificates of older programs are encrypted with it. */
function byRc2(key: Uint8Array, iv: Uint8Array, data: Uint8Array): Uint8Array {
  const text = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1');
  const decipher = forge.rc2.createDecryptionCipher(text(key), key.length * 8);
  decipher.start(text(iv));
  decipher.update(forge.util.createBuffer(text(data)));
  if (!decipher.finish()) throw new Error('wrong password');
  return new Uint8Array(Buffer.from(decipher.output.getBytes(), 'latin1'));
}

/** Returns bytes derived from a password: a key, an initialization vector or a MAC key (RFC 7292, B.2). */
function derived(
  hash: { name: string; bytes: number; block: number },
  o: { password: string; salt: Uint8Array; rounds: number; use: number; length: number },
): Uint8Array {
  if (!(o.rounds >= 1 && o.rounds <= MOST_ITERATIONS)) throw new Error('too many iterations');
  const v = hash.block;
  const filled = (some: Uint8Array) =>
    Uint8Array.from({ length: v * Math.ceil(some.length / v) }, (_, i) => some[i % some.length] ?? 0);
  // The password in big-endian UTF-16, with a terminating zero (B.1).
  const words = Buffer.from(`${o.password}\0`, 'utf16le').swap16();
  const input = Buffer.concat([filled(o.salt), filled(new Uint8Array(words))]);
  const of = new Uint8Array(v).fill(o.use);
  const out: Buffer[] = [];
  for (let made = 0; made < o.length; made += hash.bytes) {
    let a = createHash(hash.name).update(of).update(new Uint8Array(input)).digest();
    for (let i = 1; i < o.rounds; i++) a = createHash(hash.name).update(new Uint8Array(a)).digest();
    out.push(a);
    // Step 6C: adds the digest, repeated to the length of a block, and 1 to each block of the input.
    for (let at = 0; at < input.length; at += v)
      for (let k = v - 1, carry = 1; k >= 0; k--) {
        carry += (input[at + k] ?? 0) + (a[k % hash.bytes] ?? 0);
        input[at + k] = carry & 255;
        carry >>= 8;
      }
  }
  return new Uint8Array(Buffer.concat(out.map((b) => new Uint8Array(b))).subarray(0, o.length));
}

const exact = (data: Uint8Array): ArrayBuffer => new Uint8Array(data).buffer;
const bytesOf = (octet: asn1js.OctetString) => new Uint8Array(octet.getValue());
function octets(content: unknown): Uint8Array {
  if (!(content instanceof asn1js.OctetString)) throw new Error('damaged');
  return bytesOf(content);
}
