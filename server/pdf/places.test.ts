/** Where marks go in a sealed document: onto the page, into fields kept for them, or as stamps. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import type { ShownFill } from '@gatepath/core/packet';
import { paper } from '../test/papers';
import { changedBeyondMarks } from '../test/revisions';
import { testSeal } from '../test/seal';
import { drawPng } from './draw';
import type { RecordContent } from './record';
import { seal, type SealTask } from './seal';

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-places-'));
const { keyPem, certificates } = testSeal();
let n = 0;

/** One seal more on a file. */
async function sealed(bytes: Uint8Array, task: Partial<SealTask>): Promise<Uint8Array> {
  return seal({
    bytes,
    fills: [],
    redlines: [],
    names: {},
    room: null,
    records: [],
    keptWords: { kept: ['Kept for the record'], unused: ['Not needed'] },
    pictures: {},
    ...task,
    signing: {
      keyPem,
      certificates: certificates.map((c) => new Uint8Array(c)),
      name: 'Wren Alder',
      reason: 'Signed',
      at: '2026-11-23T17:00:00.000Z',
      event: { packetId: 'p', seq: ++n, hash: '0'.repeat(64) },
    },
  });
}

const fill = (markId: string, x: number, shows: ShownFill['shows'], kind: ShownFill['kind']): ShownFill => ({
  markId,
  documentId: 'd',
  page: 1,
  rect: { x, y: 12, w: 110, h: 18 },
  kind,
  partyId: markId,
  ink: 1,
  shows,
});
const signature = (id: string, x: number) =>
  fill(id, x, { form: 'typed', face: 'caveat', text: `Hand ${id}` }, 'signature');
const text = (id: string, x: number) => fill(id, x, { form: 'text', text: `Words of ${id}` }, 'text');

function save(bytes: Uint8Array): string {
  const file = path.join(dir, `${n}.pdf`);
  writeFileSync(file, bytes);
  return file;
}
const words = (file: string, ...range: string[]) => execFileSync('pdftotext', [...range, file, '-']).toString();
const valid = (file: string) =>
  execFileSync('pdfsig', ['-nocert', file])
    .toString()
    .match(/Signature is Valid/g)?.length;

/** Dark pixels under a mark on the first page, as poppler and as PDFium draw it. */
async function inkUnder(file: string, mark: ShownFill): Promise<number[]> {
  execFileSync('pdftoppm', ['-cropbox', '-r', '72', '-l', '1', '-singlefile', '-png', file, file]);
  const theirs = sharp(`${file}.png`);
  const { width, height } = await theirs.metadata();
  const ours = sharp(await drawPng({ file, page: 1, size: { width, height }, dpi: 72 }));
  const { x, y, w, h } = mark.rect;
  const box = { left: x, top: y, width: w, height: h };
  return Promise.all(
    [theirs, ours].map(
      async (image) => (await image.greyscale().extract(box).raw().toBuffer()).filter((v) => v < 170).length,
    ),
  );
}

test.each([0, 90, 180, 270])('on a page turned by %i degrees marks stand where they were shown', async (rotate) => {
  const marks = [signature('a', 10), signature('b', 130), text('c.1', 250), signature('d', 370)];
  // Clear of the print, which ends up elsewhere when the page is turned.
  const [first, kept, told, stamped] = marks.map((m) => ({
    ...m,
    rect: { ...m.rect, y: rotate === 180 ? 44 : 12 },
  })) as [ShownFill, ShownFill, ShownFill, ShownFill];
  const base = await paper({ pages: 1, rotate, crop: true });
  const one = await sealed(base, { fills: [first], room: { marks: [first, kept, told], records: [] } });
  const before = save(one);
  expect((await inkUnder(before, first)).every((x) => x > 8)).toBe(true);
  for (const mark of [kept, told, stamped]) expect(await inkUnder(before, mark)).toEqual([0, 0]);
  const two = await sealed(one, { fills: [kept, told, stamped], names: { 'c.1': 'text, Seller 1' } });
  const after = save(two);
  for (const mark of [first, kept, told, stamped])
    expect([mark.markId, (await inkUnder(after, mark)).every((x) => x > 8)]).toEqual([mark.markId, true]);
  expect(await changedBeyondMarks(one, two)).toEqual([]);
  expect(valid(after)).toBe(2);
  for (const mark of [first, kept, stamped]) expect(words(after)).toContain(`Hand ${mark.markId}`);
  // What was typed can be taken out of the form, too.
  const form = (await PDFDocument.load(two)).getForm();
  expect(form.getTextField('Mark c·1').getText()).toBe('Words of c.1');
  expect(execFileSync('qpdf', ['--check', after]).toString()).toContain('No syntax or stream encoding errors');
});

test('the same initials on every page are drawn once', async () => {
  const base = await paper({ pages: 20 });
  const all = Array.from({ length: 20 }, (_, i) => ({ ...signature('a', 10), markId: `m${i}`, page: i + 1 }));
  const one = await sealed(base, { room: { marks: all, records: [] } });
  const few = (await sealed(one, { fills: all.slice(0, 1) })).length - one.length;
  const many = (await sealed(one, { fills: all })).length - one.length;
  // Nineteen fields more, but neither font nor form.
  expect((many - few) / 19).toBeLessThan(420);
});

const record = (lines: number): RecordContent => ({
  title: 'Signing record',
  packetName: 'Papers',
  dealName: '14 Lantern Row',
  facts: [],
  explains: '',
  sections: [{ heading: 'History', lines: Array.from({ length: lines }, (_, i) => `line ${i} of ${lines}`) }],
});

test.each([
  ['as long as was thought', 100, 100, 3, []],
  ['shorter', 100, 10, 3, []],
  ['longer: it goes on after the pages kept, and none of it is lost', 10, 100, 3, ['2 pages added']],
] as const)('a record that is %s', async (_, thought, came, pages, changes) => {
  const one = await sealed(await paper({ pages: 1 }), { room: { marks: [], records: [record(thought)] } });
  expect(words(save(one), '-f', '2')).toContain('Kept for the record');
  const two = await sealed(one, { records: [record(came)] });
  const file = save(two);
  expect((await PDFDocument.load(two)).getPageCount()).toBe(1 + pages);
  const said = words(file, '-f', '2');
  for (const line of [0, came - 1]) expect(said).toContain(`line ${line} of ${came}`);
  expect(said).not.toContain('Kept for the record');
  expect(said.includes('Not needed')).toBe(came < thought);
  const beyond = await changedBeyondMarks(one, two);
  expect(beyond.filter((c) => / added$/.test(c))).toEqual(changes);
  expect(beyond.length > 0).toBe(changes.length > 0);
});
