/** A server that is told something wrong says what, and what to do. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import forge from 'node-forge';
import { ConfigError, readConfig } from './config';
import { hashPassword, checkPassword } from './firm/password';
import { newId } from './ids';
import { fromP12, makeSeal, openSeal } from './proof/seal-key';

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-config-'));
const read = (env: NodeJS.ProcessEnv) => readConfig({ DATA_DIR: dir, ...env }, { demo: false });

test.each([
  ['PORT', 'four'],
  ['PORT', '70000'],
  ['DATABASE_URL', 'mysql://localhost/x'],
  ['PUBLIC_URL', 'gate.example.com'],
  ['SMTP_URL', 'http://mail'],
  ['SEAL_P12', '/no/such/file.p12'],
  ['SESSION_SECRET', 'short'],
])('%s=%s is refused by name', (name, value) => {
  expect(() => read({ [name]: value })).toThrow(ConfigError);
  expect(() => read({ [name]: value })).toThrow(name);
});

test('left alone, everything has a value, and the session secret stays the same', () => {
  const a = read({});
  expect([a.port, a.publicUrl, a.smtpUrl]).toEqual([4310, 'http://localhost:4310', null]);
  expect(read({}).sessionSecret).toBe(a.sessionSecret);
});

test('the self-made seal is made once; a PKCS #12 file serves with its password only', async () => {
  const open = () =>
    openSeal({ sealP12: null, password: '', dataDir: dir, firmName: 'Tōwpath & Vane', now: new Date() });
  const own = await open();
  expect([own.selfMade, own.subject]).toEqual([true, 'Tōwpath & Vane']);
  expect((await open()).fingerprint).toBe(own.fingerprint);
  const pem = await makeSeal('Vane Notaries', new Date());
  const [key, cert] = [pem.slice(0, pem.indexOf('-----BEGIN CERT')), pem.slice(pem.indexOf('-----BEGIN CERT'))];
  const p12 = forge.pkcs12.toPkcs12Asn1(
    forge.pki.privateKeyFromPem(key),
    [forge.pki.certificateFromPem(cert)],
    'pass word',
  );
  const bytes = Buffer.from(forge.asn1.toDer(p12).getBytes(), 'binary');
  const file = path.join(dir, 'seal.p12');
  writeFileSync(file, new Uint8Array(bytes));
  const seal = await openSeal({ sealP12: file, password: 'pass word', dataDir: dir, firmName: 'x', now: new Date() });
  expect([seal.selfMade, seal.subject]).toEqual([false, 'Vane Notaries']);
  expect(() => fromP12(bytes, 'wrong', 'seal.p12')).toThrow('SEAL_P12_PASSWORD');
});

test('passwords are kept as scrypt and checked; ids sort by age', async () => {
  const stored = await hashPassword('correct horse');
  expect(stored).toMatch(/^scrypt\$32768\$8\$1\$/);
  expect(await checkPassword('correct horse', stored)).toBe(true);
  expect(await checkPassword('wrong horse', stored)).toBe(false);
  expect(await checkPassword('anything', null)).toBe(false);
  const ids = Array.from({ length: 5000 }, () => newId());
  expect([...ids].sort()).toEqual(ids);
  expect(new Set(ids).size).toBe(ids.length);
});
