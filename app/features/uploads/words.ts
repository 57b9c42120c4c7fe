/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “uploads” say, in one place to read, edit and translate. */
export const TEXT = {
  // document-drop.tsx
  addPapers: 'Add papers',
  orDropThemHerePdf: 'or drop them here: PDF, Word (DOCX), spreadsheet (XLSX), text, or a picture. Up to 50 MB each.',
  tryAgain: 'Try again',
  dismiss: 'Dismiss',
  sending: (name: Part) => `Sending ${name}…`,
  checking: (name: Part) => `Checking ${name}…`,
  sendingOf: (name: Part) => `Sending ${name}`,
  // uploads.ts
  isLargerThan50Mb: (name: Part) => `“${name}” is larger than 50 MB. Split it or save it smaller, then add it again.`,
};
