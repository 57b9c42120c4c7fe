/**
 * The token that the first set-up of a server asks for if others can reach it. It is printed when the server starts.
 */
import { timingSafeEqual } from 'node:crypto';
import type { Config } from '../config';
import { hashSecret } from '../ids';

const LOCAL = new Set(['localhost', '127.0.0.1', '::1']);

/** Returns whether others than this machine can reach the server, so that its set-up asks for the token. */
export const setupTokenWanted = ({ config }: { config: Pick<Config, 'host' | 'demo'> }): boolean =>
  !config.demo && !LOCAL.has(config.host);

/** Returns the token. All servers of a firm have the same one, derived from the secret they share. */
export const setupToken = ({ config }: { config: Pick<Config, 'sessionSecret'> }): string =>
  hashSecret('set-up', config.sessionSecret).slice(0, 20);

/** Returns whether a text is the token, in constant time. */
export function isSetupToken(ctx: { config: Pick<Config, 'sessionSecret'> }, text: string): boolean {
  const key = ctx.config.sessionSecret;
  const [given, wanted] = [text.trim().toLowerCase(), setupToken(ctx)].map((t) => Buffer.from(hashSecret(t, key)));
  return !!given && !!wanted && timingSafeEqual(given, wanted);
}
