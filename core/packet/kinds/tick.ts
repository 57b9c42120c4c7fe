import { ticked } from './kind';

export const tick = ticked('tick', false, { required: false, printed: true });
