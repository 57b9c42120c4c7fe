import { isEmail } from '../../text/email';
import { count } from '../../text/names';
import { written } from './kind';

/** The mark "email address". */
export const email = written(
  'email address',
  180,
  {
    check: ({ mark, text, tell }) =>
      isEmail(text) ? { ok: true, value: text } : { ok: false, sentence: mark.check?.message || tell('value.email') },
    keyboard: 'email',
    asks: 'nothing',
  },
  { several: (n) => count(n, 'email address', 'email addresses') },
);
