/** Arguments of Node that start the server: bundled once per test run, or from its sources where nothing was bundled. */
const { GATEPATH_SERVER } = process.env;
export const SERVER_PROGRAM = GATEPATH_SERVER ? [GATEPATH_SERVER] : ['--import', 'tsx', 'server/main.ts'];
