import { count } from '../../text/names';
import { byHand } from './kind';

/** The mark "signature". */
export const signature = byHand('signature', { w: 168, h: 30 }, (n) => count(n, 'signature'));
