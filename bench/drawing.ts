import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { listingAgreement } from '../demo/papers';
import { drawPng } from '../server/pdf/draw';
import { median, rowOf, type Row } from './measure';

/** Measures page pictures at 108 dpi, all pages of the listing agreement, against pdftoppm on the same pages. */
export async function row(): Promise<Row> {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-bench-'));
  const file = path.join(dir, 'paper.pdf');
  writeFileSync(file, await listingAgreement('14 Lantern Row'));
  const pages = 6;
  const ours = await median(async () => {
    for (let page = 1; page <= pages; page++)
      await drawPng({ file, page, size: { width: 612, height: 792 }, dpi: 108 });
  });
  const theirs = await median(() => execFileSync('pdftoppm', ['-png', '-r', '108', file, path.join(dir, 'page')]));
  return rowOf('draw a page, PNG at 108 dpi', ours / pages, 'pdftoppm -png -r 108', theirs / pages);
}
