import os from 'node:os';
import path from 'node:path';

/** Where the migrated, empty database lies that tests copy. */
export const TEMPLATE_DIR = path.join(os.tmpdir(), `gatepath-test-template-${process.getuid?.() ?? 0}`);
