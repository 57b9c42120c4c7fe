/** Folders with databases in them: a thousand files each, over which Node takes seconds and the system no time. */
import { execFileSync } from 'node:child_process';

/** Removes a folder with all that is in it. */
export function removeFolder(dir: string): void {
  execFileSync('rm', ['-rf', dir]);
}

/** Copies what is in one folder into another that is there. */
export function copyInto(from: string, to: string): void {
  execFileSync('cp', ['-R', `${from}/.`, to]);
}
