/**
 * The kinds of marks. To add one: its name in `MARK_KINDS`, its entry here, and its words (`kind.…`) in every language.
 */
import { isEmail } from '../../text/email';
import { count } from '../../text/names';
import type { MarkKind, PacketParty } from '../types';
import { validateDay, validateForm, validateListed, validateMoney, validateNumber } from '../values';
import { byHand, byItself, type Kind, LEAST, ticked, written } from './kind';

/** Returns "Wren Alder, trustee of the Alder Trust". */
const nameWithCapacity = ({ name, capacity }: PacketParty): string => (capacity ? `${name}, ${capacity}` : name);

/** All kinds of marks. */
export const KINDS: Record<MarkKind, Kind> = {
  signature: byHand('signature', { w: 168, h: 30 }, (n) => count(n, 'signature')),
  initials: byHand('initials', { w: 54, h: 22 }, (n) => count(n, 'set of initials', 'sets of initials')),
  // Filled when the party finishes.
  date_signed: byItself('date signed', 96, (n) => count(n, 'date'), {
    text: ({ dateText }) => dateText,
    known: () => null,
  }),
  printed_name: byItself('printed name', 150, (n) => count(n, 'printed name'), {
    text: ({ party }) => nameWithCapacity(party),
    known: nameWithCapacity,
  }),
  // The company or trust a party signs for, as the deal has it.
  company: byItself('company', 180, (n) => count(n, 'company', 'companies'), {
    text: ({ party }) => party.company ?? '',
    known: (party) => party.company ?? '',
  }),
  title: written('title', 120, { check: validateForm, keyboard: 'text', asks: 'form' }, { withSignature: true }),
  text: written('text', 150, { check: validateForm, keyboard: 'text', asks: 'form' }),
  number: written('number', 72, { check: validateNumber, keyboard: 'decimal', asks: 'range' }),
  money: written('money', 96, { check: validateMoney, keyboard: 'decimal', asks: 'range' }),
  date: written('date', 96, { check: validateDay, keyboard: 'numeric', asks: 'days' }),
  email: written(
    'email address',
    180,
    {
      check: ({ mark, text, tell }) =>
        isEmail(text) ? { ok: true, value: text } : { ok: false, sentence: mark.check?.message || tell('value.email') },
      keyboard: 'email',
      asks: 'nothing',
    },
    { several: (n) => count(n, 'email address', 'email addresses') },
  ),
  tick: ticked('tick', false, { required: false, printed: true }),
  // Those of a group exclude each other.
  choice: ticked('choice', true, { required: true, printed: false }),
  list: written(
    'list',
    120,
    { check: validateListed, keyboard: 'text', asks: 'list' },
    { begins: { options: ['First', 'Second'] }, printed: false, kin: null },
  ),
  // A photo or PDF that a client adds.
  file: {
    word: 'file asked for',
    several: (n) => count(n, 'file'),
    size: { w: 150, h: 22 },
    least: LEAST,
    filled: { by: 'file' },
    required: true,
    printed: false,
    kin: null,
  },
  // Fixed text of the sender.
  label: {
    word: 'label',
    several: (n) => count(n, 'label'),
    size: { w: 150, h: 16 },
    least: LEAST,
    filled: { by: 'sender' },
    required: false,
    begins: { value: 'Label' },
    printed: false,
    kin: null,
  },
};
