/** The server's one clock. The demo and the tests can set it forward. */
export interface Clock {
  now(): Date;
  /** Moves the clock forward by so many milliseconds, on top of real time. */
  forward(ms: number): void;
}

/** Returns the system's clock. */
export function systemClock(): Clock {
  let ahead = 0;
  return {
    now: () => new Date(Date.now() + ahead),
    forward(ms) {
      ahead += ms;
    },
  };
}
