import { count, listWords } from '@gatepath/core/text';

/** What the screens of “memory” say, in one place to read, edit and translate. */
export const TEXT = {
  // remembered-card.tsx
  sentBefore: 'You’ve sent this paper before',
  sentAlike: 'You’ve sent a similar paper before',
  onYourShelf: 'This paper is on your shelf',
  likeAForm: 'A similar paper is on your shelf',
  isTheSame: (name: string, of: string) => `“${name}” is word for word the same as ${of}.`,
  isFilledIn: (name: string, of: string) => `“${name}” is the same as ${of}. Only what is filled in differs.`,
  isChanged: (name: string, of: string, gone: number, added: number, moved: boolean) => {
    const changes = [
      added ? `${count(added, 'word')} added` : '',
      gone ? `${count(gone, 'word')} gone` : '',
      moved ? 'parts moved' : '',
    ].filter(Boolean);
    return `“${name}” differs from ${of}${changes.length ? `: ${listWords(changes)}` : ''}. Read it before you send it.`;
  },
  thePaperOf: (address: string, day: string, executed: boolean) =>
    `the paper for ${address}, ${executed ? 'executed' : 'sent'} ${day}`,
  theForm: (name: string) => `the form “${name}”`,
  becomes: (slot: string, names: string[]) => `${slot}: ${listWords(names)}`,
  roomFor: (names: string[]) => `Room was found for ${listWords(names)}, for whom the paper has no line.`,
  nobodyIs: (slots: string[], marks: number) =>
    `${count(marks, 'mark')} left out because this packet has no ${listWords(slots)}.`,
  lost: (n: number) =>
    `${count(n, 'mark')} could not be matched to this paper and ${n === 1 ? 'was' : 'were'} left out.`,
  uncertain: (n: number) =>
    n === 1 ? '1 mark may not belong where it was found.' : `${n} marks may not belong where they were found.`,
  review: (uncertain: number, elsewhere: number) =>
    `Review ${listWords([uncertain ? count(uncertain, 'uncertain mark') : '', elsewhere ? count(elsewhere, 'moved mark') : ''].filter(Boolean))}`,
  hide: 'Hide',
  // found-places.tsx
  whose: (name: string, what: string, page: number) => `${name}: ${what}, page ${page}`,
  ofNobody: (what: string, page: number) => `${what.charAt(0).toUpperCase()}${what.slice(1)}, page ${page}`,
  isUncertain: 'Not certain. Turn on to place it here.',
  isElsewhere: 'In a different place than last time.',
  cropOf: (page: number) => `Where it would be on page ${page}`,
  andMore: (n: number) => `${count(n, 'more mark')} not shown here. Check them on the pages.`,
  stillOpen: (n: number) => `${count(n, 'printed place')} will still need a decision.`,
  nothingElse: 'Names and filled-in text from that deal are not copied.',
  place: (marks: number, rules: number) =>
    `Place ${marks ? (marks === 1 ? 'the mark' : `the ${count(marks, 'mark')}`) : ''}${marks && rules ? ' and ' : ''}${rules ? 'the initials' : ''}`,
  placeAndSend: 'Place and send…',
  notNow: 'Not now',
  stopOffering: 'Do not offer this again',
  more: (name: string) => `More about “${name}”`,
  placed: (marks: number) => `${count(marks, 'mark')} placed as last time`,
  onPaper: (name: string, marks: number) => `On “${name}”. Check ${marks === 1 ? 'it' : 'them'} before you send.`,
  remove: (marks: number) => (marks === 1 ? 'Remove it' : 'Remove them'),
  sentOften: (n: number) => `Sent ${n} times. As a form on the shelf it can be part of kits.`,
  addToShelf: 'Add it to the shelf',
};
