/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “notices” say, in one place to read, edit and translate. */
export const TEXT = {
  // home-chooser.tsx
  findTheTenancy: 'Find the tenancy',
  noActiveTenancyHasThat: 'No active tenancy has that name.',
  // home-row.tsx
  notSaid: 'not filled in',
  nobodyYet: 'no one yet',
  saveForThisHome: 'Save for this home',
  seeWhatWent: 'See what was sent',
  seeWhatWillGo: 'See what will be sent',
  itsPacketAndProof: 'Its packet and proof',
  theTenancy: 'The tenancy',
  includeItAgain: 'Include it again',
  dismiss: 'Dismiss',
  // homes.tsx
  soFar: (homes: Part) => `${homes} so far`,
  whoGets: 'Who gets it',
  aCsvFileWithOne: 'A CSV file with one row per home: its address, and in the other columns what its notice says.',
  aTableOtherThan: (name: Part) => `Use a table other than ${name}`,
  importATable: 'Import a table',
  take: (rows: Part) => `Take ${rows}`,
  takenAnyProblemIsShown: (rows: Part) => `${rows} taken. Any problem is shown in its row.`,
  orEveryActiveTenancyThose: 'Or every active tenancy, those at an address or in a town, or with a tag:',
  addressOrTown: 'Address or town',
  tag: 'Tag',
  addTheseTenancies: 'Add these tenancies',
  addEveryActiveTenancy: 'Add every active tenancy',
  // letters.tsx
  lettersFor: (homes: Part) => `Letters for ${homes}`,
  forPeopleWithoutAnEmail:
    'For people without an email address, and in place of messages that came back. Each starts with a page that has a slip to sign.',
  lettersAsPdf: 'Letters as PDF',
  howTheyWereSent: 'How they were sent',
  posted: 'Mailed',
  handedOver: 'Handed over',
  on: 'On',
  allOfThemWereSent: 'All of them were sent',
  // new-notice.tsx
  backToTheNotices: 'Back to the notices',
  forWord: (homes: Part) => `For ${homes}`,
  newNotice: 'New notice',
  chooseTheKitToSend:
    'Choose the kit to send. If the kit’s tenants receive it, no one signs; otherwise they are asked to sign.',
  theKits: 'the kits',
  noKit: 'No kit is on the shelf yet. Write a form, add it to a kit, and set its tenants to receive it.',
  aNotice: (name: Part) => `A notice of ${name}`,
  moreKits: 'More kits',
  // notice-place.tsx
  theNotice: 'the notice',
  whichHomesAreShown: 'Which homes are shown',
  theSignsOfAHome: (list: Part) => `The signs of a home, in their order: ${list}.`,
  theHomes: 'the homes',
  noHomeHere: 'No home here.',
  showMoreHomes: 'Show more homes',
  noticeToBeSigned: 'Notice, to be signed',
  noticeOnlyDelivered: 'Notice, only delivered',
  stopTheRun: 'Stop the run',
  deleteWord: 'Delete',
  sendTheThat: (ready: Part, part: Part) => `Send the ${ready} that ${part}`,
  sendTo: (homes: Part) => `Send to ${homes}`,
  nothingToSendYet: 'Nothing to send yet',
  gone: 'Sent',
  ofGone: (gone: Part, all: Part) => `${gone} of ${all} sent`,
  countsFrom: 'counts from',
  howItStands: 'status',
  // notices-place.tsx
  theNotices: 'the notices',
  showOlderNotices: 'Show older notices',
  noNoticesYet: 'No notices yet',
  aNoticeIsOneKit:
    'A notice is one kit for many homes: a change of rent, an entry, new house rules. Each home is prepared and checked before anything is sent, and its delivery is recorded.',
  ofGoneOf: (name: Part, gone: Part, all: Part) => `${name}, ${gone} of ${all} sent`,
  ofGoneOpened: (gone: Part, homes: Part, opened: Part) => `${gone} of ${homes} sent, ${opened} opened`,
  // said-to-all.tsx
  whatEveryHomeReads: 'What every home reads',
  nameOfTheNotice: 'Name of the notice',
  whatIsFilledInHere: 'What is filled in here is the same for every home. What is left open comes from each row.',
  nothingInThisKitsPapers: 'Nothing in this kit’s papers differs from home to home.',
  keepIt: 'Cancel',
  rule: 'Rule',
  noRule: 'No rule',
  sentTodayItCountsAs: (day: Part, day2: Part) =>
    `Sent today, it counts as delivered on ${day}: it can take effect from ${day2} on.`,
  sendNothingWhileARow: 'Send nothing while a row is wrong',
};
