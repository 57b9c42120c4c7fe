/** Makes one fresh, migrated database for all server tests; each file works on a copy of it. */
const { execFileSync } = require('node:child_process');
const path = require('node:path');

module.exports = async () => {
  const script = path.join(__dirname, 'make-template.ts');
  const workers = execFileSync(process.execPath, ['--import', 'tsx', script], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  process.env.GATEPATH_WORKERS = workers.toString();
};
