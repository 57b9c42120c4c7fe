/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “frame” say, in one place to read, edit and translate. */
export const TEXT = {
  // command-line.tsx
  startHome: 'start home',
  newDeal: 'New deal',
  openBeginListingSaleTenancy: 'open begin listing sale tenancy',
  formsKits: 'forms kits',
  newKit: 'New kit',
  notices: 'Notices',
  rentEntryLettersTenantsMany: 'rent entry letters tenants many homes',
  newNotice: 'New notice',
  rentEntryManyHomes: 'rent entry many homes',
  addressBookContacts: 'address book contacts',
  reports: 'Reports',
  chartsInsightWeeksTimeAt: 'charts insight weeks time at gate',
  importATable: 'Import a table',
  csvVcardImportDealsPeople: 'csv vcard import deals people',
  rules: 'Rules',
  requirementsPapersNeeded: 'requirements papers needed',
  newRule: 'New rule',
  messagesMail: 'messages mail',
  settingsHolidaysMembersCalendar: 'settings holidays members calendar',
  verifyASealedCopy: 'Verify a sealed copy',
  verifyProof: 'verify proof',
  packets: 'Packets',
  papers: 'Papers',
  findOrDoAnything: 'Find or do anything',
  noExactMatchSimilar: 'No exact match. Similar:',
  screensAndActions: 'Screens and actions',
  signOutLeave: 'sign out leave',
  signOut: 'Sign out',
  nothingHas: (slice: Part) => `Nothing has “${slice}” in it, or anything similar.`,
  // frame.tsx
  today: 'Today',
  deals: 'Deals',
  shelf: 'Shelf',
  people: 'People',
  mailroom: 'Mailroom',
  firm: 'Firm',
  gatePath: 'Gate Path',
};
