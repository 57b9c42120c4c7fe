/**
 * When packets on their way will likely be executed, learned from how long a firm's people took before. It knows packets
 * and the calendar; it must not know of storage, or of a clock: the caller says what time it is.
 */
export { chanceWithin, doingBetween, type Pace, paceOf, type Wait, weekdayOf } from './waits';
export { FEW_WAITS, forecastOf } from './forecast';
export { studentCdf } from './student';
