/** npm run demo: the server with the demo world, everything under DATA_DIR. */
import { rmSync } from 'node:fs';
import { buildOrExit, configOrExit, run } from '../server/main';
import { announceSignIns, isLoaded, loadWorld } from './world';

const config = configOrExit({ demo: true });
if (process.argv.includes('--fresh')) {
  if (config.databaseUrl) {
    console.error('--fresh empties the embedded database only. Empty the one of DATABASE_URL by hand.');
    process.exit(1);
  }
  for (const part of ['database', 'files', 'cache', 'seal.pem'])
    rmSync(`${config.dataDir}/${part}`, { recursive: true, force: true });
}
const step = (text: string) => console.log(`  ${text}…`);
const running = await buildOrExit(config, step);
announceSignIns();
if (!(await isLoaded(running))) await loadWorld(running, step);
await run(running, config);
const { demoSignIns } = await import('../server/firm/service');
console.log('');
for (const s of demoSignIns) console.log(`Sign in as ${s.name}: ${s.email}, password ${s.password}`);
console.log(`Gate Path is ready: ${config.publicUrl}`);
