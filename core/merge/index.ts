/** Tags in a sender's text: "{address}" becomes the deal's address when the packet is sent. */
import { listWords } from '../text/names';
import type { PacketParty } from '../packet/types';
import type { Side } from '../text/sides';

/** Facts of a deal that text may name; empty if not known yet. */
export interface DealFacts {
  address: string;
  city: string;
  price: string;
  /** The day of closing, in words. */
  closing: string;
}

/** Facts of a deal before anything is known. */
export const NO_FACTS: DealFacts = { address: '', city: '', price: '', closing: '' };

const SIDE_TAGS: Record<Side, string> = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
  listing_broker: 'broker',
  buyer_broker: 'buyer’s broker',
  manager: 'manager',
  other: 'other',
};

const key = (tag: string) =>
  tag
    .toLowerCase()
    .replace(/\u2019/g, "'")
    .replace(/\s+/g, ' ')
    .trim();

/** Returns every tag that has a meaning in this packet, with its value, which may be empty. */
export function tagValues(
  facts: DealFacts,
  parties: Pick<PacketParty, 'name' | 'side' | 'ordinal'>[],
): Map<string, string> {
  const out = new Map<string, string>([
    ['address', facts.address],
    ['city', facts.city],
    ['price', facts.price],
    ['closing day', facts.closing],
  ]);
  for (const [side, word] of Object.entries(SIDE_TAGS)) {
    const here = parties.filter((p) => p.side === side).sort((a, b) => a.ordinal - b.ordinal);
    if (!here.length) continue;
    out.set(key(`${word}s`), listWords(here.map((p) => p.name)));
    here.forEach((p, i) => out.set(key(`${word} ${i + 1}`), p.name));
  }
  return out;
}

const TAG = /\{([^{}\n]{1,40})\}/g;

/**
 * Returns text with its tags filled in. `missing` names the tags without a value, which stay as they are.
 *
 * @example mergeTags('{address}', new Map([['address', '7 Weir Terrace']])).text // '7 Weir Terrace'
 */
export function mergeTags(text: string, values: ReadonlyMap<string, string>): { text: string; missing: string[] } {
  const missing: string[] = [];
  const merged = text.replace(TAG, (whole, tag: string) => {
    const value = values.get(key(tag));
    if (value) return value;
    missing.push(tag.trim());
    return whole;
  });
  return { text: merged, missing };
}
