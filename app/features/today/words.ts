/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “today” say, in one place to read, edit and translate. */
export const TEXT = {
  // standing-still.tsx
  days: (n: Part) => `${n} days`,
  nudge: 'Nudge',
  correct: 'Correct',
  open: 'Open',
  sign: 'Sign',
  nudgeWho: (who: Part) => `Nudge ${who}`,
  stalled: 'Stalled',
  longestFirst: 'longest first',
  allOfThemWereNudged: 'All of them were nudged just now.',
  more: (itemsCount: Part) => `${itemsCount} more`,
  moreAreShownInTheir: (more: Part) => `${more} more are shown in their deals.`,
  call: (who: Part) => `Call ${who}`,
  // through.tsx
  completed: 'Completed',
  dismiss: 'Dismiss',
  dismissed: 'Dismissed.',
  takeBack: 'Undo',
  andMore: (behind: Part) => `and ${behind} more`,
  // today-place.tsx
  openDeal: 'open deal',
  yourDay: 'your day',
  onWay: (longDay: Part, deals: Part, packets: Part, n: number) =>
    `${longDay}. ${deals}, ${packets} on ${n === 1 ? 'its' : 'their'} way.`,
  everythingIsOnItsWay: 'Everything is on its way',
  startWithADeal: 'Start with a deal',
  noPaperIsDueThis: 'No paper is due this week, no packet is stalled, and there are no questions.',
  openADealWithIts: 'Open a deal with its address. What it needs and what is due will appear here.',
  seeTheDeals: 'See the deals',
  newDeal: 'New deal',
  // waiting.tsx
  forYouToDo: 'For you to do',
  nothingUrgent: 'Nothing urgent.',
  moreOf: (pressing: Part) => `${pressing} more`,
  moreWhenThereIsTime: 'More, when there is time',
  openTheDeal: (title: Part, address: Part) => `${title}, ${address}. Open the deal`,
  // week.tsx
  theWeek: 'The week',
  moreAfterThat: (behind: Part) => `${behind} more after that`,
  late: 'Late',
  today: 'Today',
  nothingIsDue: 'Nothing is due.',
  since: (day: Part) => `, since ${day}`,
};
