/** Steps of a start that `npm start` and the demo share. */
import { buildServer, type Running } from './app';
import { ConfigError, readConfig, type Config } from './config';
import { codeOf, messageOf } from './errors';

/** Reads the configuration, or ends the process saying what is wrong with it. */
export function configOrExit(options: { demo: boolean }): Config {
  try {
    return readConfig(process.env, options);
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    console.error(`Gate Path cannot start. ${error.message}`);
    process.exit(1);
  }
}

/** Listens, and stops cleanly on Ctrl-C. */
export async function run(running: Running, config: Config): Promise<void> {
  let stopping = false;
  const stop = async () => {
    if (stopping) process.exit(1);
    stopping = true;
    console.log('Stopping…');
    await running.close();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  void running.ctx.work.warm().catch(() => undefined);
  try {
    await running.app.listen({ port: config.port, host: config.host });
  } catch (error) {
    const busy = codeOf(error) === 'EADDRINUSE';
    console.error(
      busy ? `Port ${config.port} is in use. Stop what uses it, or set PORT to another number.` : String(error),
    );
    await running.close();
    process.exit(1);
  }
}

/** Builds the server, or ends the process when what it was given cannot serve. */
export async function buildOrExit(config: Config, progress: (step: string) => void): Promise<Running> {
  try {
    return await buildServer({ config, progress, logLevel: process.env['LOG_LEVEL'] ?? 'warn' });
  } catch (error) {
    if (error instanceof ConfigError) console.error(`Gate Path cannot start. ${error.message}`);
    else if (config.databaseUrl && !(error instanceof TypeError))
      console.error(`Gate Path cannot start. DATABASE_URL: ${messageOf(error)}`);
    else console.error(error);
    process.exit(1);
  }
}
