import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the whole project. */
export const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
