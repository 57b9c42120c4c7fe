/**
 * Building the workers' program as plain JavaScript, once: reading TypeScript would add seconds to each start, and
 * one is started whenever another was ended.
 */
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { writeWhole } from '../write-whole';

const HERE = path.dirname(fileURLToPath(import.meta.url));
const OUT = path.join(HERE, 'built');
const ROOT = path.join(HERE, '..', '..');
const OLD_MS = 7 * 86_400_000;

let made: Promise<string> | null = null;

/** Returns the file to start worker processes with. Tests build it once for all their servers. */
export function workerProgram(): Promise<string> {
  const { GATEPATH_WORKERS } = process.env;
  made ??= GATEPATH_WORKERS ? Promise.resolve(GATEPATH_WORKERS) : make();
  return made;
}

async function make(): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [path.join(HERE, 'process.ts')],
    bundle: true,
    // What a task needs is loaded with the first task that needs it.
    splitting: true,
    write: false,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: await packages(),
    outdir: OUT,
    entryNames: '[name]-[hash]',
    chunkNames: '[name]-[hash]',
    logLevel: 'silent',
  });
  await mkdir(OUT, { recursive: true });
  const names = new Set(outputFiles.map((f) => path.basename(f.path)));
  // Several processes may do this at once: names depend on contents, and a file appears whole or not at all.
  for (const file of outputFiles) {
    if (existsSync(file.path)) continue;
    await writeWhole(file.path, file.contents);
  }
  for (const name of await readdir(OUT)) {
    const file = path.join(OUT, name);
    const age = await stat(file)
      .then((s) => Date.now() - s.mtimeMs)
      .catch(() => 0);
    if (!names.has(name) && age > OLD_MS) await rm(file, { force: true });
  }
  return outputFiles.find((f) => /^process-/.test(path.basename(f.path)))!.path;
}

/** Packages of many small files, which take longer to load than to run: they are bundled. */
const INSIDE = new Set([
  '@cantoo/pdf-lib',
  '@zip.js/zip.js',
  'asn1js',
  'fontkit',
  'lru-cache',
  'luxon',
  'node-forge',
  'parse5',
]);

/** Returns packages that are loaded from where they are installed: all others except our own. */
async function packages(): Promise<string[]> {
  const found = new Set<string>();
  for (const part of ['server', 'core', 'contract']) {
    const json: { dependencies?: Record<string, string> } = JSON.parse(
      await readFile(path.join(ROOT, part, 'package.json'), 'utf8'),
    );
    for (const name of Object.keys(json.dependencies ?? {}))
      if (!name.startsWith('@gatepath/') && !INSIDE.has(name)) found.add(name);
  }
  return [...found].flatMap((name) => [name, `${name}/*`]);
}
