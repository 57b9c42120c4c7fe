/** A thousand random changes of one byte to sealed copies of several seals, and to exported chains: all are found. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import type { ShownFill } from '@gatepath/core/packet';
import { CHAIN_START, chainHash, type ChainedEvent } from '@gatepath/core/proof';
import type { PacketEvent } from '@gatepath/core/routing';
import { planOf } from '@gatepath/core/test/support';
import { sha256 } from '../ids';
import { WorkPool } from '../work/pool';
import type { Signing } from '../pdf-sealing/seal';
import { paper } from '../test/papers';
import { disagreements, verifyChain, writeChain } from '../proof/chain-file';
import { testSeal, testSigning } from '../test/seal';
import { verifySealed } from '../pdf-sealing/verify';

jest.setTimeout(240_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-changes-'));
const seal = testSeal();
const says = testSigning(seal);
let pool: WorkPool;
let pdf: Buffer;
let chain: string;

const signing = (name: string, seq: number): Signing =>
  says({ name, event: { packetId: 'p', seq, hash: 'a'.repeat(64) } });

beforeAll(async () => {
  pool = new WorkPool(1);
  let file = path.join(dir, '0.pdf');
  writeFileSync(file, await paper({ pages: 2 }));
  for (const [i, name] of ['Wren Alder', 'Callum Alder', 'Towpath & Vane Realty'].entries()) {
    const fills: ShownFill[] = [
      {
        markId: name,
        documentId: 'd',
        page: 2,
        rect: { x: 72, y: 640 + i * 30, w: 150, h: 24 },
        kind: 'signature',
        partyId: name,
        ink: i,
        shows: { form: 'typed', face: 'caveat', text: name },
      },
    ];
    const { bytes } = await pool.run('seal', {
      file,
      fills,
      redlines: [],
      records: [],
      pictures: {},
      names: {},
      room: null,
      recordPageWords: { kept: [], unused: [] },
      signing: signing(name, i + 1),
    });
    file = path.join(dir, `${i + 1}.pdf`);
    writeFileSync(file, bytes);
  }
  pdf = readFileSync(file);
  const events: ChainedEvent<PacketEvent>[] = [];
  let prevHash = CHAIN_START;
  const bodies = [
    { type: 'sent' as const, plan: planOf([['wren'], ['callum']]) },
    { type: 'gate_opened' as const, gate: 0 },
    { type: 'asked' as const, partyId: 'wren' },
  ];
  for (const [i, body] of bodies.entries()) {
    const event = {
      packetId: 'p',
      seq: i + 1,
      at: '2026-11-23T17:00:00.000Z',
      actor: { kind: 'system' as const },
      origin: null,
      body,
    };
    const hash = chainHash(prevHash, event, sha256);
    events.push({ event, prevHash, hash });
    prevHash = hash;
  }
  chain = writeChain('p', events, seal);
});
afterAll(() => pool.close());

test('the files are whole to begin with', () => {
  expect(verifySealed(pdf)).toMatchObject({ whole: true, revisions: [{ n: 1 }, { n: 2 }, { n: 3 }] });
  expect(verifyChain(chain)).toMatchObject({ whole: true, signer: 'Towpath & Vane Realty' });
});

test('1,000 changed bytes of a sealed copy, those of its signatures too, are all found', () => {
  const inSeals = verifySealed(pdf).revisions.map((r) => fc.integer({ min: r.covers[1], max: r.covers[2] - 1 }));
  fc.assert(
    fc.property(
      fc.oneof(...inSeals, { weight: 4, arbitrary: fc.integer({ min: 0, max: pdf.length - 1 }) }),
      fc.integer({ min: 1, max: 255 }),
      (at, by) => {
        const changed = Buffer.from(pdf);
        changed[at]! ^= by;
        expect([at, verifySealed(changed).whole]).toEqual([at, false]);
      },
    ),
    { numRuns: 1000 },
  );
});

test('a text that ends in the middle of a letter, or of a digit, is a change like any other', () => {
  for (const key of ['Name', 'Reason'])
    for (const back of [1, 2, 3, 4]) {
      const end = pdf.indexOf('>', pdf.indexOf(`/${key} <FEFF`));
      const changed = Buffer.from(pdf);
      changed[end - back] = '>'.charCodeAt(0);
      expect([key, back, verifySealed(changed).whole]).toEqual([key, back, false]);
    }
});

test('1,000 changed bytes of an exported chain are all found', () => {
  const bytes = Buffer.from(chain);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: bytes.length - 1 }), fc.integer({ min: 1, max: 255 }), (at, by) => {
      const changed = Buffer.from(bytes);
      changed[at]! ^= by;
      expect([at, verifyChain(changed.toString('utf8')).whole]).toEqual([at, false]);
    }),
    { numRuns: 1000 },
  );
  expect(verifyChain(`${chain} `).whole).toBe(false);
  expect(verifyChain(chain.replace('"wren"', '"wrem"')).whole).toBe(false);
});

test('a seal cut out or swapped does not pass for the first, and a chain of other events does not agree', () => {
  const { revisions } = verifySealed(pdf);
  // Cut back to an earlier state it is whole, and says so only of that state.
  const cut = verifySealed(pdf.subarray(0, revisions[1]!.end));
  expect([cut.whole, cut.revisions.length]).toEqual([true, 2]);
  // The last revision glued onto the first alone is not.
  const glued = Buffer.concat([
    new Uint8Array(pdf.subarray(0, revisions[0]!.end)),
    new Uint8Array(pdf.subarray(revisions[1]!.end)),
  ]);
  expect(verifySealed(glued).whole).toBe(false);
  const check = verifyChain(chain);
  if (!check.whole) throw new Error(check.why);
  expect(disagreements(verifySealed(pdf), check)).toContain('seal 1 names an event that the chain does not have');
});
