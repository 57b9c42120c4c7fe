/** Who a person is to the sender: a name at an address. Two people with one mailbox have two names. */
export interface Who {
  /** The name in lower case. */
  called: string;
  /** The email address, otherwise the phone, in lower case; null if there is neither. */
  mailbox: string | null;
}

/** Returns who a person is: name and address in lower case; the phone counts only without an email address. */
export const whoOf = (p: { name: string; email: string; phone: string | null }): Who => ({
  called: p.name.trim().toLowerCase(),
  mailbox: (p.email || p.phone || '').trim().toLowerCase() || null,
});
