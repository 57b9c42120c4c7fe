/** What a client's typed hand waits while two of each of the heaviest tasks run, against the same without them. */
import JSZip from 'jszip';
import { PDFDocument } from '@cantoo/pdf-lib';
import { newId } from '../server/ids';
import { withFirm } from './firm';
import { median, rowOf, type Row } from './measure';

const PAGES = 300;

/** Returns a text of many words on many pages. */
async function longPaper(seed: number): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (let p = 0; p < PAGES; p++) {
    const page = doc.addPage([612, 792]);
    for (let line = 0; line < 40; line++) {
      const words = Array.from({ length: 10 }, (_, i) => `w${(p * 7 + line * seed + i) % 977}`);
      page.drawText(words.join(' '), { x: 60, y: 740 - line * 16, size: 9 });
    }
  }
  return doc.save();
}

/** Returns a paper of a word processor with many paragraphs. */
async function longDocx(): Promise<Uint8Array> {
  const zip = new JSZip();
  const types = 'http://schemas.openxmlformats.org/package/2006/content-types';
  const rels = 'http://schemas.openxmlformats.org/package/2006/relationships';
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument';
  const word = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
  zip.file(
    '[Content_Types].xml',
    `<Types xmlns="${types}"><Default Extension="xml" ContentType="application/xml"/></Types>`,
  );
  zip.file(
    '_rels/.rels',
    `<Relationships xmlns="${rels}"><Relationship Id="r" Type="${office}" Target="word/document.xml"/></Relationships>`,
  );
  const paragraph = '<w:p><w:r><w:t>The tenant keeps the dwelling in good order.</w:t></w:r></w:p>';
  zip.file(
    'word/document.xml',
    `<w:document xmlns:w="${word}"><w:body>${paragraph.repeat(6_000)}</w:body></w:document>`,
  );
  return zip.generateAsync({ type: 'uint8array' });
}

export const row = (): Promise<Row> =>
  withFirm(async (desk, { ctx }) => {
    await ctx.work.warm();
    const hand = () => ctx.work.run('missing', { text: `Wren ${newId()}`, face: 'caveat' });
    const deal = await desk.ok('newDeal', { body: { kind: 'sale', address: '1 Bench Row', city: '', parties: [] } });
    const [one, two] = [
      await desk.uploadReady(deal.id, 'one.pdf', await longPaper(3)),
      await desk.uploadReady(deal.id, 'two.pdf', await longPaper(5)),
    ];
    const docx = await longDocx();
    const forged = Buffer.concat([
      Buffer.from('%PDF-1.4\n'),
      Buffer.from('/ByteRange [0 10 20 30 ]\n'.repeat(300)),
      Buffer.alloc(8 * 1024 * 1024, 0x20),
    ]);
    const idle = await median(hand, 41);
    let over = false;
    const heavy = async (task: () => Promise<unknown>) => {
      while (!over) await task().catch(() => new Promise((r) => setTimeout(r, 50)));
    };
    const compare = (documentId: string, beforeId: string) => () =>
      desk.call('changes', { params: { documentId, beforeId } });
    const tasks = [
      compare(one.id, two.id),
      compare(two.id, one.id),
      ...[1, 2].map(() => () => desk.upload(deal.id, 'long.docx', docx)),
      ...[1, 2].map(() => () => ctx.work.run('verifySeals', { bytes: new Uint8Array(forged) })),
      ...[1, 2].map((n) => () => ctx.work.run('slots', { documents: [] }, `owner ${n}`)),
    ].map(heavy);
    await new Promise((r) => setTimeout(r, 2_000));
    const loaded = await median(hand, 41);
    over = true;
    await Promise.all(tasks);
    return rowOf(
      'a typed hand while two of each of the heaviest tasks run',
      loaded,
      'the same, nothing else running',
      idle,
    );
  });
