/** Where marks go in a sealed document: onto the page, into fields kept for them, or into the page's room. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import type { ShownFill } from '@gatepath/core/packet';
import { paper } from '../test/papers';
import { changedBeyondMarks } from '../test/revisions';
import { testSigning } from '../test/seal';
import { drawPng } from '../pdf/draw';
import type { RecordContent } from './record';
import { verifySealed } from './verify';
import { forbidden, forbiddenChanges, judged, sound } from '../test/judges';
import { seal, type Room, type Sealed, type SealTask } from './seal';
import { RECORD_SIGNER } from './signature';

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-places-'));
const says = testSigning();
let n = 0;

/** Adds one more seal to a file, and returns everything it produced. */
function sealing(bytes: Uint8Array, task: Partial<SealTask>, signer = 'wren', packetId = 'p'): Promise<Sealed> {
  return seal({
    bytes,
    fills: [],
    redlines: [],
    names: {},
    room: null,
    records: [],
    recordPageWords: { kept: ['Kept for the record'], unused: ['Not needed'] },
    pictures: {},
    ...task,
    signing: says({ signer, event: { packetId, seq: ++n, hash: '0'.repeat(64) } }),
  });
}

const sealed = async (...how: Parameters<typeof sealing>) => (await sealing(...how)).bytes;

/** Returns the room a document reserves for others. */
const roomOf = (marks: ShownFill[], records: RecordContent[] = []): Room => ({
  marks,
  signers: [...new Set(marks.map((m) => m.partyId))].map((partyId) => ({ partyId, words: partyId })),
  records,
});

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

/** Returns dark pixels under a mark on the first page, as poppler and as PDFium draw it. */
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
  const one = await sealed(base, { fills: [first], room: roomOf([first, kept, told]) });
  const before = save(one);
  expect((await inkUnder(before, first)).every((x) => x > 8)).toBe(true);
  for (const mark of [kept, told, stamped]) expect(await inkUnder(before, mark)).toEqual([0, 0]);
  const two = await sealed(one, { fills: [kept, told, stamped], names: { 'c.1': 'text, Seller 1' } });
  const after = save(two);
  for (const mark of [first, kept, told, stamped])
    expect([mark.markId, (await inkUnder(after, mark)).every((x) => x > 8)]).toEqual([mark.markId, true]);
  expect(await changedBeyondMarks(one, two)).toEqual([]);
  expect(judged(two)).toEqual(sound(2));
  for (const mark of [first, kept, stamped]) expect(words(after)).toContain(`Hand ${mark.markId}`);
  // What was typed can be taken out of the form, too.
  const form = (await PDFDocument.load(two)).getForm();
  expect(form.getTextField('Mark c·1').getText()).toBe('Words of c.1');
});

test('the same initials on every page are drawn once', async () => {
  const base = await paper({ pages: 20 });
  const all = Array.from({ length: 20 }, (_, i) => ({ ...signature('a', 10), markId: `m${i}`, page: i + 1 }));
  const one = await sealed(base, { room: roomOf(all) });
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
  ['as long as was thought', 100, 100, 3],
  ['shorter', 100, 10, 3],
  ['longer: it is set smaller, and none of it is lost', 100, 130, 3],
] as const)('a record that is %s', async (_, thought, came, pages) => {
  const one = await sealed(await paper({ pages: 1 }), { room: roomOf([], [record(thought)]) });
  expect(words(save(one), '-f', '2')).toContain('Kept for the record');
  const two = await sealed(one, { records: [record(came)] });
  const file = save(two);
  expect((await PDFDocument.load(two)).getPageCount()).toBe(1 + pages);
  const said = words(file, '-f', '2');
  for (const line of [0, came - 1]) expect(said).toContain(`line ${line} of ${came}`);
  expect(said).not.toContain('Kept for the record');
  expect(said.includes('Not needed')).toBe(came < thought);
  expect([await changedBeyondMarks(one, two), forbiddenChanges(two)]).toEqual([[], 0]);
});

test('a record much longer than the pages kept for it has a file of its own, sealed and closed', async () => {
  const one = await sealed(await paper({ pages: 1 }), { room: roomOf([], [record(10)]) });
  const { bytes, record: apart } = await sealing(one, { records: [record(100)] }, RECORD_SIGNER);
  expect(words(save(bytes), '-f', '2')).toContain('Not needed');
  expect([await changedBeyondMarks(one, bytes), forbiddenChanges(bytes)]).toEqual([[], 0]);
  const said = words(save(apart!.bytes));
  for (const line of [0, 99]) expect(said).toContain(`line ${line} of 100`);
  expect(apart!.pages).toHaveLength((await PDFDocument.load(apart!.bytes)).getPageCount());
  expect(judged(apart!.bytes)).toEqual(sound(1));
  for (const [what, changed] of await forbidden(apart!.bytes))
    if (!/field/.test(what)) expect([what, forbiddenChanges(changed)]).not.toEqual([what, 0]);
});

test('a strict viewer finds nothing in all that may happen, and everything that may not', async () => {
  const own = (id: string, partyId: string, x: number) => ({ ...text(id, x), partyId });
  const on = (page: number, mark: ShownFill) => ({ ...mark, page });
  const marks = [own('a', 'wren', 10), own('b', 'callum', 130), own('c', 'callum', 250), own('d', 'tobias', 370)];
  const [a, b, c, d] = marks as [ShownFill, ShownFill, ShownFill, ShownFill];
  let file = await sealed(await paper({ pages: 3 }), { fills: [a], room: roomOf(marks, [record(60)]) });
  const states = [file];
  const then = async (...[task, ...by]: [Partial<SealTask>, string, string?]) => {
    file = await sealed(file, task, ...by);
    states.push(file);
  };
  await then({ fills: [b] }, 'callum');
  // Words put in on the way, and their initials; three times, so that a room is filled again and again.
  for (const at of [680, 704, 728]) {
    const rects = [{ x: 100, y: at, w: 150, h: 20 }];
    await then(
      {
        redlines: [{ id: `r${at}`, documentId: 'd', page: 2, kind: 'insert', rects, moved: [], text: `put in ${at}` }],
      },
      'x',
    );
    await then({ fills: [{ ...on(2, signature(`ia${at}`, 300)), rect: { x: 300, y: at, w: 60, h: 20 } }] }, 'wren');
  }
  // Callum comes back to a mark he had left empty: his seal had locked it.
  await then({ fills: [c] }, 'callum');
  await then({ fills: [d] }, 'tobias');
  await then({ records: [record(60)] }, RECORD_SIGNER);
  const executed = file;
  for (const [round, packetId] of ['q', 'r'].entries()) {
    const x = 10 + round * 120;
    await then(
      { fills: [on(3, own(`late ${round}`, 'theo', x)), on(4, own(`on the record ${round}`, 'theo', x))] },
      'theo',
      packetId,
    );
    await then({ records: [record(60)] }, RECORD_SIGNER, packetId);
  }
  const before = [...states.slice(0, -1)];
  for (const [i, state] of states.slice(1).entries())
    expect([i, forbiddenChanges(state), await changedBeyondMarks(before[i]!, state)]).toEqual([i, 0, []]);
  for (const whole of [executed, file])
    for (const [what, changed] of await forbidden(whole))
      expect([what, forbiddenChanges(changed)]).not.toEqual([what, 0]);
  const seen = save(file);
  expect(judged(file)).toEqual(sound(states.length));
  for (const put of [
    'put in 680',
    'put in 704',
    'put in 728',
    'Hand ia680',
    'Words of c',
    'Words of late 0',
    'Words of on the record 1',
  ])
    expect(words(seen)).toContain(put);
});

test('nobody’s id is taken for the record or a change', async () => {
  const marks = ['record', 'change', 'wren'].map((id, i) => ({ ...text(id, 10 + i * 120), partyId: id }));
  let file = await sealed(await paper({ pages: 1 }), { room: roomOf(marks, [record(10)]) }, 'else');
  file = await sealed(file, { fills: marks.slice(0, 1) }, 'record');
  file = await sealed(file, { fills: marks.slice(1, 2) }, 'change');
  file = await sealed(file, { records: [record(10)] }, RECORD_SIGNER);
  expect(judged(file)).toEqual(sound(4));
  const names = (await PDFDocument.load(file))
    .getForm()
    .getFields()
    .map((f) => f.getName());
  expect(names).toHaveLength(new Set(names).size);
});

test('a document takes in no letters of a record that stands elsewhere', async () => {
  const one = await sealed(await paper({ pages: 1 }), { records: [record(5)], room: roomOf([]) }, RECORD_SIGNER);
  const { bytes, record: apart } = await sealing(one, { records: [record(300)] }, RECORD_SIGNER, 'late');
  expect(apart).not.toBeNull();
  // A signature and its field, and no face.
  expect(bytes.length - one.length).toBeLessThan(7_000);
});

test('a document that was sealed before seals certified goes on as it began', async () => {
  const one = readFileSync(path.join(__dirname, '../test/fixtures/sealed-before-certifying.pdf'));
  const two = await sealed(
    new Uint8Array(one),
    { fills: [signature('b', 130), text('c.1', 250), signature('new', 370)] },
    'b',
  );
  const { bytes, record: apart } = await sealing(two, { records: [record(100)] }, RECORD_SIGNER);
  expect(apart).toBeNull();
  const file = save(bytes);
  expect(Buffer.from(bytes.slice(0, one.length)).equals(one)).toBe(true);
  expect(verifySealed(Buffer.from(bytes))).toMatchObject({ whole: true, revisions: [{ n: 1 }, { n: 2 }, { n: 3 }] });
  for (const said of ['Hand b', 'Words of c.1', 'Hand new', 'line 99 of 100']) expect(words(file)).toContain(said);
  // It never said what may change, so nothing that is added to it is forbidden.
  expect(judged(bytes)).toEqual(sound(3));
});
