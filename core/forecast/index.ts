/**
 * Estimating when packets will be executed, learned from how long a firm's people took before. Knows packets and the
 * calendar; must not know storage or a clock: callers pass the time.
 */
export { chanceWithin, doingBetween, type Pace, paceOf, type Wait } from './waits';
export { FEW_WAITS, forecastOf } from './forecast';
export { studentCdf } from './student';
