import { isEmail } from '../../text/email';
import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

export const email = {
  word: 'email address',
  several: (n) => count(n, 'email address', 'email addresses'),
  size: { w: 180, h: 18 },
  least: LEAST,
  filled: {
    by: 'writing',
    check: ({ mark, text, tell }) =>
      isEmail(text) ? { ok: true, value: text } : { ok: false, sentence: mark.check?.message || tell('value.email') },
    keyboard: 'email',
    asks: 'nothing',
  },
  required: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
