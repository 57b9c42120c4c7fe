/** Reading what the file store holds: never without looking whether it still is what its name says. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { LRUCache } from 'lru-cache';
import { chunksOf } from './chunks';

/** A file whose bytes are not those it is named for: damaged on the disk, or changed by somebody. */
export class DamagedFile extends Error {
  constructor(readonly sha256: string) {
    super(`the stored file ${sha256} is not what its name says`);
  }
}

const NAME = /^[0-9a-f]{64}$/;

/** Returns the bytes of a file; one that is named by its hash is verified against it. */
export async function readStored(file: string): Promise<Uint8Array> {
  const bytes = new Uint8Array(await readFile(file));
  const name = path.basename(file);
  if (NAME.test(name) && createHash('sha256').update(bytes).digest('hex') !== name) throw new DamagedFile(name);
  return bytes;
}

/** Files looked at before, by what would change if somebody wrote to them. */
const seen = new LRUCache<string, true>({ max: 5_000 });

/** Looks at a stored file without keeping it in memory. */
export async function requireWhole(file: string): Promise<void> {
  const name = path.basename(file);
  const s = await stat(file);
  const key = `${name}:${s.ino}:${s.size}:${s.mtimeMs}:${s.ctimeMs}`;
  if (seen.has(key)) return;
  const hash = createHash('sha256');
  for await (const chunk of chunksOf(createReadStream(file, { highWaterMark: 1024 * 1024 }))) hash.update(chunk);
  if (hash.digest('hex') !== name) throw new DamagedFile(name);
  seen.set(key, true);
}
