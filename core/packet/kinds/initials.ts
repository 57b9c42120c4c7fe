import { count } from '../../text/names';
import { byHand } from './kind';

/** The mark "initials". */
export const initials = byHand('initials', { w: 54, h: 22 }, (n) => count(n, 'set of initials', 'sets of initials'));
