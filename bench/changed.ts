/** How right the comparison of two versions is, where the later one is a scan: a form against itself, and against itself with one word changed. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { compareVersions, type Change, type VersionPage } from '@gatepath/core/changed';
import { unpackFacts, type PackedFacts } from '@gatepath/contract';
import { itemAt } from '@gatepath/core/sure';
import { readPages } from '../server/reading/read';
import { sizesOf } from '../server/pdf/space';
import { stopRecognising } from '../server/scan/recognise';
import { readWhole } from '../server/scan/whole';
import { chance, scanOf } from '../server/test/scan';
import { kept } from './forms/held-back';
import { apart } from './forms/ways/apart';
import { FORMS } from './reading-score';

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-changed-'));
let files = 0;

/** Returns a file as it is compared: its words and its ink, recognised where it is a picture. */
async function versionOf(bytes: Uint8Array): Promise<VersionPage[]> {
  const file = path.join(dir, `${files++}.pdf`);
  writeFileSync(file, bytes);
  const sizes = sizesOf(await PDFDocument.load(bytes, { updateMetadata: false }));
  const task = { file, original: null, sizes, from: 1, to: sizes.length, before: '' };
  const step = await readPages(task, () => undefined);
  if (step.scans.length) {
    const pages = await versionOf((await readWhole(bytes, step.scans)).bytes);
    return pages.map((p, i) => (step.scans.includes(i + 1) ? { ...p, scan: true } : p));
  }
  const facts = { cell: 3, pages: JSON.parse(`[${step.pages}]`), places: [] } as PackedFacts;
  return unpackFacts('', '', facts).pages;
}

const SUM = '$7,315';

/** Returns the form with one of its words covered by a sum; which one, and where. */
async function altered(bytes: Uint8Array, pages: VersionPage[], random: () => number) {
  const words = pages.flatMap((p, i) => p.print.map((rect, n) => ({ page: i, rect, text: p.words[n] ?? '' })));
  const long = words.filter((w) => /^\p{L}{5,}$/u.test(w.text) && w.rect.h < 14);
  const word = itemAt(long, Math.floor(random() * long.length));
  const doc = await PDFDocument.load(bytes);
  const page = itemAt(doc.getPages(), word.page);
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const { x, w, h } = word.rect;
  const y = page.getHeight() - word.rect.y - h;
  page.drawRectangle({ x: x - 1, y: y - 1, width: w + 2, height: h + 2, color: rgb(1, 1, 1) });
  const size = Math.min(h * 0.95, (w / font.widthOfTextAtSize(SUM, 10)) * 10);
  page.drawText(SUM, { x, y: y + h * 0.2, size, font });
  return { bytes: await doc.save(), word };
}

export interface ChangedAccuracy {
  forms: number;
  pages: number;
  words: number;
  /** Changes told of forms that did not change: in words, and in ink. */
  falseWords: number;
  falseInk: number;
  /** Words that were changed, and those of them that were told. */
  changed: number;
  told: number;
}

const isTold = (c: Change, at: { page: number; rect: { y: number; h: number } }) =>
  !c.aside &&
  (c.before?.boxes ?? []).some(
    (b) => b.page === at.page + 1 && Math.abs(b.rect.y + b.rect.h / 2 - at.rect.y - at.rect.h / 2) < 8,
  );

/** Compares every kept form with its own scan, and with that of one whose word was changed. */
export async function changedAccuracy(most = Infinity): Promise<ChangedAccuracy> {
  const out = { forms: 0, pages: 0, words: 0, falseWords: 0, falseInk: 0, changed: 0, told: 0 };
  for (const [k, { name }] of [...kept, ...apart].slice(0, most).entries()) {
    const bytes = new Uint8Array(readFileSync(path.join(FORMS, `${name}.pdf`)));
    if ((await PDFDocument.load(bytes)).getPages().some((p) => p.getRotation().angle)) continue;
    const before = await versionOf(bytes);
    const same = compareVersions(before, await versionOf((await scanOf(bytes, undefined, k + 3)).bytes));
    const told = same.changes.filter((c) => !c.aside);
    out.forms++;
    out.pages += before.length;
    out.words += before.reduce((n, p) => n + p.words.length, 0);
    out.falseWords += told.filter((c) => !c.drawn).length;
    out.falseInk += told.filter((c) => c.drawn).length;
    if (process.env['TOLD'])
      for (const c of told) console.log(name, c.kind, c.drawn ? 'ink' : '', c.before?.text, '->', c.after?.text);
    const other = await altered(bytes, before, chance(k + 7));
    const { changes } = compareVersions(before, await versionOf((await scanOf(other.bytes, undefined, k + 3)).bytes));
    out.changed++;
    if (changes.some((c) => isTold(c, other.word))) out.told++;
  }
  await stopRecognising();
  return out;
}
