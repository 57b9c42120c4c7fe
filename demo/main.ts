/** npm run demo: the server with the demo world, everything under DATA_DIR. */
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { buildOrExit, configOrExit, run } from '../server/start';
import { announceSignIns, isLoaded, loadWorld } from './world';

const config = configOrExit({ demo: true });
if (process.argv.includes('--fresh')) {
  if (config.databaseUrl) {
    console.error('--fresh empties the embedded database only. Empty the one of DATABASE_URL by hand.');
    process.exit(1);
  }
  for (const part of ['database', 'files', 'cache', 'seal.pem', 'demo-world'])
    rmSync(`${config.dataDir}/${part}`, { recursive: true, force: true });
}
const step = (text: string) => console.log(`  ${text}…`);
const running = await buildOrExit(config, step);
const marker = path.join(config.dataDir, 'demo-world');
if (!(await isLoaded(running))) {
  await loadWorld(running, step);
  writeFileSync(marker, 'loaded to its end\n');
} else if (!existsSync(marker)) {
  console.error('The demo world is not whole: a start was cut off, or this data is not the demo’s.');
  console.error('Start over with: npm run demo -- --fresh   (or name another folder with DATA_DIR)');
  await running.close();
  process.exit(1);
}
const signIns = announceSignIns(running);
await run(running, config);
console.log('');
for (const s of signIns) console.log(`Sign in as ${s.name}: ${s.email}, password ${s.password}`);
console.log(`Gate Path is ready: ${config.publicUrl}`);
