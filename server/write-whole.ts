import { mkdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { newSecret } from './ids';

/**
 * Writes a file beside its place and renames it: readers, and a crash, find all of it or nothing. Several may write the
 * same file at once; the last one wins.
 */
export async function writeWhole(file: string, data: string | Uint8Array): Promise<void> {
  await mkdir(path.dirname(file), { recursive: true });
  const temp = `${file}.${newSecret()}`;
  await writeFile(temp, data);
  await rename(temp, file);
}
