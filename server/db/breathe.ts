import { setImmediate } from 'node:timers/promises';

/**
 * Lets others have a turn. The embedded database answers without ever letting go of the event loop: work that asks it
 * statement after statement keeps every request waiting until it is through, unless it breathes in between.
 */
export const breathe = (): Promise<void> => setImmediate();
