/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “frame” say, in one place to read, edit and translate. */
export const TEXT = {
  // command-line.tsx
  findOrDoAnything: 'Find or do anything',
  noExactMatchSimilar: 'No exact match. Similar:',
  screensAndActions: 'Screens and actions',
  signOutLeave: 'sign out leave',
  signOut: 'Sign out',
  nothingHas: (slice: Part) => `Nothing has “${slice}” in it, or anything similar.`,
  // frame.tsx
  gatePath: 'Gate Path',
};
