/** npm start: the server, configured by its environment. */
import { setupToken, setupTokenWanted } from './firm/setup-token';
import { buildOrExit, configOrExit, run } from './start';

const config = configOrExit({ demo: false });
const running = await buildOrExit(config, (s) => console.log(`${s}…`));
await run(running, config);
if (setupTokenWanted(running.ctx) && !(await running.ctx.firm()))
  console.log(`The set-up asks for this code: ${setupToken(running.ctx)}`);
console.log(`Gate Path is ready: ${config.publicUrl}`);
