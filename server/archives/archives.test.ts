/** ZIP archives: what is written is read by programs of others, and what others write cannot take more than allowed. */
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import fc from 'fast-check';
import JSZip from 'jszip';
import { openArchive, refuseTypes, UnfitParts } from './read';
import { archiveOf } from './write';

const LIMITS = { bytes: 1_000_000, parts: 20 };
const DAY = new Date(2026, 10, 30, 12, 0, 0);

const packed = async (files: Record<string, string | Uint8Array>) => {
  const zip = new JSZip();
  for (const [name, content] of Object.entries(files)) zip.file(name, content);
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
};

test('whatever is written is read again, by us and by another reader, byte for byte', async () => {
  const file = fc.tuple(fc.stringMatching(/^\p{L}[\p{L}\d _.-]{0,12}$/u), fc.uint8Array({ maxLength: 3_000 }));
  await fc.assert(
    fc.asyncProperty(fc.uniqueArray(file, { selector: ([name]) => name, maxLength: 8 }), async (files) => {
      const bytes = await buffer(
        archiveOf(
          files.map(([name, content]) => ({ path: `papers/${name}`, open: () => content })),
          DAY,
        ),
      );
      const ours = await openArchive(bytes, LIMITS);
      const theirs = await JSZip.loadAsync(bytes);
      expect([...ours.keys()]).toEqual(files.map(([name]) => `papers/${name}`));
      for (const [name, content] of files) {
        expect(await ours.get(`papers/${name}`)!.bytes(3_000)).toEqual(Buffer.from(content));
        expect(await theirs.file(`papers/${name}`)!.async('nodebuffer')).toEqual(Buffer.from(content));
      }
    }),
    { numRuns: 40 },
  );
});

test('an archive is sound for another program, PDFs are stored and texts compressed, and days are kept', async () => {
  const text = 'The same words again and again. '.repeat(400);
  const bytes = await buffer(
    archiveOf(
      [
        { path: 'paper.pdf', open: async () => Readable.from([Buffer.from(text)]) },
        { path: 'índice.html', open: () => Buffer.from(text) },
      ],
      DAY,
    ),
  );
  const zip = await JSZip.loadAsync(bytes, { checkCRC32: true });
  expect(Object.values(zip.files).map((f) => [f.name, f.date.toISOString().slice(0, 10)])).toEqual([
    ['paper.pdf', '2026-11-30'],
    ['índice.html', '2026-11-30'],
  ]);
  // How each is packed stands in its entry of the central directory: 0 is stored, 8 is deflated.
  const first = bytes.indexOf('PK\u0001\u0002');
  const entries = [first, bytes.indexOf('PK\u0001\u0002', first + 4)];
  expect(entries.map((at) => bytes.readUInt16LE(at + 10))).toEqual([0, 8]);
  expect(bytes.readUInt32LE(entries[1]! + 20)).toBeLessThan(text.length / 4);
});

test('an entry is opened only when those before it are consumed, and one that fails ends the stream with its error', async () => {
  const opened: number[] = [];
  const large = Buffer.alloc(1_000_000, 7);
  const stream = archiveOf(
    Array.from({ length: 30 }, (_, i) => ({
      path: `${i}.pdf`,
      open: () => {
        opened.push(i);
        if (i === 9) throw new Error('the file is gone');
        return large;
      },
    })),
    DAY,
  );
  await new Promise((r) => setTimeout(r, 50));
  expect(opened.length).toBeLessThan(3);
  await expect(buffer(stream)).rejects.toThrow('the file is gone');
  expect(opened).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
});

describe('archives of others', () => {
  test('more parts, or more bytes, than allowed are refused before anything is unpacked', async () => {
    const many = await packed(Object.fromEntries(Array.from({ length: 21 }, (_, i) => [`${i}`, 'x'])));
    await expect(openArchive(many, LIMITS)).rejects.toThrow(UnfitParts);
    const large = await packed({ a: Buffer.alloc(600_000), b: Buffer.alloc(600_000) });
    await expect(openArchive(large, LIMITS)).rejects.toThrow(UnfitParts);
    expect((await openArchive(large, { bytes: 1_200_000, parts: 2 })).size).toBe(2);
  });

  test('a part that unpacks to more than it claims is stopped at what is allowed', async () => {
    const bytes = Buffer.from(await packed({ a: Buffer.alloc(500_000) }));
    // The size it claims, in both of its headers.
    for (const at of [bytes.indexOf('PK\u0003\u0004') + 22, bytes.indexOf('PK\u0001\u0002') + 24])
      bytes.writeUInt32LE(10, at);
    const part = (await openArchive(bytes, LIMITS)).get('a')!;
    await expect(part.bytes(100_000)).rejects.toThrow(UnfitParts);
  });

  test('a part is read up to what is allowed, and no byte further', async () => {
    const part = (await openArchive(await packed({ a: 'x'.repeat(1_000) }), LIMITS)).get('a')!;
    expect(await part.text(1_000)).toBe('x'.repeat(1_000));
    await expect(part.text(999)).rejects.toThrow(UnfitParts);
  });

  test('keys that every object has are names like any others', async () => {
    const parts = await openArchive(await packed({ constructor: 'a' }), LIMITS);
    expect(parts.get('toString')).toBeUndefined();
    expect(await parts.get('constructor')!.text(10)).toBe('a');
  });

  test('bytes that are no archive, or one that is cut short, are an error', async () => {
    const whole = await packed({ a: 'x'.repeat(1_000), b: 'y' });
    await expect(openArchive(new Uint8Array(0), LIMITS)).rejects.toThrow();
    await expect(openArchive(Buffer.from('PK\u0003\u0004 and nothing'), LIMITS)).rejects.toThrow();
    await expect(openArchive(whole.slice(0, whole.length - 30), LIMITS)).rejects.toThrow();
  });

  test('bytes changed at random are refused or read, and take no more than allowed', async () => {
    const whole = await packed({ 'word/document.xml': 'The buyer signs here. '.repeat(60), b: 'y'.repeat(500) });
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 12 }),
        async (changes) => {
          const bytes = new Uint8Array(whole);
          for (const [at, to] of changes) bytes[at] = to;
          const parts = await openArchive(bytes, LIMITS).catch(() => new Map<string, never>());
          for (const part of parts.values()) {
            const read = await part.bytes(5_000).catch(() => Buffer.alloc(0));
            expect(read.length).toBeLessThanOrEqual(5_000);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  test('document types and entities are refused', () => {
    expect(() => refuseTypes('<!DOCTYPE w [<!ENTITY a "b">]>')).toThrow(UnfitParts);
    expect(() => refuseTypes('<w><!-- a comment --></w>')).not.toThrow();
  });
});
