import os from 'node:os';
import path from 'node:path';

/** Where the migrated, empty database lies that tests copy. */
export const TEMPLATE_DIR = path.join(os.tmpdir(), `gatepath-test-template-${process.getuid?.() ?? 0}`);
/** The same on the PostgreSQL server of the tests. */
export const TEMPLATE_DATABASE = 'gatepath_template';
