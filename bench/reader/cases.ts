/** Labeled forms as the reader gets them: text and drawing of each page, form fields, and the truth. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { PageContent, PrintedPlace } from '@gatepath/core/reading';
import { contentsOf } from '../../server/reading/inspect';
import { FORMS } from '../reading-score';
import type { Labelled } from '../forms/types';
import type { TruePlace } from './pairing';

/** A labeled form. */
export interface Case {
  name: string;
  contents: PageContent[];
  fields: PrintedPlace[];
  truth: TruePlace[];
}

/** What extracts the content of pages: what is kept between runs is kept apart for each state of it. */
const EXTRACTING = ['content.ts', 'paths.ts', 'font-facts.ts', 'operands.ts'].map((f) =>
  path.join(FORMS, '../../server/pdf', f),
);
const digest = createHash('sha256');
for (const file of EXTRACTING) digest.update(readFileSync(file));
const KEPT = path.join(os.tmpdir(), `gatepath-forms-${digest.digest('hex').slice(0, 12)}`);

/** Returns the pages of a file; kept between runs, because extracting takes longer than everything after it. */
async function extracted(file: string): Promise<Pick<Case, 'contents' | 'fields'>> {
  const bytes = new Uint8Array(readFileSync(file));
  mkdirSync(KEPT, { recursive: true });
  const kept = path.join(KEPT, `${createHash('sha256').update(bytes).digest('hex')}.json`);
  if (existsSync(kept)) return JSON.parse(readFileSync(kept, 'utf8')) as Pick<Case, 'contents' | 'fields'>;
  const read = await contentsOf(bytes);
  // Written to another name first: a second run that shares the folder must not read half a file.
  writeFileSync(`${kept}.${process.pid}`, JSON.stringify(read));
  renameSync(`${kept}.${process.pid}`, kept);
  return read;
}

/** Returns the forms of a folder by other hands: `a` or `b`. */
export async function othersOf(set: 'a' | 'b'): Promise<Case[]> {
  const dir = path.join(FORMS, 'others', set);
  const out: Case[] = [];
  for (const file of readdirSync(path.join(dir, 'truth')).sort()) {
    const t = JSON.parse(readFileSync(path.join(dir, 'truth', file), 'utf8')) as { file: string; places: TruePlace[] };
    out.push({ name: file.slice(0, -5), ...(await extracted(path.join(dir, t.file))), truth: t.places });
  }
  return out;
}

/** Returns our own labeled forms. */
export async function ownForms(names: string[]): Promise<Case[]> {
  const out: Case[] = [];
  for (const name of names) {
    const labels = JSON.parse(readFileSync(path.join(FORMS, `${name}.json`), 'utf8')) as Labelled[];
    out.push({ name, ...(await extracted(path.join(FORMS, `${name}.pdf`))), truth: labels as TruePlace[] });
  }
  return out;
}

/** Returns generated forms from a folder, with the layouts they use. */
export async function generated(dir: string, from: number, to: number): Promise<(Case & { layouts: string[] })[]> {
  const out: (Case & { layouts: string[] })[] = [];
  for (let seed = from; seed < to; seed++) {
    const file = path.join(dir, `made-${seed}`);
    if (!existsSync(`${file}.json`)) continue;
    const { places, signing, foot } = JSON.parse(readFileSync(`${file}.json`, 'utf8')) as {
      places: Labelled[];
      signing: string[];
      foot: string;
    };
    out.push({
      name: `made-${seed}`,
      ...(await extracted(`${file}.pdf`)),
      truth: places as TruePlace[],
      layouts: [...new Set([...signing, `foot ${foot}`])],
    });
  }
  return out;
}
