/** PKCS #12 files of another program, in each way of encrypting them that programs have used. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import * as asn1js from 'asn1js';
import forge from 'node-forge';
import { openP12 } from './p12';
import { fromP12, makeSeal } from './seal-key';

const DIR = path.join(__dirname, '../test/p12');
const PASSWORD = 'pässword ✓';
const files = readdirSync(DIR).map((name) => [name, new Uint8Array(readFileSync(path.join(DIR, name)))] as const);

test.each(files)('%s opens with its password, and no other', (name, bytes) => {
  const seal = fromP12(bytes, PASSWORD, name);
  expect([seal.selfMade, seal.subject, seal.issuer, seal.certificates.length]).toEqual([
    false,
    'Tōwpath Notaries',
    'Vane Roots',
    2,
  ]);
  expect(() => fromP12(bytes, 'password', name)).toThrow('SEAL_P12_PASSWORD');
  expect(() => fromP12(bytes, '', name)).toThrow('SEAL_P12_PASSWORD');
});

test('there is a file for each cipher that programs have used', () => {
  expect(files.map(([name]) => name.split('.')[0]).sort()).toEqual([
    'aes128-sha512',
    'aes256',
    'no-mac',
    'plain-key',
    'rc2',
    'rc2-128',
    'tripledes',
  ]);
});

test('a file of a third program, and one without a password', async () => {
  const pem = await makeSeal('Vane Notaries', new Date());
  const cut = pem.indexOf('-----BEGIN CERT');
  for (const [password, algorithm] of [
    ['pass word', '3des'],
    ['pass word', 'aes256'],
    ['', '3des'],
  ] as const) {
    const p12 = forge.pkcs12.toPkcs12Asn1(
      forge.pki.privateKeyFromPem(pem.slice(0, cut)),
      [forge.pki.certificateFromPem(pem.slice(cut))],
      password,
      { algorithm },
    );
    const bytes = new Uint8Array(Buffer.from(forge.asn1.toDer(p12).getBytes(), 'binary'));
    expect(fromP12(bytes, password, 'x').subject).toBe('Vane Notaries');
  }
});

test('a changed file is refused, wherever it was changed', () => {
  for (const [name, bytes] of files) {
    for (let at = 0; at < bytes.length; at += 97) {
      const changed = bytes.slice();
      changed[at]! ^= 1;
      let seal = null;
      try {
        seal = fromP12(changed, PASSWORD, name);
      } catch (error) {
        expect((error as Error).message).toContain('SEAL_P12');
      }
      // A byte that nothing depends on, as of a name for the key: what opens is the same key.
      if (seal) expect(seal.subject).toBe('Tōwpath Notaries');
    }
    expect(() => fromP12(bytes.subarray(0, bytes.length >> 1), PASSWORD, name)).toThrow('SEAL_P12');
  }
  for (const junk of [new Uint8Array(), new Uint8Array(5_000_000), new Uint8Array(200_000).fill(0x30)])
    expect(() => fromP12(junk, PASSWORD, 'junk')).toThrow('SEAL_P12');
});

test('a file that asks for more rounds than a start can wait for is refused at once', () => {
  const [, bytes] = files.find(([name]) => name === 'aes256.p12')!;
  const pfx = asn1js.fromBER(bytes.slice().buffer).result as asn1js.Sequence;
  // PFX: version, contents, MacData; the last of MacData is the number of rounds.
  const mac = pfx.valueBlock.value[2] as asn1js.Sequence;
  mac.valueBlock.value[2] = new asn1js.Integer({ value: 2_000_000_000 });
  expect(() => openP12(new Uint8Array(pfx.toBER()), PASSWORD)).toThrow('too many iterations');
});

test('the certificate a firm makes for itself is one that another program reads', async () => {
  const pem = await makeSeal('Tōwpath & Vane', new Date('2026-11-30T12:00:00Z'));
  const cert = forge.pki.certificateFromPem(pem.slice(pem.indexOf('-----BEGIN CERT')));
  expect(cert.verify(cert)).toBe(true);
  expect([cert.validity.notBefore.toISOString(), cert.validity.notAfter.toISOString()]).toEqual([
    '2026-11-30T11:00:00.000Z',
    '2036-11-30T00:00:00.000Z',
  ]);
  expect(cert.getExtension('keyUsage')).toMatchObject({ critical: true, digitalSignature: true, nonRepudiation: true });
  expect(cert.getExtension('basicConstraints')).toMatchObject({ cA: false });
  expect(forge.util.decodeUtf8(cert.subject.getField('CN').value)).toBe('Tōwpath & Vane');
});
