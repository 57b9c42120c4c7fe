/** npm start: the server without demo data. */
import { ensureInstall } from './ensure-install.mjs';

ensureInstall();
const { buildWeb } = await import('./build-web.mjs');
await buildWeb();
const { runProgram } = await import('./run-node.mjs');
runProgram('server/main.ts', process.argv.slice(2));
