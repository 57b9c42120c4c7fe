import { readFileSync } from 'node:fs';
import path from 'node:path';
import { AnnotationMode } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { openContent } from '../server/pdf/content';
import { placesIn } from '../server/reading/inspect';
import { kept } from './forms/held-back';
import { apart } from './forms/ways/apart';
import { otherWays } from './forms/ways';
import { written } from './forms/written';
import { median, rowOf, type Row } from './measure';
import { f1, FORMS, together, type Score } from './reading-score';

/** Extracts text and drawing operators of every page with pdf.js, and does nothing with them. */
async function extractAlone(bytes: Uint8Array): Promise<void> {
  const { doc, destroy } = await openContent(bytes);
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    await page.getTextContent();
    await page.getOperatorList({ annotationMode: AnnotationMode.DISABLE });
    page.cleanup();
  }
  await destroy();
}

/** Measures reading all labelled forms, against extracting their text and drawing operators alone. */
export async function row(): Promise<Row> {
  const files = [...kept, ...written, ...otherWays, ...apart].map(
    (f) => new Uint8Array(readFileSync(path.join(FORMS, `${f.name}.pdf`))),
  );
  const ours = await median(async () => {
    for (const f of files) await placesIn(f);
  }, 5);
  const theirs = await median(async () => {
    for (const f of files) await extractAlone(f);
  }, 5);
  return rowOf(`read the printed places of ${files.length} forms`, ours, 'pdf.js: text and operators alone', theirs);
}

export interface Accuracy {
  set: string;
  forms: number;
  places: number;
  signatures: number;
  initials: number;
  all: number;
  roles: number;
  /** Of what is accepted unseen as a hand's: how much is right. */
  sure: number;
}

/** Returns a score in words. */
export const accuracy = (set: string, s: Score): Accuracy => {
  const all = together(s);
  return {
    set,
    forms: s.forms,
    places: all.hit + all.missed,
    signatures: f1(together(s, ['signature'])),
    initials: f1(together(s, ['initials'])),
    all: f1(all),
    roles: s.roles.of ? s.roles.right / s.roles.of : 1,
    sure: s.sure.of ? s.sure.right / s.sure.of : 1,
  };
};
