/** Papers of every kind: brought in, read, prepared, signed and sealed like any other. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import JSZip from 'jszip';
import sharp from 'sharp';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { unpackFacts, type DealView, type DocumentView, type PackedFacts, type SigningView } from '@gatepath/contract';
import { type DraftEdit, type Mark, acceptEdits, canAccept, proposalsOf } from '@gatepath/core/packet';
import { relationOf } from '@gatepath/core/memory';
import { verifySealed } from './pdf-sealing/verify';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';
import { judged, sound } from './test/judges';

jest.setTimeout(240_000);

let server: TestServer;
let deal: DealView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('9 Cooper’s Wharf', ['Wren Alder']);
});
afterAll(() => server.stop());

/** Returns a Word file with a heading, a table, a line drawn by a tab stop, and a content-control tick box. */
async function docx(): Promise<Uint8Array> {
  const zip = new JSZip();
  zip.file(
    '[Content_Types].xml',
    '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
  );
  zip.file(
    '_rels/.rels',
    '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
  );
  const p = (text: string, more = '') => `<w:p>${more}<w:r><w:t xml:space="preserve">${text}</w:t></w:r></w:p>`;
  const line = '<w:pPr><w:tabs><w:tab w:val="left" w:leader="underscore" w:pos="5000"/></w:tabs></w:pPr>';
  const cell = (text: string) => `<w:tc><w:tcPr/>${p(text)}</w:tc>`;
  zip.file(
    'word/document.xml',
    `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${p('Seller’s disclosure of the wharf')}${p('The landing stage and the boat shed go with the house at Cooper’s Wharf.')}<w:tbl><w:tr>${cell('Room')}${cell('Condition')}</w:tr><w:tr>${cell('Kitchen')}${cell('good')}</w:tr></w:tbl><w:p>${line}<w:r><w:t xml:space="preserve">Seller’s signature:</w:t></w:r><w:r><w:tab/></w:r></w:p></w:body></w:document>`,
  );
  return zip.generateAsync({ type: 'uint8array' });
}

const TEXT = `Seller's disclosure

The roof of the house was made new in the year before last.
    Indented lines stay where they are.

Seller's signature: ______________________   Date: ____________
Seller's initials (______)
`;

/** Returns a photographed page, lying on its side as phones store it, with the turn in its EXIF data. */
async function photo(format: 'jpeg' | 'png' | 'webp'): Promise<Uint8Array> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="850" height="1100"><rect width="850" height="1100" fill="#f4f1ea"/><rect x="100" y="100" width="650" height="40" fill="#222"/></svg>`;
  const upright = sharp(Buffer.from(svg));
  if (format !== 'jpeg') return new Uint8Array(await upright[format]().toBuffer());
  // Turned left, and marked to be turned right again: orientation 6 (EXIF 2.3, 4.6.4).
  const lying = await upright.rotate(270).toBuffer();
  return new Uint8Array(await sharp(lying).withMetadata({ orientation: 6 }).jpeg().toBuffer());
}

const factsOf = async (doc: DocumentView) =>
  (await server.ok('documentFacts', { params: { documentId: doc.id } })) as PackedFacts;

const PAPERS: [
  name: string,
  make: () => Promise<Uint8Array> | Uint8Array,
  came: DocumentView['cameAs'],
  type: string,
][] = [
  ['disclosure.docx', docx, 'docx', 'seller_disclosure'],
  ['disclosure.txt', () => Buffer.from(TEXT), 'text', 'seller_disclosure'],
  ['page.jpg', () => photo('jpeg'), 'picture', 'picture'],
  ['page.png', () => photo('png'), 'picture', 'picture'],
  ['page.webp', () => photo('webp'), 'picture', 'picture'],
];

test.each(PAPERS)('%s is made a PDF, signed, executed and sealed', async (name, make, came, type) => {
  const bytes = await make();
  const doc = await server.uploadReady(deal.id, name, bytes);
  expect([doc.status, doc.cameAs, doc.type]).toEqual(['ready', came, type]);
  expect(doc.pages[0]).toEqual({ width: 612, height: 792 });
  const original = await server.call('documentFile', { params: { documentId: doc.id } });
  expect(original.raw.equals(bytes)).toBe(true);

  const party = deal.parties[0]!;
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name, documentIds: [doc.id] },
  });
  const mark = (id: string, kind: Mark['kind'], x: number): DraftEdit => ({
    op: 'put',
    list: 'marks',
    item: {
      id,
      documentId: doc.id,
      page: 1,
      kind,
      partyId: party.id,
      rect: { x, y: 700, w: 120, h: 26 },
      required: true,
    },
  });
  // What was read is accepted; a picture has nothing that could be read.
  const facts = unpackFacts(doc.id, doc.name, await factsOf(doc));
  const read = proposalsOf(packet.draft, [facts]).filter(canAccept);
  await server.edit(packet.id, [
    ...acceptEdits(read, packet.draft.parties),
    ...(read.some((p) => p.kind === 'signature') ? [] : [mark('s', 'signature', 60)]),
    mark('i', 'initials', 300),
  ]);
  await server.send(packet.id);
  await server.sign(await server.tokenFor(packet.id, party.name), typedHand('Wren Alder', 'WA'));
  const done = await server.until(packet.id, (p) => p.sent!.sealed !== null);
  expect(done.status).toBe('executed');
  const copy = (await server.call('sealedCopy', { params: { packetId: packet.id, documentId: doc.id } })).raw;
  expect(verifySealed(copy).whole).toBe(true);
  expect(judged(copy)).toEqual(sound(2));
});

test('what a Word file and a text say stays, lines to write on included, and is read', async () => {
  const word = await factsOf(await server.uploadReady(deal.id, 'w.docx', await docx()));
  expect(word.pages[0]!.words).toContain('The landing stage and the boat shed');
  expect(word.places).toMatchObject([{ kind: 'signature', role: 'seller', ordinal: 1 }]);
  const text = await factsOf(await server.uploadReady(deal.id, 't.txt', Buffer.from(TEXT)));
  expect(text.places.map((p) => [p.kind, p.role])).toEqual([
    ['signature', 'seller'],
    ['date', 'seller'],
    ['initials', 'seller'],
  ]);
});

test('a photographed page stands upright and carries nothing of where it was taken', async () => {
  const doc = await server.uploadReady(deal.id, 'exif.jpg', await photo('jpeg'));
  const png = (await server.call('documentPage', { params: { documentId: doc.id, page: 1 }, query: { dpi: '72' } }))
    .raw;
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => data[Math.round(y) * info.width + Math.round(x)]!;
  // The dark bar is near the top, across.
  expect(at(306, 86)).toBeLessThan(90);
  expect(at(306, 700)).toBeGreaterThan(200);
});

test('what is no paper is refused by name, and one bad file leaves the others alone', async () => {
  const says = async (name: string, bytes: Uint8Array) => {
    const a = await server.upload(deal.id, name, bytes);
    return `${a.status} ${a.problem.detail}`;
  };
  expect(await says('old.doc', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]))).toMatch(
    /422 .*old\.doc.*old Word file/,
  );
  expect(await says('a.heic', Buffer.from('\0\0\0\x18ftypheic0000'))).toMatch(/422 .*a\.heic.*HEIC/);
  const packed = (name: string) => new JSZip().file(name, '<x/>').generateAsync({ type: 'uint8array' });
  expect(await says('sheet.xlsx', await packed('xl/workbook.xml'))).toMatch(/422 .*sheet\.xlsx.*cannot be made a PDF/);
  expect(await says('slides.zip', await packed('ppt/slides.xml'))).toMatch(
    /422 .*slides\.zip.*not a paper we can read/,
  );
  expect(await says('saved.pdf', Buffer.from('<html>Not found</html>'))).toMatch(/422 .*saved\.pdf.* is not a PDF/);
  const torn = await docx();
  expect(await says('torn.docx', torn.slice(0, torn.length - 40))).toMatch(/422 /);
  const broken = await photo('png');
  expect(await says('torn.png', broken.slice(0, 300))).toMatch(/422 .*torn\.png/);
  expect((await server.upload(deal.id, 'fine.txt', Buffer.from('Fine.'))).status).toBe(200);
});

test('fields of a form are read as marks with their kinds, and values that were filled in stay on the page', async () => {
  const made = await PDFDocument.create();
  const page = made.addPage([612, 792]);
  const font = await made.embedFont(StandardFonts.Helvetica);
  page.drawText('What the seller knows of the water and the heating of the house', { x: 72, y: 740, size: 12, font });
  const form = made.getForm();
  const at = (y: number) => ({ x: 72, y, width: 180, height: 20, font });
  const text = form.createTextField('Seller1_Phone');
  text.setMaxLength(12);
  text.addToPage(page, at(700));
  const filled = form.createTextField('Seller1_Name');
  filled.setText('Wren Alder');
  filled.addToPage(page, at(660));
  const choice = form.createDropdown('Heating');
  choice.addOptions(['Gas', 'Oil', 'Wood']);
  choice.addToPage(page, at(620));
  const radio = form.createRadioGroup('Water');
  radio.addOptionToPage('Own well', page, { x: 72, y: 580, width: 14, height: 14 });
  radio.addOptionToPage('Town', page, { x: 172, y: 580, width: 14, height: 14 });
  const init = form.createTextField('Seller1_Initials');
  init.enableRequired();
  init.addToPage(page, { x: 72, y: 540, width: 50, height: 20, font });
  const doc = await server.uploadReady(deal.id, 'fields.pdf', await made.save());
  const facts = await factsOf(doc);
  const named = facts.places.filter((p) => p.source === 'acroform');
  expect(named.map((p) => [p.field!.name, p.kind, p.role, p.ordinal])).toEqual([
    ['Seller1_Phone', 'text', 'seller', 1],
    ['Heating', 'text', 'unknown', null],
    ['Water', 'checkbox', 'unknown', null],
    ['Water', 'checkbox', 'unknown', null],
    ['Seller1_Initials', 'initials', 'seller', 1],
  ]);
  expect(named[0]!.field!.maxLength).toBe(12);
  expect(named[1]!.field!.options).toEqual(['Gas', 'Oil', 'Wood']);
  expect(named[4]!.field!.required).toBe(true);
  expect(facts.pages[0]!.words).toContain('Wren Alder');
  expect(named[0]!.rect).toEqual({ x: 71.5, y: 71.5, w: 181, h: 21 });
  // The field is no place any more; that something was filled in there is known.
  expect(facts.pages[0]!.filled).toEqual([71.5, 111.5, 181, 21]);
  filled.setText('Callum Pike');
  const other = await factsOf(await server.uploadReady(deal.id, 'other-fields.pdf', await made.save()));
  expect(relationOf(unpackFacts('a', 'a', facts), unpackFacts('b', 'b', other)).kind).toBe('filled');
});

test('pages are left out, turned, reordered and joined; the originals stay', async () => {
  const a = await server.uploadReady(deal.id, 'a.pdf', await paper({ pages: 3, title: 'Alpha' }));
  const b = await server.uploadReady(deal.id, 'b.pdf', await paper({ pages: 1, title: 'Beta', rotate: 90 }));
  const made = await server.ok('composeDocument', {
    params: { dealId: deal.id },
    body: {
      name: 'Both',
      parts: [
        { documentId: b.id, page: 1 },
        { documentId: a.id, page: 3, turn: 90 },
        { documentId: a.id, page: 1 },
      ],
      replaces: [a.id, b.id],
    },
  });
  expect(made.pages).toEqual([
    { width: 792, height: 612 },
    { width: 792, height: 612 },
    { width: 612, height: 792 },
  ]);
  const replaced = async () => {
    const view = await server.ok('deal', { params: { dealId: deal.id } });
    return [a.id, b.id].map((id) => view.documents.find((d) => d.id === id)!.replacedBy);
  };
  expect(await replaced()).toEqual([made.id, made.id]);
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'made-')), 'made.pdf');
  const { rows } = await server.ctx.database.pool.query<{ sha256: string }>(
    'select sha256 from document where id = $1',
    [made.id],
  );
  writeFileSync(file, new Uint8Array(await server.ctx.files.read(rows[0]!.sha256)));
  expect(execFileSync('pdftotext', ['-f', '3', '-l', '3', file, '-']).toString()).toContain('Alpha - section 1');
  expect(execFileSync('qpdf', ['--check', file]).toString()).toContain('No syntax or stream encoding errors');
  const bad = await server.call('composeDocument', {
    params: { dealId: deal.id },
    body: { name: 'x', parts: [{ documentId: a.id, page: 9 }] },
  });
  expect([bad.status, bad.problem.detail]).toEqual([422, '“a” has no page 9.']);

  // undone in a packet: what stands there again is the deal's again, and only that
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Undone', documentIds: [made.id] },
  });
  await server.edit(packet.id, [
    { op: 'put', list: 'documents', item: { id: a.id }, index: 0 },
    { op: 'drop', list: 'documents', id: made.id },
  ]);
  expect(await replaced()).toEqual([null, made.id]);
});

test('every kind of mark is filled by its own rules, a file joins the packet, and all of it is sealed', async () => {
  const doc = await server.uploadReady(deal.id, 'kinds.pdf', await paper({ pages: 1 }));
  const party = deal.parties[0]!;
  await server.ok('setDeal', {
    params: { dealId: deal.id },
    body: { facts: { price: 410_000 }, dates: { closing: '2026-12-15' } },
  });
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Kinds', documentIds: [doc.id] },
  });
  let y = 0;
  const mark = (id: string, kind: Mark['kind'], more: Partial<Mark> = {}): DraftEdit => ({
    op: 'put',
    list: 'marks',
    item: {
      id,
      documentId: doc.id,
      page: 1,
      kind,
      partyId: party.id,
      rect: { x: 420, y: 30 + 36 * y++, w: 150, h: kind === 'tick' || kind === 'choice' ? 14 : 24 },
      required: true,
      ...more,
    },
  });
  await server.edit(packet.id, [
    { op: 'set', field: 'message', value: 'For {address}, at {price}, on {closing day}.' },
    mark('sig', 'signature'),
    mark('num', 'number', { check: { max: 9 } }),
    mark('sum', 'money'),
    mark('day', 'date'),
    mark('lst', 'list', { options: ['Gas', 'Oil'] }),
    mark('tck', 'tick', { required: false }),
    mark('ch1', 'choice', { group: 'g', label: 'Stays' }),
    mark('ch2', 'choice', { group: 'g', label: 'Goes' }),
    mark('opt', 'text', { required: false, lines: 'several', rect: { x: 420, y: 340, w: 160, h: 60 } }),
    mark('pdf', 'file', { label: 'Proof of title', rect: { x: 420, y: 410, w: 150, h: 24 } }),
    mark('lbl', 'label', {
      partyId: 'nobody',
      required: false,
      value: 'At {address}',
      rect: { x: 420, y: 450, w: 150, h: 16 },
    }),
    {
      op: 'put',
      list: 'redlines',
      item: {
        id: 'red',
        documentId: doc.id,
        page: 1,
        kind: 'insert',
        rects: [{ x: 420, y: 500, w: 120, h: 14 }],
        text: 'and the stove',
        moved: [],
      },
    },
  ]);
  await server.send(packet.id);
  const token = await server.tokenFor(packet.id, party.name);
  const pass = { token };
  const start = await server.ok('signing', { params: pass });
  expect(start.message).toBe('For 9 Cooper’s Wharf, at $410,000, on Dec 15, 2026.');
  expect(start.fills.map((f) => f.shows)).toEqual([{ form: 'text', text: 'At 9 Cooper’s Wharf' }]);
  expect(start.redlines).toHaveLength(1);
  expect(start.marks.filter((m) => m.kind === 'initials')).toHaveLength(1);
  await server.ok('agree', { params: pass, body: { agreement: start.agreementText.version } });
  await server.ok('setHand', { params: pass, body: typedHand('Wren Alder', 'WA') });
  let n = 0;
  const fill = (markId: string, text?: string) =>
    server.call('fill', {
      params: { token, markId },
      body: { actId: `act-${++n}-${markId}`, ...(text === undefined ? {} : { text }) },
    });
  const refused = async (markId: string, text: string) => (await fill(markId, text)).problem.detail;
  expect(await refused('num', '12')).toBe('Please write 9 or less.');
  expect(await refused('day', 'soon')).toMatch(/Please write a date/);
  expect(await refused('lst', 'Coal')).toMatch(/from the list/);
  expect(await refused('lbl', 'x')).toMatch(/belongs to someone else/);
  expect(await refused('pdf', 'words')).toMatch(/photo or a PDF/);
  for (const [id, text] of [
    ['sig'],
    ['num', '7'],
    ['sum', '1250'],
    ['day', '12/1/2026'],
    ['lst', 'Oil'],
    ['tck', 'yes'],
    ['ch1', 'yes'],
    ['opt', 'Two\nlines'],
    ['red.r.' + party.id],
  ] as [string, string?][])
    expect((await fill(id, text)).status).toBe(200);
  // Another choice of the group takes the place of the first; a tick can be taken back.
  expect((await fill('ch2', 'yes')).status).toBe(200);
  expect((await fill('tck', '')).status).toBe(200);
  const add = async (name: string, bytes: Uint8Array, act: string) => {
    const boundary = 'gatepath';
    const head = `--${boundary}\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\ncontent-type: application/octet-stream\r\n\r\n`;
    return server.inject<SigningView>({
      method: 'POST',
      url: `/api/signing/${token}/marks/pdf/file?actId=${act}`,
      headers: { 'content-type': `multipart/form-data; boundary=${boundary}` },
      payload: Buffer.concat([Buffer.from(head), Buffer.from(bytes), Buffer.from(`\r\n--${boundary}--\r\n`)]),
    });
  };
  expect((await add('x.zip', Buffer.from('PK\u0003\u0004nothing'), 'file-act-1')).status).toBe(422);
  const added = await add('title.png', await photo('png'), 'file-act-2');
  expect(added.status).toBe(200);
  expect((await server.call('finish', { params: pass, body: { actId: 'finish-1' } })).status).toBe(200);
  const done = await server.until(packet.id, (p) => p.sent!.sealed !== null);
  expect(done.sent!.ledger.done).toBe(done.sent!.ledger.total);
  expect(done.sent!.fills.filter((f) => f.shows.form === 'tick').map((f) => f.markId)).toEqual(['ch2']);
  expect(done.sent!.sealed!.map((s) => s.name)).toEqual(['kinds', 'Proof of title: title.png']);
  for (const s of done.sent!.sealed!) {
    const copy = await server.call('sealedCopy', { params: { packetId: packet.id, documentId: s.documentId } });
    expect(verifySealed(copy.raw).whole).toBe(true);
    const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'kinds-')), 'sealed.pdf');
    writeFileSync(file, new Uint8Array(copy.raw));
    if (s.documentId !== doc.id) continue;
    const words = execFileSync('pdftotext', ['-f', '1', '-l', '1', '-layout', file, '-']).toString();
    for (const w of [
      '$1,250.00',
      'Dec 1, 2026',
      'Oil',
      'Two',
      'lines',
      'and the stove',
      'At 9 Cooper’s Wharf',
      'Wren Alder',
      'WA',
    ])
      expect(words).toContain(w);
  }
});
