/** Digital signatures that a paper came with: our verdict beside that of a program that is not ours. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import { paper } from '../test/papers';
import { TestServer } from '../test/harness';
import { foreignSignatures } from './foreign';

jest.setTimeout(240_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-foreign-'));
const run = (...args: string[]) => execFileSync('openssl', args, { cwd: dir, stdio: ['ignore', 'pipe', 'ignore'] });

/** Returns a key with a certificate of somebody, made by OpenSSL. */
function person(name: string, how: 'rsa' | 'ec'): { key: string; cert: string } {
  const [key, cert] = [`${name}.key`, `${name}.pem`];
  const algorithm = how === 'rsa' ? ['-newkey', 'rsa:2048'] : ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256'];
  run('req', '-x509', ...algorithm, '-nodes', '-keyout', key, '-out', cert, '-days', '900', '-subj', `/CN=${name}`);
  return { key, cert };
}

/** Signs with OpenSSL: detached unless said otherwise, in a container of the given options. */
const cms =
  (who: { key: string; cert: string }, options: string[] = [], command = 'cms') =>
  (file: string, der: string) =>
    run(
      command,
      '-sign',
      '-binary',
      '-in',
      file,
      '-signer',
      who.cert,
      '-inkey',
      who.key,
      '-outform',
      'DER',
      '-out',
      der,
      ...options,
    );

/** When all of them are signed: now, since the certificates are made now. */
const SIGNED_AT = new Date().toISOString().replace(/\.\d+Z$/, '.000Z');
const ROOM = 8_000;
let n = 0;
/** Returns the PDF with a signature appended as an incremental update and signed by OpenSSL, as other programs do. */
function signedBy(
  bytes: Uint8Array,
  who: { key: string; cert: string },
  o: {
    md?: string;
    sub?: string;
    cms?: (file: string, der: string) => void;
    range?: (b: number, c: number) => string;
  } = {},
): Buffer {
  const base = Buffer.from(bytes);
  const text = base.toString('latin1');
  const size = Math.max(...[...text.matchAll(/^(\d+) 0 obj/gm)].map((m) => Number(m[1]))) + 1;
  const root = /\/Root (\d+) 0 R/.exec(text)![1]!;
  const catalog = new RegExp(`\\n${root} 0 obj\\s*<<([\\s\\S]*?)>>\\s*endobj`).exec(text)![1]!;
  const prev = /startxref\s+(\d+)\s+%%EOF\s*$/.exec(text)![1]!;
  const head = `${size} 0 obj\n<< /Type /Sig /Filter /Adobe.PPKLite /SubFilter /${o.sub ?? 'adbe.pkcs7.detached'} /Name (Wren) /M (D:${SIGNED_AT.replace(/\D/g, '').slice(0, 14)}Z) /ByteRange [0 AAAAAAAAAA BBBBBBBBBB CCCCCCCCCC] /Contents `;
  const rest =
    ` >>\nendobj\n${size + 1} 0 obj\n<< /FT /Sig /T (s${size}) /V ${size} 0 R /Type /Annot /Subtype /Widget /Rect [0 0 0 0] >>\nendobj\n` +
    `${root} 0 obj\n<<${catalog.replace(/\/AcroForm <<.*?>>/, '')} /AcroForm << /Fields [${size + 1} 0 R] /SigFlags 3 >> >>\nendobj\n`;
  const start = base.length + 1;
  const offsets = [start, start + head.length + ROOM * 2 + 2 + rest.indexOf(`${size + 1} 0 obj`)];
  const rootAt = start + head.length + ROOM * 2 + 2 + rest.indexOf(`\n${root} 0 obj`) + 1;
  const line = (at: number) => `${String(at).padStart(10, '0')} 00000 n \n`;
  const xrefAt = start + head.length + ROOM * 2 + 2 + rest.length;
  const tail =
    `xref\n${root} 1\n${line(rootAt)}${size} 2\n${line(offsets[0]!)}${line(offsets[1]!)}trailer\n<< /Size ${size + 2} /Root ${root} 0 R /Prev ${prev} >>\n` +
    `startxref\n${xrefAt}\n%%EOF\n`;
  const b = start + head.length;
  const c = b + ROOM * 2 + 2;
  const ranged = head
    .replace('AAAAAAAAAA', String(b).padEnd(10))
    .replace('BBBBBBBBBB', String(c).padEnd(10))
    .replace('CCCCCCCCCC', String(rest.length + tail.length).padEnd(10));
  const [one, two] = [Buffer.concat([base, Buffer.from(`\n${ranged}`, 'latin1')]), Buffer.from(rest + tail, 'latin1')];
  const file = `${n++}.bin`;
  writeFileSync(path.join(dir, file), Buffer.concat([one, two]));
  const signCms = o.cms ?? cms(who, ['-md', o.md ?? 'sha256']);
  signCms(file, `${file}.der`);
  const hex = readFileSync(path.join(dir, `${file}.der`))
    .toString('hex')
    .padEnd(ROOM * 2, '0');
  return Buffer.concat([one, Buffer.from(`<${hex}>`, 'latin1'), two]);
}

/** Returns what pdfsig says of each signature. */
function pdfsig(bytes: Uint8Array): string[] {
  const file = path.join(dir, `${n++}.pdf`);
  writeFileSync(file, bytes);
  try {
    const out = execFileSync('pdfsig', ['-nocert', file], { stdio: ['ignore', 'pipe', 'ignore'] }).toString();
    return [...out.matchAll(/Signature Validation: (.*)/g)].map((m) => m[1]!);
  } catch (error) {
    return [...String((error as { stdout?: Buffer }).stdout ?? '').matchAll(/Signature Validation: (.*)/g)].map(
      (m) => m[1]!,
    );
  }
}

const plain = async () => {
  const doc = await PDFDocument.load(await paper({ pages: 1 }));
  return doc.save({ useObjectStreams: false });
};
const told = async (bytes: Uint8Array) =>
  (await foreignSignatures(bytes)).signatures.map((s) => [s.signer, s.state, s.why]);

test('whose they are and that they hold, of RSA and of elliptic curves, as another program says', async () => {
  for (const how of ['rsa', 'ec'] as const) {
    const signed = signedBy(await plain(), person(`Wren ${how}`, how));
    expect(pdfsig(signed)).toEqual(['Signature is Valid.']);
    const { signatures } = await foreignSignatures(signed);
    expect(signatures).toEqual([
      {
        signer: `Wren ${how}`,
        issuer: `Wren ${how}`,
        selfMade: true,
        at: SIGNED_AT,
        state: 'holds',
        why: '',
      },
    ]);
  }
});

test('a file that was changed after it was signed is told so; one that was added to, too', async () => {
  const signed = signedBy(await plain(), person('Callum', 'rsa'));
  const changed = Buffer.from(signed);
  changed[20] = changed[20]! ^ 1;
  expect(pdfsig(changed)).toEqual(['Digest Mismatch.']);
  expect(await told(changed)).toEqual([['Callum', 'broken', 'the file was changed after it was signed']]);
  const added = Buffer.concat([signed, Buffer.from('\n% more')]);
  expect(await told(added)).toEqual([['Callum', 'holds', 'something was added to the file after it']]);
});

test('a second signature says who came after; both are told in their order', async () => {
  const twice = signedBy(signedBy(await plain(), person('First', 'rsa')), person('Second', 'ec'));
  expect(await told(twice)).toEqual([
    ['First', 'holds', 'something was added to the file after it'],
    ['Second', 'holds', ''],
  ]);
});

test('what cannot be known is not called good: old digests, other kinds, bytes hidden beside the signature', async () => {
  const who = person('Mateo', 'rsa');
  expect(await told(signedBy(await plain(), who, { md: 'sha1' }))).toEqual([
    ['Mateo', 'unknown', 'it is made with a method that is no longer safe'],
  ]);
  expect((await told(signedBy(await plain(), who, { sub: 'adbe.x509.rsa_sha1' })))[0]![1]).toBe('unknown');
  expect((await told(signedBy(await plain(), who, { sub: 'ETSI.RFC3161' })))[0]!.slice(1)).toEqual([
    'unknown',
    'it is a time stamp, which is not checked here',
  ]);
  const text = signedBy(await plain(), who).toString('latin1');
  // The range says that it leaves out more than the signature.
  const wider = text.replace(/(\/ByteRange \[0 )(\d+)/, (_, a: string, b: string) => `${a}${Number(b) - 9}`);
  expect((await told(Buffer.from(wider, 'latin1')))[0]![1]).toBe('broken');
  const torn = text.replace(/\/Contents <30/, '/Contents <31');
  expect((await told(Buffer.from(torn, 'latin1')))[0]![1]).toBe('broken');
});

test('no signature, no file, many signatures: an answer each time', async () => {
  expect(await foreignSignatures(await plain())).toEqual({ signatures: [], more: 0 });
  expect(await foreignSignatures(Buffer.from('not a PDF'))).toEqual({ signatures: [], more: 0 });
  const one = '<< /Type /Sig /ByteRange [0 1 2 3] /Contents <00> >>';
  const doc = await PDFDocument.load(await plain());
  for (let i = 0; i < 100; i++) doc.context.register(doc.context.obj({ Type: 'Sig', ByteRange: [0, 1, 2, 3] }));
  expect((await foreignSignatures(await doc.save())).signatures).toEqual([]);
  const many = Buffer.from(
    `%PDF-1.4\n1 0 obj\n<< /Type /Catalog /Pages 2 0 R >>\nendobj\n2 0 obj\n<< /Type /Pages /Kids [] /Count 0 >>\nendobj\n${Array.from({ length: 100 }, (_, i) => `${i + 3} 0 obj\n${one}\nendobj\n`).join('')}trailer\n<< /Root 1 0 R >>\n%%EOF`,
  );
  const found = await foreignSignatures(many);
  expect([found.signatures.length, found.more]).toEqual([40, 60]);
  expect(new Set(found.signatures.map((s) => s.state))).toEqual(new Set(['broken']));
});

test('a paper of a deal says whose signatures it came with', async () => {
  const server = await TestServer.start();
  try {
    const deal = await server.deal('1 Mill Cut', []);
    const doc = await server.uploadReady(deal.id, 'Signed.pdf', signedBy(await plain(), person('Priya Nair', 'rsa')));
    const params = { documentId: doc.id };
    const { signatures } = await server.ok('paperSignatures', { params });
    expect(signatures.map((s) => [s.signer, s.state])).toEqual([['Priya Nair', 'holds']]);
    const without = await server.uploadReady(deal.id, 'Plain.pdf', await plain());
    expect(await server.ok('paperSignatures', { params: { documentId: without.id } })).toEqual({
      signatures: [],
      more: 0,
    });
  } finally {
    await server.stop();
  }
});

describe('forged and unusual files: our verdict beside that of another program', () => {
  const jane = person('Jane Notary', 'rsa');
  const ec = person('Eva Curve', 'ec');
  const other = person('Olaf Other', 'rsa');
  /** Returns a letter that Jane really signed, in a container that brings its content. */
  const letter =
    (options: string[] = []) =>
    (_file: string, der: string) => {
      writeFileSync(path.join(dir, 'mail.txt'), 'Dear Sir, thank you for your letter.');
      cms(jane, ['-nodetach', ...options])('mail.txt', der);
    };
  /** Returns a container whose signature is of another file. */
  const elsewhere =
    (options: string[] = []) =>
    (_file: string, der: string) => {
      writeFileSync(path.join(dir, 'else.txt'), 'Another text.');
      cms(jane, options)('else.txt', der);
    };
  const bend = (der: string, at: (bytes: Buffer) => number) => {
    const bytes = readFileSync(path.join(dir, der));
    const i = at(bytes);
    bytes[i] = bytes[i]! ^ 1;
    writeFileSync(path.join(dir, der), bytes);
  };
  const swap = (bytes: Buffer, from: RegExp, to: (...m: string[]) => string) =>
    Buffer.from(bytes.toString('latin1').replace(from, to as never), 'latin1');
  const sign = async (o: Parameters<typeof signedBy>[2] = {}, who = jane) => signedBy(await plain(), who, o);

  // Name of the file, how it is made, our verdict.
  const FILES: [string, () => Promise<Buffer>, 'holds' | 'broken' | 'unknown'][] = [
    ['detached, RSA, SHA-256', () => sign(), 'holds'],
    ['detached, RSA, SHA-384', () => sign({ md: 'sha384' }), 'holds'],
    ['detached, RSA, SHA-512', () => sign({ md: 'sha512' }), 'holds'],
    ['detached, curve P-256', () => sign({}, ec), 'holds'],
    ['CAdES', () => sign({ sub: 'ETSI.CAdES.detached', cms: cms(jane, ['-md', 'sha256', '-cades']) }), 'holds'],
    ['made by the older command', () => sign({ cms: cms(jane, ['-md', 'sha256'], 'smime') }), 'holds'],
    [
      'with the certificate of somebody else beside',
      () => sign({ cms: cms(jane, ['-md', 'sha256', '-certfile', other.cert]) }),
      'holds',
    ],
    ['something added behind', async () => Buffer.concat([await sign(), Buffer.from('\n% more')]), 'holds'],
    ['a letter of hers, attached', () => sign({ cms: letter() }), 'broken'],
    [
      'a letter of hers, attached, CAdES',
      () => sign({ sub: 'ETSI.CAdES.detached', cms: letter(['-cades']) }),
      'broken',
    ],
    ['a letter of hers, attached, without attributes', () => sign({ cms: letter(['-noattr']) }), 'broken'],
    ['this file, attached', () => sign({ cms: cms(jane, ['-md', 'sha256', '-nodetach']) }), 'broken'],
    ['of another file', () => sign({ cms: elsewhere() }), 'broken'],
    ['of another file, without attributes', () => sign({ cms: elsewhere(['-noattr']) }), 'unknown'],
    ['without attributes', () => sign({ cms: cms(jane, ['-md', 'sha256', '-noattr']) }), 'unknown'],
    [
      'two signers',
      () => sign({ cms: cms(jane, ['-md', 'sha256', '-signer', other.cert, '-inkey', other.key]) }),
      'broken',
    ],
    ['SHA-1', () => sign({ md: 'sha1' }), 'unknown'],
    ['without its certificate', () => sign({ cms: cms(jane, ['-md', 'sha256', '-nocerts']) }), 'unknown'],
    [
      'a byte of the file changed',
      async () => swap(await sign(), /%PDF-1\.(\d)/, (_, v) => `%PDF-1.${Number(v) ^ 1}`),
      'broken',
    ],
    [
      'the last byte of the signature changed',
      () =>
        sign({
          cms: (file, der) => {
            cms(jane, ['-md', 'sha256'])(file, der);
            bend(der, (bytes) => bytes.length - 1);
          },
        }),
      'broken',
    ],
    [
      'its own digest changed',
      () =>
        sign({
          cms: (file, der) => {
            cms(jane, ['-md', 'sha256'])(file, der);
            // The messageDigest attribute (1.2.840.113549.1.9.4): its value begins four bytes behind the name.
            bend(der, (bytes) => bytes.indexOf(Buffer.from('2a864886f70d010904', 'hex')) + 9 + 4);
          },
        }),
      'broken',
    ],
    [
      'somebody else’s certificate',
      () =>
        sign({
          cms: (file, der) => {
            // Olaf's signature in a container that brings Jane's certificate only.
            cms(other, ['-md', 'sha256', '-nocerts', '-certfile', jane.cert])(file, der);
          },
        }),
      'unknown',
    ],
    [
      'nothing in it',
      () => sign({ cms: (_file, der) => writeFileSync(path.join(dir, der), Buffer.from('3000', 'hex')) }),
      'broken',
    ],
    [
      'garbage',
      () => sign({ cms: (_file, der) => writeFileSync(path.join(dir, der), Buffer.alloc(900, 0xa7)) }),
      'broken',
    ],
    [
      'a range that ends before the file does',
      async () => swap(await sign(), /(\/ByteRange \[0 \d+ +\d+ +)(\d+)/, (_, a, n) => `${a}${Number(n) - 1}`),
      'broken',
    ],
  ];

  test.each(FILES)('%s', async (_name, make, state) => {
    const bytes = await make();
    const [ours] = (await foreignSignatures(bytes)).signatures;
    expect([ours!.state, ours!.why]).toEqual([
      state,
      state === 'holds' ? expect.stringMatching(/^$|added/) : expect.stringMatching(/./),
    ]);
    const [theirs = 'none'] = pdfsig(bytes);
    // What we say holds is valid there; what is broken here is not valid there, but where we are stricter by rule.
    const valid = theirs === 'Signature is Valid.';
    expect([theirs, valid]).toEqual([theirs, state === 'holds' || (STRICTER.has(_name) && valid)]);
  });

  /** Files which the other program takes, and which are not detached signatures of one person with attributes and a safe digest. */
  const STRICTER = new Set([
    'without attributes',
    'two signers',
    'SHA-1',
    'this file, attached',
    'a range that ends before the file does',
  ]);
});
