import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { DocumentView } from '@gatepath/contract';
import { deskRow } from './desk';
import { withFirm } from './firm';
import { rowOf, type Row } from './measure';

const DOCUMENTS = 60;
const PAGES = 1000;

async function paper(title: string, pages: number): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([612, 792]);
    page.drawText(`${title}, section ${n}`, { x: 60, y: 730, size: 14, font });
    for (let y = 700; y > 120; y -= 15)
      page.drawText(
        'The sellers state that roof, drains and cellar are as described in this paper, to the best of their knowledge.',
        { x: 60, y, size: 9.5, font },
      );
    page.drawText('Seller’s initials ( ______ ) ( ______ )', { x: 60, y: 60, size: 10, font });
  }
  return doc.save();
}

/**
 * Measures bringing in 60 documents of 1,000 pages and reading them all, against poppler drawing and extracting the
 * same.
 */
export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const deal = await desk.ok('newDeal', { body: { kind: 'sale', address: '1 Weir Terrace', parties: [] } });
    const files: Uint8Array[] = [];
    for (let d = 0; d < DOCUMENTS; d++) {
      const pages = Math.floor(((d + 1) * PAGES) / DOCUMENTS) - Math.floor((d * PAGES) / DOCUMENTS);
      files.push(await paper(`Paper ${d + 1}`, pages));
    }
    const before = process.memoryUsage().rss;
    let most = before;
    const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 200);
    const start = performance.now();
    const docs: DocumentView[] = [];
    for (const [i, bytes] of files.entries()) docs.push((await desk.upload(deal.id, `Paper ${i + 1}.pdf`, bytes)).body);
    for (;;) {
      const now = await desk.ok('deal', { params: { dealId: deal.id } });
      if (now.documents.every((d) => d.status === 'ready')) break;
      await new Promise((r) => setTimeout(r, 100));
    }
    const ours = performance.now() - start;
    clearInterval(watch);
    const facts = await desk.ok('documentFacts', { params: { documentId: docs[0]!.id } });
    if (!facts.places.length) throw new Error('nothing was read');
    const look = await deskRow(running, desk, await desk.ok('deal', { params: { dealId: deal.id } }));
    if (look.thumbs > look.pages / 4)
      throw new Error(`the overview draws ${look.thumbs} pages of ${look.pages} at once`);
    if (look.rows > look.pages / 4)
      throw new Error(`the ledger draws ${look.rows} rows of ${look.pages} pages at once`);
    const tmp = mkdtempSync(path.join(os.tmpdir(), 'gatepath-peer-'));
    files.forEach((f, i) => writeFileSync(path.join(tmp, `${i}.pdf`), f));
    const peer = performance.now();
    for (let i = 0; i < files.length; i++) {
      execFileSync('pdftotext', ['-bbox', path.join(tmp, `${i}.pdf`), path.join(tmp, 'out.html')]);
      execFileSync('pdftoppm', ['-r', '96', '-gray', path.join(tmp, `${i}.pdf`), path.join(tmp, 'out')]);
    }
    const theirs = performance.now() - peer;
    rmSync(tmp, { recursive: true, force: true });
    const read: Row = {
      ...rowOf(
        `import and read ${DOCUMENTS} documents, ${PAGES} pages`,
        ours,
        'pdftotext -bbox and pdftoppm at 96 dpi',
        theirs,
      ),
      memory: Math.round((most - before) / 1024 / 1024),
    };
    return [read, look.row];
  });
}
