import { ticked } from './kind';

/** One of several: those of a group exclude each other. */
export const choice = ticked('choice', true, { required: true, printed: false });
