/** Locking a data folder for one server: a second one on the same embedded database would overwrite the first. */
import { closeSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import path from 'node:path';
import { ConfigError } from '../config';
import { newSecret } from '../ids';
import { codeOf } from '../errors';

interface Owner {
  pid: number;
  /** Start time of the process as the system reports it: a reused process id has another one. */
  began: string;
  token: string;
}

const NAME = 'server.lock';
/** Locks this process holds, so that it does not mistake its own for another's. */
const mine = new Set<string>();

/** Returns the start time of a process; empty if the system does not say. */
function beganAt(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? '';
  } catch {
    return '';
  }
}

function isAlive(owner: Owner): boolean {
  if (owner.pid === process.pid) return mine.has(owner.token);
  try {
    process.kill(owner.pid, 0);
  } catch (error) {
    if (codeOf(error) !== 'EPERM') return false;
  }
  return beganAt(owner.pid) === owner.began;
}

function ownerOf(file: string): Owner | null {
  try {
    const owner: Owner = JSON.parse(readFileSync(file, 'utf8'));
    return owner;
  } catch {
    return null;
  }
}

/**
 * Locks the folder.
 *
 * @returns a function that unlocks it
 * @throws `ConfigError` if another running server has it
 */
export function lockFolder(dir: string): () => void {
  mkdirSync(dir, { recursive: true });
  const file = path.join(dir, NAME);
  const owner: Owner = { pid: process.pid, began: beganAt(process.pid), token: newSecret() };
  for (let tries = 0; tries < 10; tries++) {
    try {
      const fd = openSync(file, 'wx');
      writeSync(fd, JSON.stringify(owner));
      closeSync(fd);
      mine.add(owner.token);
      return () => {
        mine.delete(owner.token);
        if (ownerOf(file)?.token === owner.token) rmSync(file, { force: true });
      };
    } catch (error) {
      if (codeOf(error) !== 'EEXIST') throw error;
    }
    const other = ownerOf(file);
    if (other && isAlive(other))
      throw new ConfigError(
        `DATA_DIR ${dir} is in use by another Gate Path server (process ${other.pid}). Stop that one first, name another folder, or set DATABASE_URL so that several servers share one database.`,
      );
    // Left by a server that was killed: moved away in one step, so that of two who see it only one takes it.
    const aside = `${file}.${newSecret()}`;
    try {
      renameSync(file, aside);
      if (ownerOf(aside)?.token !== other?.token) renameSync(aside, file);
      else rmSync(aside, { force: true });
    } catch {
      // Another server was faster.
    }
  }
  throw new ConfigError(`DATA_DIR ${dir} cannot be locked. Start the server again.`);
}
