/** npm start: the server, configured by its environment. */
import { buildOrExit, configOrExit, run } from './start';

const config = configOrExit({ demo: false });
const running = await buildOrExit(config, (s) => console.log(`${s}…`));
await run(running, config);
console.log(`Gate Path is ready: ${config.publicUrl}`);
