/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “imports” say, in one place to read, edit and translate. */
export const TEXT = {
  // columns.tsx
  whatEachColumn: 'What each column is',
  noColumnIsSet: (join: Part) => `No column is set for: ${join}. Choose one.`,
  column: (i: Part) => `Column ${i}`,
  nothingInTheFirstRows: 'nothing in the first rows',
  isChange: (heading: Part, label: Part) => `${heading} is: ${label}. Change it`,
  leftOut: 'left out',
  // import-place.tsx
  deals: 'Deals',
  people: 'People',
  theFile: 'The file',
  goodRow: 'good row',
  backToTheList: 'Back to the list',
  importATable: 'Import a table',
  whatItsRows: 'What its rows are',
  aCsvFile: 'A CSV file with a row for each person, or cards (vCard). The columns can be in any order.',
  aCsvFile2:
    'A CSV file with a row for each deal. The columns can be in any order. A list exported here can be imported again unchanged.',
  aFileOtherThan: (name: Part) => `Use a file other than ${name}`,
  chooseAFile: 'Choose a file',
  theTableIsBeingRead: 'The table is being read…',
  wereAlreadyThereAndStay: (known: Part) => ` ${known} were already there and stay as they are.`,
  imported: (count: Part, part: Part) => `${count} imported.${part}`,
  toTheAddressBook: 'To the address book',
  toTheDeals: 'To the deals',
  importThe: (rows: Part) => `Import the ${rows}`,
  importAll: (rows: Part) => `Import all ${rows}`,
  cancel: 'Cancel',
  toImportEverythingOrNothing: 'To import everything or nothing, fix the rows above in the file and choose it again.',
  canBeImportedCannot: (rows: Part, bad: Part) => `${rows} can be imported, ${bad} cannot`,
  allCanBeImported: (rows: Part) => `All ${rows} can be imported`,
  eachBecomesOne: (kind: Part) => `Each becomes one of the ${kind}. Nothing is saved until you confirm.`,
  line: (line: Part) => `Line ${line}`,
  more: (wrongCount: Part) => `${wrongCount} more`,
  andMoreAfterThese: (bad: Part) => `And ${bad} more after these.`,
  // list-acts.tsx
  reports: 'Reports',
  asContactCards: 'As contact cards',
};
