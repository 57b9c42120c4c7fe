/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “ledger” say, in one place to read, edit and translate. */
export const TEXT = {
  // grid.tsx
  document: 'Document',
  nothingToDo: 'nothing to do',
  initialsWanted: 'initials needed',
  signatureWanted: 'signature needed',
  somethingToFillIn: 'something to fill in',
  gapInitialsAreMissing: 'gap: initials are missing',
  exceptedFromTheInitials: 'left out of the initials',
  page: (page: Part) => `page ${page}`,
  pageLedger: 'Page ledger',
  pageOf: (page: Part, name: Part, says: Part) => `Page ${page}, ${name}: ${says}`,
  whoAndWhat: (name: Part, says: Part) => `${name}: ${says}`,
};
