import { ticked } from './kind';

/** The mark "box to tick". */
export const tick = ticked('tick', false, { required: false, printed: true });
