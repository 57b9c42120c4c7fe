/** Sealed copies: any changed byte is found, and every script comes out right. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import type { ShownFill } from '@gatepath/core/packet';
import { missingCharacters } from '../typesetting/fonts';
import { WorkPool } from '../work/pool';
import { paper } from '../test/papers';
import { judged, sound } from '../test/judges';
import { testSigning } from '../test/seal';
import { verifySealed } from '../pdf-sealing/verify';

jest.setTimeout(120_000);

const NAMES = ['Émile Đặng', 'Żofia Łącka', 'Юрий Калина', 'Σπύρος Παπάς', 'Nguyễn Thị Hồng'];
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-seal-'));
const file = path.join(dir, 'sealed.pdf');
let sealed: Buffer;
let pool: WorkPool;

beforeAll(async () => {
  pool = new WorkPool(1);
  const source = path.join(dir, 'paper.pdf');
  writeFileSync(source, await paper({ pages: 1 }));
  const fills: ShownFill[] = NAMES.map((text, i) => ({
    markId: `m${i}`,
    documentId: 'd',
    page: 1,
    rect: { x: 72, y: 660 + i * 22, w: 180, h: 20 },
    kind: 'signature',
    partyId: `p${i}`,
    ink: i,
    shows: {
      form: 'typed',
      face: (['caveat', 'dancing-script', 'la-belle-aurore', 'reenie-beanie'] as const)[i % 4]!,
      text,
    },
  }));
  sealed = Buffer.from(
    (
      await pool.run('seal', {
        file: source,
        redlines: [],
        fills,
        pictures: {},
        names: {},
        room: null,
        recordPageWords: { kept: [], unused: [] },
        records: [
          {
            title: 'Signing record',
            packetName: 'Papers',
            dealName: '14 Lantern Row',
            facts: [['Document', 'Paper, 1 page']],
            explains: 'Fingerprints are SHA-256.',
            sections: [{ heading: 'People', people: NAMES.map((name) => ({ name, lines: [`${name} agreed`] })) }],
          },
        ],
        signing: testSigning()({
          name: 'Towpath & Vane Realty',
          reason: 'Executed: Papers',
          event: { packetId: 'p', seq: 9, hash: 'b'.repeat(64) },
        }),
      })
    ).bytes,
  );
  writeFileSync(file, new Uint8Array(sealed));
});
afterAll(() => pool.close());

test('it is whole, says by whom and when, and other tools agree', () => {
  expect(verifySealed(sealed)).toMatchObject({
    whole: true,
    revisions: [
      {
        signer: 'Towpath & Vane Realty',
        name: 'Towpath & Vane Realty',
        reason: 'Executed: Papers',
        at: '2026-11-23T17:00:00Z',
        event: { packetId: 'p', seq: 9, hash: 'b'.repeat(64) },
      },
    ],
  });
  expect(execFileSync('pdfsig', ['-nocert', file]).toString()).toContain('Total document signed');
  expect(judged(sealed)).toEqual(sound(1));
});

test('every changed byte is found, those of the signature itself too, and so is anything appended', () => {
  const { covers } = verifySealed(sealed).revisions[0]!;
  const inside = fc.integer({ min: covers[1], max: covers[2] - 1 });
  const anywhere = fc.integer({ min: 0, max: sealed.length - 1 });
  fc.assert(
    fc.property(fc.oneof(inside, anywhere), fc.integer({ min: 1, max: 255 }), (at, by) => {
      const changed = Buffer.from(sealed);
      changed[at]! ^= by;
      expect(verifySealed(changed).whole).toBe(false);
    }),
    { numRuns: 600 },
  );
  expect(verifySealed(Buffer.concat([new Uint8Array(sealed), new Uint8Array([10])])).why).toContain('added');
  expect(verifySealed(sealed.subarray(0, -1)).whole).toBe(false);
  expect(verifySealed(Buffer.from('hello')).why).toContain('not a PDF');
});

test('names with accents, Greek, Cyrillic and Vietnamese letters come out right', () => {
  const text = execFileSync('pdftotext', ['-layout', file, '-']).toString().normalize('NFC');
  for (const name of NAMES) expect(text.split(name).length - 1).toBeGreaterThanOrEqual(2);
});

test('letters that no shipped face has are named', async () => {
  expect(await missingCharacters('Σπύρος', 'caveat')).toEqual([]);
  expect(await missingCharacters('Σ', 'caveat', true)).toEqual(['Σ']);
  expect(await missingCharacters('王 Wren', 'caveat')).toEqual(['王']);
});
