/** Work that did not come to its end: why, and where it was. */
import { Problem } from '../problem';

/**
 * `time` and `memory`: it passed its allowance; `died`: its process fell over; `error`: the library
 * inside it gave up; `stopped`: the server is going down, and the next start may do it.
 */
export type FailureReason = 'time' | 'memory' | 'died' | 'error' | 'stopped';

/** A task failed: it exceeded its allowance, its library failed, or it was stopped. */
export class WorkFailure extends Error {
  constructor(
    readonly reason: FailureReason,
    readonly task: string,
    /** Where it was: "page 3". */
    readonly at: string | null,
    readonly seconds: number,
    readonly cause_: string | null = null,
  ) {
    super(`${task} failed (${reason}${at ? ` at ${at}` : ''})${cause_ ? `: ${cause_}` : ''}`);
  }

  /**
   * Returns what happened as the end of a sentence that begins with the subject: "… could not be read in 20 seconds".
   */
  inWords(verb: string): string {
    switch (this.reason) {
      case 'time':
        return `could not be ${verb} in ${this.seconds} seconds of work`;
      case 'memory':
        return `wants more memory than one paper may have, so it was not ${verb}`;
      default:
        return `cannot be ${verb}`;
    }
  }
}

/** Returns the problem for a queue that is full; the caller may try again. */
export function busy(): Problem {
  return new Problem('busy', 'The server has much to do just now. Try again in a moment; nothing was lost.', {
    retryAfter: 3,
  });
}
