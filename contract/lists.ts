/** Lists that are written out as CSV, by name. */
export const LISTS = [
  'deals',
  'people',
  'packets',
  'messages',
  'papers',
  'weeks',
  'waits',
  'hold-ups',
  'through',
] as const;
/** One of `LISTS`. */
export type ListName = (typeof LISTS)[number];

/** How a packet stands for the person whose own page it is on. */
export const OWN_STATUSES = ['to_do', 'to_read', 'waiting', 'executed', 'delivered'] as const;
