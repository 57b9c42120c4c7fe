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
export type ListName = (typeof LISTS)[number];
