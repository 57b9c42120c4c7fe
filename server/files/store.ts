import { createHash } from 'node:crypto';
import { createReadStream, type ReadStream } from 'node:fs';
import { access, mkdir, open, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { LRUCache } from 'lru-cache';
import { codeOf } from '../errors';
import { newSecret, sha256 } from '../ids';
import { readStored, requireWhole } from './stored';
import { chunksOf } from './chunks';

/** A stored file: its name is the SHA-256 of its bytes. */
export interface StoredFile {
  sha256: string;
  bytes: number;
  /** Whether it was not there before. */
  fresh: boolean;
}

/**
 * Content-addressed files under one folder. A file is written under a temporary name, synced,
 * then renamed: a name that exists always has its whole content.
 */
export class FileStore {
  /** Files that this server stored: when, by the clock of the disk, and how many requests stored the same at once. */
  private readonly stored = new LRUCache<string, { at: number; by: number }>({ max: 10_000 });

  constructor(private readonly root: string) {}

  /** Returns the path for the bytes of a hash, whether or not the file exists. */
  fileOf(hash: string): string {
    if (!/^[0-9a-f]{64}$/.test(hash)) throw new Error('not a file fingerprint');
    return path.join(this.root, hash.slice(0, 2), hash);
  }

  async has(hash: string): Promise<boolean> {
    return access(this.fileOf(hash)).then(
      () => true,
      () => false,
    );
  }

  async put(data: Uint8Array): Promise<StoredFile> {
    const hash = sha256(data);
    if (await this.isThere(hash)) return { sha256: hash, bytes: data.length, fresh: false };
    const temp = await this.temp();
    const file = await open(temp, 'w');
    try {
      await file.writeFile(data);
      await file.sync();
    } catch (error) {
      await file.close();
      await rm(temp, { force: true });
      throw error;
    }
    await file.close();
    await this.settle(temp, hash);
    return { sha256: hash, bytes: data.length, fresh: true };
  }

  /** Stores a stream; when it fails half-way, or was cut off at a limit, nothing stays behind. */
  async putStream(stream: Readable & { truncated?: boolean }): Promise<StoredFile | 'truncated'> {
    const temp = await this.temp();
    const hash = createHash('sha256');
    let bytes = 0;
    const file = await open(temp, 'w');
    try {
      for await (const chunk of chunksOf(stream)) {
        hash.update(chunk);
        bytes += chunk.length;
        await file.write(chunk);
      }
      await file.sync();
    } catch (error) {
      await file.close();
      await rm(temp, { force: true });
      // A full disk stops the reading too: the rest is discarded, so that the sender receives the answer.
      stream.resume();
      throw error;
    }
    await file.close();
    if (stream.truncated) {
      await rm(temp, { force: true });
      return 'truncated';
    }
    const digest = hash.digest('hex');
    const fresh = !(await this.isThere(digest));
    if (fresh) await this.settle(temp, digest);
    else await rm(temp, { force: true });
    return { sha256: digest, bytes, fresh };
  }

  /**
   * Returns whether a file exists and is intact. A damaged file is written again by whoever stores its bytes; an intact
   * one counts as new from now on, so that it is not deleted meanwhile.
   */
  private async isThere(hash: string): Promise<boolean> {
    try {
      await requireWhole(this.fileOf(hash));
      const now = new Date();
      await utimes(this.fileOf(hash), now, now);
      return true;
    } catch {
      return false;
    }
  }

  /**
   * Deletes a file unless it came, or was brought again, within some time. The file is moved aside before its age is
   * looked at for the last time: whoever brings it in the same moment either has made it young, and it is put back,
   * or finds it gone, and stores it anew.
   *
   * @returns whether it was deleted
   */
  async removeOlder(hash: string, olderThanMs: number): Promise<boolean> {
    if ((await this.age(hash)) <= olderThanMs) return false;
    return this.removeIf(hash, (mtimeMs) => Date.now() - mtimeMs > olderThanMs);
  }

  /** Moves a file aside and deletes it if its time of change is the expected one; otherwise moves it back. */
  private async removeIf(hash: string, mayGo: (mtimeMs: number) => boolean): Promise<boolean> {
    const aside = await this.temp();
    try {
      await rename(this.fileOf(hash), aside);
    } catch (error) {
      if (codeOf(error) === 'ENOENT') return false;
      throw error;
    }
    this.stored.delete(hash);
    if (!mayGo((await stat(aside)).mtimeMs)) {
      await rename(aside, this.fileOf(hash));
      return false;
    }
    await rm(aside, { force: true });
    return true;
  }

  /**
   * Deletes a file that this server has just stored, unless somebody has brought the same bytes since: that makes the
   * file younger than it was stored.
   *
   * @returns whether it was deleted
   */
  async removeFresh(hash: string): Promise<boolean> {
    const stored = this.stored.get(hash);
    // Others who stored the same file at the same moment may still be working on it.
    if (!stored || --stored.by > 0) return false;
    this.stored.delete(hash);
    const file = this.fileOf(hash);
    const now = await stat(file).catch(() => null);
    if (now?.mtimeMs !== stored.at) return false;
    return this.removeIf(hash, (mtimeMs) => mtimeMs === stored.at);
  }

  /** Yields the hash of every file. */
  async *all(): AsyncGenerator<string> {
    for (const part of await readdir(this.root).catch(() => [])) {
      if (!/^[0-9a-f]{2}$/.test(part)) continue;
      for (const name of await readdir(path.join(this.root, part))) if (/^[0-9a-f]{64}$/.test(name)) yield name;
    }
  }

  /** Returns the milliseconds since a file was stored, or stored again. */
  async age(hash: string): Promise<number> {
    return stat(this.fileOf(hash)).then(
      (s) => Date.now() - s.mtimeMs,
      () => 0,
    );
  }

  /** Removes what uploads left behind that were cut off with their server. */
  async deleteIncoming(olderThanMs: number): Promise<void> {
    const dir = path.join(this.root, 'incoming');
    for (const name of await readdir(dir).catch(() => [])) {
      const file = path.join(dir, name);
      if (Date.now() - (await stat(file)).mtimeMs > olderThanMs) await rm(file, { force: true });
    }
  }

  /** Returns the bytes of a file. @throws `DamagedFile` if they do not match its hash */
  async read(hash: string): Promise<Buffer> {
    return Buffer.from(await readStored(this.fileOf(hash)));
  }

  /** Returns a file as a stream, after verifying it. @throws `DamagedFile` */
  async stream(hash: string): Promise<ReadStream> {
    await requireWhole(this.fileOf(hash));
    return createReadStream(this.fileOf(hash));
  }

  async sizeOf(hash: string): Promise<number> {
    return (await stat(this.fileOf(hash))).size;
  }

  private async temp(): Promise<string> {
    const dir = path.join(this.root, 'incoming');
    await mkdir(dir, { recursive: true });
    return path.join(dir, newSecret());
  }

  private async settle(temp: string, hash: string): Promise<void> {
    const target = this.fileOf(hash);
    await mkdir(path.dirname(target), { recursive: true });
    const at = (await stat(temp)).mtimeMs;
    this.stored.set(hash, { at, by: (this.stored.get(hash)?.by ?? 0) + 1 });
    await rename(temp, target);
    // The rename itself must reach the disk, or a power cut could forget the name.
    const dir = await open(path.dirname(target), 'r');
    try {
      await dir.sync();
    } finally {
      await dir.close();
    }
  }
}
