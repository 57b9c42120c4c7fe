/** People as vCards (RFC 6350). */
import ICAL from 'ical.js';
import type { Context } from '../context';
import { notFound } from '../problem';
import { personById } from '../people/queries';
import { peoplePart, type PersonPart } from './queries';

type Person = Pick<PersonPart, 'id' | 'name' | 'email' | 'phone' | 'company'>;
const A_PART = 500;

/** Returns one person as a vCard. The part after the last space is taken as the family name. */
function cardText(p: Person): string {
  const card = new ICAL.Component('vcard');
  const words = p.name.split(' ');
  const family = words.length > 1 ? (words.at(-1) ?? '') : '';
  const given = words.length > 1 ? words.slice(0, -1).join(' ') : p.name;
  card.addPropertyWithValue('version', '4.0');
  card.addPropertyWithValue('uid', `urn:uuid:${p.id}`);
  card.addPropertyWithValue('fn', p.name);
  const n = new ICAL.Property('n', card);
  n.setValue([family, given, '', '', '']);
  card.addProperty(n);
  if (p.email) card.addPropertyWithValue('email', p.email);
  if (p.phone) {
    const tel = new ICAL.Property('tel', card);
    tel.resetType('text');
    tel.setValue(p.phone);
    card.addProperty(tel);
  }
  if (p.company) card.addPropertyWithValue('org', p.company);
  return `${card.toString()}\r\n`;
}

/** Yields the whole address book in parts. */
export async function* cardsOfAll(ctx: Context): AsyncGenerator<string> {
  for (let after: string | null = null; ;) {
    const rows: PersonPart[] = await peoplePart(ctx.database.pool, after, A_PART);
    if (!rows.length) return;
    yield rows.map(cardText).join('');
    after = rows[rows.length - 1]?.id ?? '';
  }
}

/** Returns one person as a vCard. @throws Problem `not-found` */
export async function cardOf(ctx: Context, id: string): Promise<{ name: string; text: string }> {
  const p = await personById(ctx.database.pool, id);
  if (!p) throw notFound('This person');
  return { name: p.name, text: cardText(p) };
}
