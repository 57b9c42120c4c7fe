/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “people” say, in one place to read, edit and translate. */
export const TEXT = {
  // name-and-email.tsx
  name: 'Name',
  email: 'Email',
  // party-form.tsx
  side: 'Side',
  phoneOptional: 'Phone (optional)',
  signsForACompanyOptional: 'Signs for a company or trust (optional)',
  inWhatCapacityTrustee: 'In what capacity: “trustee of …” (optional)',
  cancel: 'Cancel',
  // people-place.tsx
  people: 'People',
  findANameCompany: 'Find a name, company or address',
  theAddressBook: 'the address book',
  showMorePeople: 'Show more people',
  noOneFound: 'No one found',
  noOneYet: 'No one yet',
  noOneHasInTheir: (search: Part) => `No one has “${search}” in their name, company or address.`,
  everyoneYouAdd: 'Everyone you add to a deal appears here, with their deals, papers and messages on one page.',
  noEmailAddress: 'no email address',
  // person-place.tsx
  thePerson: 'the person',
  backToThePeople: 'Back to the people',
  correct: (name: Part) => `Correct ${name}`,
  signsFor: (company: Part) => `Signs for ${company}`,
  noEmailAddressYet: 'No email address yet',
  asAContactCard: 'As a contact card',
  call: (phone: Part) => `Call ${phone}`,
  phone: 'Phone',
  signsForACompany: 'Signs for a company or trust',
  thisCorrectsEveryOpenDeal:
    'This corrects every open deal. Packets already sent keep the name and address they were sent to.',
  save: 'Save',
  isAlsoInTheAddress: (name: Part, part: Part) => `${name}${part} is also in the address book`,
  andAllTheirDealsBecome: (removed: Part, saved: Part) =>
    `${removed} and all their deals become part of ${saved}. This cannot be undone.`,
  mergeThem: 'Merge them',
  keepBoth: 'Keep both',
  look: 'Look',
  theSamePerson: 'The same person',
  deals: 'Deals',
  inNoDeal: 'In no deal.',
  packets: 'Packets',
  inNoPacket: 'In no packet.',
  messages: 'Messages',
  noMessagesWereSent: 'No messages were sent to them.',
  textMessage: 'Text message',
  // side-field.tsx
  sideChange: (side: Part) => `Side: ${side}. Change`,
  // suggestions.tsx
  fromTheAddressBook: 'From the address book',
  takeFromTheAddressBook: (name: Part) => `Choose ${name} from the address book`,
  noAddressYet: 'no address yet',
};
