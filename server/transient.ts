/** Which errors pass by themselves: whoever meets one tries again later and gives nothing up. */
import { codeOf, messageOf } from './errors';
import { Problem } from './problem';
import { WorkFailure } from './work/failure';

/** PostgreSQL: shut down, crashed, starting, cannot connect, too many connections, serialization, deadlock; and sockets. */
const DATABASE_AWAY = new Set(['57P01', '57P02', '57P03', '53300', 'ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT']);

/** Returns whether an error says that the database cannot be reached just now. */
export function isDatabaseAway(error: unknown): boolean {
  const code = codeOf(error);
  if (code !== undefined && (DATABASE_AWAY.has(code) || /^08/.test(code))) return true;
  // The driver gives these no code.
  return /^(?:Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error)/.test(
    messageOf(error),
  );
}

/** Returns whether a disk is full: the file store's, or the database's own. */
export const isDiskFull = (error: unknown): boolean => codeOf(error) === 'ENOSPC' || codeOf(error) === '53100';

/** Returns whether two transactions collided: serialization failure or deadlock. */
export const isCollision = (error: unknown): boolean => ['40001', '40P01'].includes(codeOf(error) ?? '');

/** Returns whether an error is independent of what was attempted, so that trying again makes sense. */
export function isTransient(error: unknown): boolean {
  if (error instanceof Problem) return error.transient;
  if (error instanceof WorkFailure) return error.reason === 'stopped';
  return isDatabaseAway(error) || isCollision(error) || isDiskFull(error);
}
