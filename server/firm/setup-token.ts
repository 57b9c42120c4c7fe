/** The code that the first set-up of a server asks for which others can reach: whoever started it reads it there. */
import { timingSafeEqual } from 'node:crypto';
import type { Config } from '../config';
import { hashSecret } from '../ids';

const LOCAL = new Set(['localhost', '127.0.0.1', '::1']);

/** Whether others than this machine can reach the server, so that its set-up asks for the code. */
export const setupTokenWanted = ({ config }: { config: Pick<Config, 'host' | 'demo'> }): boolean =>
  !config.demo && !LOCAL.has(config.host);

/** The code. Of several servers of one firm all have the same, made of the secret they share. */
export const setupToken = ({ config }: { config: Pick<Config, 'sessionSecret'> }): string =>
  hashSecret('set-up', config.sessionSecret).slice(0, 20);

/** Whether a text is the code, in a time that tells nothing of it. */
export function isSetupToken(ctx: { config: Pick<Config, 'sessionSecret'> }, text: string): boolean {
  const key = ctx.config.sessionSecret;
  const [given, wanted] = [text.trim().toLowerCase(), setupToken(ctx)].map((t) => Buffer.from(hashSecret(t, key)));
  return !!given && !!wanted && timingSafeEqual(given, wanted);
}
