/** Makes what the tests of a run share: the template database they copy, the workers' program, the bundled server. */
const { execFileSync } = require('node:child_process');
const path = require('node:path');
const { pathToFileURL } = require('node:url');

module.exports = async () => {
  if (process.env.GATEPATH_SERVER) return;
  const script = path.join(__dirname, 'make-template.ts');
  const workers = execFileSync(process.execPath, ['--import', 'tsx', script], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  process.env.GATEPATH_WORKERS = workers.toString();
  const bundle = path.join(__dirname, '..', '..', 'scripts', 'bundle-server.mjs');
  process.env.GATEPATH_SERVER = await (await import(pathToFileURL(bundle).href)).bundleServer();
};
