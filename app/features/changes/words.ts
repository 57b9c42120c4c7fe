/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “changes” say, in one place to read, edit and translate. */
export const TEXT = {
  // page-pair.tsx
  of: (n: Part, total: Part) => `${n} of ${total}`,
  pagesBefore: 'Previous pages',
  nextPages: 'Next pages',
  thisPageIsNew: 'This page is new.',
  thisPageIsGone: 'This page was removed.',
  pageOfSide: (word: Part, page: Part) => `${word}, page ${page}`,
  pageOf: (word: Part, page: Part, name: Part) => `${word}, page ${page} of ${name}`,
  // what-changed.tsx
  noChangesExceptWordsThat: 'No changes except words that were read slightly differently',
  noVisibleChanges: 'No visible changes',
  wordWas: 'word was',
  wordsWere: 'words were',
  furtherChange: 'further change',
  theComparison: 'the comparison',
  whatChanged: (name: Part) => `What changed: ${name}`,
  beforeNow: (name: Part, day: Part, pages: Part, name2: Part, day2: Part, pages2: Part) =>
    `Before: ${name}, ${day}, ${pages}. Now: ${name2}, ${day2}, ${pages2}.`,
  bothAsAPdf: 'Both as a PDF',
  toTheDeal: 'To the deal',
  toTheForm: 'To the form',
  hideChangesInHeadersPage: (n: Part) => `Hide changes in headers, page numbers, print dates and numbering (${n})`,
  readSlightlyDifferently: (words: Part, n: number) =>
    `${words} read slightly differently: review ${n === 1 ? 'it' : 'them'}`,
  andMore: ' and more',
  onlyWordsCompared: (pages: number, list: Part, more: Part) =>
    `On ${pages === 1 ? 'page' : 'pages'} ${list}${more} only words could be compared. Check the drawings there yourself.`,
  areNotListedBecause: (changes: Part) => `${changes} are not listed, because the two papers differ too much.`,
  change: (n: Part, what: Part, page: Part, part: Part) => `Change ${n}, ${what}, ${page}: ${part}`,
  aDrawingOrHandwritingCheck: 'A drawing or handwriting: check it on the page.',
  readFromAScanCompare: 'Read from a scan: compare it with the page.',
  before: 'Before',
  now: 'Now',
  pageShown: (part: Part, page: Part) => `${part}, page ${page}`,
};
