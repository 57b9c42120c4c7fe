/**
 * What tools that are not ours say of a sealed file: `pdfsig` of its signatures, `qpdf` of its form,
 * and `mutool`, as a strict viewer, of what was changed since its first seal.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PDFArray, PDFDict, PDFHexString, PDFName, type PDFDocument } from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import { annotate } from '../pdf-sealing/form';
import { openToAppend } from '../pdf-sealing/incremental';

const SCRIPT = `print(new PDFDocument(scriptArgs[0]).validateChangeHistory());`;

function withFile<T>(pdf: Uint8Array, ask: (file: string, dir: string) => T): T {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-judges-'));
  try {
    const file = path.join(dir, 'sealed.pdf');
    writeFileSync(file, new Uint8Array(pdf));
    return ask(file, dir);
  } finally {
    rmSync(dir, { recursive: true });
  }
}

/** Returns 0 if only permitted changes were made since the first seal, otherwise the revision with another change. */
export function forbiddenChanges(pdf: Uint8Array): number {
  return withFile(pdf, (file, dir) => {
    const script = path.join(dir, 'ask.js');
    writeFileSync(script, SCRIPT);
    for (let asked = 1; ; asked++) {
      const run = spawnSync('mutool', ['run', script, file]);
      const said = run.stdout.toString();
      if (/^\d+\s*$/.test(said)) return Number(said);
      // Once in a hundred times it falls over by itself, on files with changes that it would report.
      if (!run.signal || asked === 5) throw new Error(`mutool said: ${said}${run.stderr.toString()}`);
    }
  });
}

/**
 * Returns what three tools report: the number of valid seals, whether the file is well formed, and forbidden changes.
 */
export const judged = (pdf: Uint8Array) =>
  withFile(pdf, (file) => ({
    seals:
      execFileSync('pdfsig', ['-nocert', file])
        .toString()
        .match(/Signature is Valid/g)?.length ?? 0,
    wellFormed: execFileSync('qpdf', ['--check', file]).toString().includes('No syntax or stream encoding errors'),
    forbiddenChanges: forbiddenChanges(pdf),
  }));

/** Returns the words of a file's pages, as laid out. */
export const textOf = (pdf: Uint8Array) =>
  withFile(pdf, (file) => execFileSync('pdftotext', ['-layout', file, '-']).toString());

/**
 * Returns whether no word that `pdftotext` finds on a page reaches into a place, measured in points from the top left.
 */
export const fieldsFree = (pdf: Uint8Array, { page, rect: r }: { page: number; rect: Rect }) =>
  withFile(pdf, (file) => {
    const said = execFileSync('pdftotext', ['-bbox', '-f', String(page), '-l', String(page), file, '-']).toString();
    const words = said.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</g);
    return [...words].every(([, x0, y0, x1, y1]) => {
      const inside = Math.min(Number(x1), r.x + r.w) - Math.max(Number(x0), r.x);
      // A line's box reaches below and above its letters.
      const level = Math.min(Number(y1) - 3, r.y + r.h) - Math.max(Number(y0) + 3, r.y);
      return inside <= 1 || level <= 0;
    });
  });

/** Returns the same report for an intact sealed copy. */
export const sound = (seals: number) => ({ seals, wellFormed: true, forbiddenChanges: 0 });

const name = (text: string) => PDFName.of(text);

function fieldsOf(doc: PDFDocument): PDFDict[] {
  const fields = doc.catalog.lookup(name('AcroForm'), PDFDict).lookup(name('Fields'), PDFArray);
  return fields.asArray().map((_, i) => fields.lookup(i, PDFDict));
}

const isSeal = (field: PDFDict) => field.lookup(name('FT')) === name('Sig');

/** Changes that nobody may make to a sealed copy, made as a viewer would: appended, nothing before them touched. */
const FORBIDDEN: Record<string, (doc: PDFDocument) => void> = {
  'a word put on a page': (doc) => void doc.getPage(0).drawText('not what was signed', { x: 90, y: 400 }),
  'a page taken out': (doc) => doc.removePage(0),
  'a page added': (doc) => void doc.addPage([612, 792]),
  'a filled field changed': (doc) => {
    const filled = fieldsOf(doc).find((f) => !isSeal(f) && f.has(name('V')));
    // A file in which nobody wrote words has only hands: taking one for a word is a change as well.
    const changed = filled ?? fieldsOf(doc).find((f) => !isSeal(f));
    if (!changed) return;
    changed.set(name('V'), PDFHexString.fromText('other words'));
    doc.context.snapshot!.markObjForSave(changed);
  },
  'a stamp laid on a page': (doc) => {
    const stamp = doc.context.obj({ Type: 'Annot', Subtype: 'Stamp', Rect: [10, 10, 90, 90] });
    annotate(doc, doc.getPage(0), doc.context.register(stamp));
  },
  'the catalog changed': (doc) => {
    doc.catalog.set(name('PageMode'), name('FullScreen'));
    doc.context.snapshot!.markObjForSave(doc.catalog);
  },
  'the seals taken off': (doc) => {
    doc.catalog.delete(name('Perms'));
    doc.context.snapshot!.markObjForSave(doc.catalog);
  },
};

/** Returns the file with each forbidden change, made after its last seal. */
export async function forbidden(pdf: Uint8Array): Promise<[what: string, pdf: Uint8Array][]> {
  return Promise.all(
    Object.entries(FORBIDDEN).map(async ([what, change]): Promise<[string, Uint8Array]> => {
      const doc = await openToAppend(pdf);
      change(doc);
      const added = await doc.saveIncremental(doc.context.snapshot!, { useObjectStreams: false });
      return [what, Buffer.concat([pdf, added])];
    }),
  );
}
