/** Starts the PostgreSQL server of the tests, with one migrated template that every test file's database is a copy of. */
const { execFileSync } = require('node:child_process');
const path = require('node:path');
const { startCluster } = require('./cluster.cjs');
const sharedSetup = require('./global-setup.cjs');

module.exports = async () => {
  await sharedSetup();
  const cluster = await startCluster();
  process.env.GATEPATH_TEST_PG = cluster.url;
  globalThis.__GATEPATH_PG__ = cluster;
  const script = path.join(__dirname, 'make-template.ts');
  execFileSync(process.execPath, ['--import', 'tsx', script, 'postgres'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '' },
  });
};
