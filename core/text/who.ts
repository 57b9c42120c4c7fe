/** Who somebody is to whoever sends: a name at an address. Two people with one mailbox have two names. */
export interface Who {
  /** The name in lower case. */
  called: string;
  /** The email address, or else the phone, in lower case; null for somebody who has neither. */
  mailbox: string | null;
}

/** Returns who somebody is: name and address in lower case, the phone only without an address. */
export const whoOf = (p: { name: string; email: string; phone: string | null }): Who => ({
  called: p.name.trim().toLowerCase(),
  mailbox: (p.email || p.phone || '').trim().toLowerCase() || null,
});
