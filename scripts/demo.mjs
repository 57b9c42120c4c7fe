/** npm run demo: everything from a fresh clone to a running demo, in one command. */
import { ensureInstall } from './ensure-install.mjs';

ensureInstall();
const { buildWeb } = await import('./build-web.mjs');
await buildWeb();
const { runProgram } = await import('./run-node.mjs');
console.log('Starting Gate Path…');
runProgram('demo/main.ts', process.argv.slice(2));
