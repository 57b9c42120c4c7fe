/** What the PDF workers do, by name; see pool.ts for the calling side. */
import { readFile } from 'node:fs/promises';
import { compose, sizes, type ComposePart } from './compose';
import { convert, sortOf, type PaperKind } from './convert';
import { drawPng } from './draw';
import { missingCharacters, type FaceName } from './fonts';
import { inspect } from './inspect';
import { handPicture } from './hand-picture';
import { prepare } from './prepare';
import { readFacts } from './read';
import { copyWith, seal, type Copy, type SealTask } from './seal';

/** A task whose bytes lie in files: workers read them themselves. */
type FromFiles<T> = Omit<T, 'bytes' | 'pictures'> & { file: string; pictures: Record<string, string> };

async function withBytes<T extends { file: string; pictures: Record<string, string> }>(
  t: T,
): Promise<Omit<T, 'pictures'> & { bytes: Uint8Array; pictures: Record<string, Uint8Array> }> {
  const pictures: Record<string, Uint8Array> = {};
  for (const [sha256, file] of Object.entries(t.pictures)) pictures[sha256] = new Uint8Array(await readFile(file));
  return { ...t, bytes: new Uint8Array(await readFile(t.file)), pictures };
}

export const tasks = {
  sort: async (t: { file: string; name: string }) => sortOf(new Uint8Array(await readFile(t.file)), t.name),
  convert: async (t: { file: string; kind: Exclude<PaperKind, 'pdf'>; title: string }) =>
    convert(new Uint8Array(await readFile(t.file)), t.kind, t.title),
  compose: async (t: { parts: ComposePart[] }) => compose(t.parts),
  sizes: async (t: { bytes: Uint8Array }) => sizes(t.bytes),
  inspect: async (t: { bytes: Uint8Array }) => inspect(t.bytes),
  prepare: async (t: { file: string }) => prepare(new Uint8Array(await readFile(t.file))),
  facts: readFacts,
  png: drawPng,
  seal: async (t: FromFiles<SealTask>) => seal(await withBytes(t)),
  copy: async (t: FromFiles<Copy>) => copyWith(await withBytes(t)),
  picture: handPicture,
  missing: (t: { text: string; face: FaceName; alone?: boolean }) => missingCharacters(t.text, t.face, t.alone),
};

export type Tasks = typeof tasks;

export default async function run(job: { task: keyof Tasks; input: never }): Promise<unknown> {
  return (tasks[job.task] as (input: never) => Promise<unknown>)(job.input);
}
