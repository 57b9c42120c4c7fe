/** What a member reads in a ceremony; clients read theirs from core/words. */
export const TEXT = {
  // use-rehearsal.ts
  rehearsal: 'This is a rehearsal: nothing is sent.',
};
