/** Stops the scratch PostgreSQL server and removes it. */
const { rmSync } = require('node:fs');

module.exports = async () => {
  const pg = globalThis.__GATEPATH_PG__;
  if (!pg) return;
  pg.stop();
  rmSync(pg.dir, { recursive: true, force: true });
};
