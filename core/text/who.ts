/** Who somebody is to whoever sends: a name at an address. Two people with one mailbox have two names. */
import type { PacketParty } from './types';

export interface Who {
  /** The name in lower case. */
  called: string;
  /** The email address, or else the phone, in lower case; null for somebody who has neither. */
  mailbox: string | null;
}

export const whoOf = (p: Pick<PacketParty, 'name' | 'email' | 'phone'>): Who => ({
  called: p.name.trim().toLowerCase(),
  mailbox: (p.email || p.phone || '').trim().toLowerCase() || null,
});
