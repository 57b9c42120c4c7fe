import { count } from '../../text/names';
import { byHand } from './kind';

export const signature = byHand('signature', { w: 168, h: 30 }, (n) => count(n, 'signature'));
