import { setImmediate } from 'node:timers/promises';

/**
 * Yields to other work. The embedded database answers without returning to the event loop: a long loop of statements
 * would block every request.
 */
export const breathe = (): Promise<void> => setImmediate();
