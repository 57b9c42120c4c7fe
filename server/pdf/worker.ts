/** What the PDF workers do, by name; see pool.ts for the calling side. */
import { readFile } from 'node:fs/promises';
import { compose, type ComposePart } from './compose';
import { convert, sortOf, type PaperKind } from './convert';
import { drawPng } from './draw';
import { missingCharacters, type FaceName } from './fonts';
import { inspect } from './inspect';
import { prepare } from './prepare';
import { readFacts } from './read';
import { seal, type SealTask } from './seal';

export const tasks = {
  sort: async (t: { file: string; name: string }) => sortOf(new Uint8Array(await readFile(t.file)), t.name),
  convert: async (t: { file: string; kind: Exclude<PaperKind, 'pdf'>; title: string }) =>
    convert(new Uint8Array(await readFile(t.file)), t.kind, t.title),
  compose: async (t: { parts: ComposePart[] }) => compose(t.parts),
  inspect: async (t: { bytes: Uint8Array }) => inspect(t.bytes),
  prepare: async (t: { file: string }) => prepare(new Uint8Array(await readFile(t.file))),
  facts: readFacts,
  png: drawPng,
  seal: async (t: Omit<SealTask, 'bytes'> & { file: string }) =>
    seal({ ...t, bytes: new Uint8Array(await readFile(t.file)) }),
  missing: (t: { text: string; face: FaceName; alone?: boolean }) => missingCharacters(t.text, t.face, t.alone),
};

export type Tasks = typeof tasks;

export default async function run(job: { task: keyof Tasks; input: never }): Promise<unknown> {
  return (tasks[job.task] as (input: never) => Promise<unknown>)(job.input);
}
