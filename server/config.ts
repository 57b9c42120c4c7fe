import { chmodSync, existsSync, linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { cutEnd } from '@gatepath/core/text';
import { newSecret } from './ids';
import { codeOf } from './errors';

/** Everything the server is told from outside. */
export interface Config {
  databaseUrl: string | null;
  dataDir: string;
  port: number;
  /** The address it listens on: all of them, or in the demo only this machine's own. */
  host: string;
  publicUrl: string;
  smtpUrl: string | null;
  mailFrom: string;
  sealP12: string | null;
  sealP12Password: string;
  sessionSecret: string;
  demo: boolean;
  /** Whether members may set the clock forward: in the demo, and where reminders are tried out. */
  clockForward: boolean;
  /** Proxies in front whose X-Forwarded-* headers are believed; 0 for none. */
  trustProxy: number;
}

/** A setting has a value that cannot be used; the message names it and the way out. */
export class ConfigError extends Error {}

/** Reads the configuration from the environment. Throws `ConfigError` on the first wrong value. */
export function readConfig(env: NodeJS.ProcessEnv, options: { demo: boolean }): Config {
  const dataDir = path.resolve(env['DATA_DIR'] || 'data');
  try {
    makePrivate(dataDir);
  } catch {
    throw new ConfigError(`DATA_DIR is ${dataDir}, and that folder cannot be made. Name one that can be written to.`);
  }
  const port = Number(env['PORT'] || 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new ConfigError(`PORT is “${env['PORT']}”. It must be a whole number from 0 to 65535.`);
  const databaseUrl = env['DATABASE_URL'] || null;
  if (databaseUrl && !/^postgres(ql)?:$/.test(protocolOf(databaseUrl)))
    throw new ConfigError('DATABASE_URL must begin with postgres:// or postgresql://.');
  const publicUrl = cutEnd(env['PUBLIC_URL'] || `http://localhost:${port}`, /\//);
  if (!/^https?:$/.test(protocolOf(publicUrl)))
    throw new ConfigError(`PUBLIC_URL is “${publicUrl}”. It must begin with http:// or https://.`);
  const smtpUrl = env['SMTP_URL'] || null;
  if (smtpUrl && !/^smtps?:$/.test(protocolOf(smtpUrl)))
    throw new ConfigError('SMTP_URL must begin with smtp:// or smtps://.');
  const sealP12 = env['SEAL_P12'] || null;
  if (sealP12 && !existsSync(sealP12)) throw new ConfigError(`SEAL_P12 names ${sealP12}, and there is no such file.`);
  return {
    databaseUrl,
    dataDir,
    port,
    host: env['HOST'] || (options.demo ? '127.0.0.1' : '0.0.0.0'),
    publicUrl,
    smtpUrl,
    mailFrom: env['MAIL_FROM'] || 'Gate Path <no-reply@localhost>',
    sealP12,
    sealP12Password: env['SEAL_P12_PASSWORD'] ?? '',
    sessionSecret: sessionSecret(env['SESSION_SECRET'], dataDir),
    demo: options.demo,
    clockForward: options.demo || env['CLOCK_FORWARD'] === '1',
    trustProxy: hops(env['TRUST_PROXY'] || '0'),
  };
}

/** Makes the data folder and all new files accessible to the server's own user only. */
function makePrivate(dataDir: string): void {
  process.umask(0o077);
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  chmodSync(dataDir, 0o700);
}

/** Returns the number of proxies in front of the server; each adds one address to X-Forwarded-For. */
function hops(text: string): number {
  const n = Number(text);
  if (!Number.isInteger(n) || n < 0 || n > 10)
    throw new ConfigError(
      `TRUST_PROXY is “${text}”. It must be the number of proxies in front of the server, from 0 to 10.`,
    );
  return n;
}

function protocolOf(url: string): string {
  try {
    return new URL(url).protocol;
  } catch {
    return '';
  }
}

/**
 * Returns the key under which session and link secrets are hashed: the configured one, or one made once and stored in
 * the data folder.
 */
function sessionSecret(given: string | undefined, dataDir: string): string {
  if (given !== undefined) {
    if (given.length < 32)
      throw new ConfigError('SESSION_SECRET is too short. Give at least 32 random characters, or omit it.');
    return given;
  }
  const file = path.join(dataDir, 'session-secret');
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  const made = newSecret() + newSecret();
  // If several servers share the folder, one makes it; the others read it.
  const temp = `${file}.${newSecret()}`;
  writeFileSync(temp, made, { mode: 0o600 });
  try {
    linkSync(temp, file);
  } catch (error) {
    if (codeOf(error) !== 'EEXIST') throw error;
  } finally {
    rmSync(temp, { force: true });
  }
  return readFileSync(file, 'utf8').trim();
}
