/** Who somebody is to whoever sends: a name at an address. Two people with one mailbox have two names. */
export interface Who {
  /** The name in lower case. */
  called: string;
  /** The email address, or else the phone, in lower case; null for somebody who has neither. */
  mailbox: string | null;
}

export const whoOf = (p: { name: string; email: string; phone: string | null }): Who => ({
  called: p.name.trim().toLowerCase(),
  mailbox: (p.email || p.phone || '').trim().toLowerCase() || null,
});
