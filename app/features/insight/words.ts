/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “insight” say, in one place to read, edit and translate. */
export const TEXT = {
  // chart-card.tsx
  hideTheNumbers: 'Hide the numbers',
  theNumbers: 'The numbers',
  // insight-place.tsx
  inWeeksWentOutAnd: (what: Part, counted: Part, executed: Part, what2: Part) =>
    `In ${what} weeks ${counted} went out and ${executed} were executed; ${what2} lapsed.`,
  slowestHalfTakeNoLonger: (side: Part, median: Part, slow: Part) =>
    `Slowest: ${side}. Half take no longer than ${median}, nine in ten no longer than ${slow}.`,
  howItGoes: 'the reports',
  reports: 'Reports',
  howTheFirmsPacketsWent: 'How the firm’s packets went in the last months. Nothing here is counted by person.',
  packetsAWeek: 'Packets a week',
  nothingHasBeenSent: 'Nothing has been sent in the last weeks.',
  weekOf: 'Week of',
  sent: 'Sent',
  executed: 'Executed',
  lapsed: 'Lapsed',
  timeAtAGate: 'Time at a gate, by side',
  noOneHasFinishedAnything: 'No one has finished anything in the last six months.',
  halfTakeNoLongerDays: 'half take at most (days)',
  nineInTenTakeNo: '90% take at most',
  side: 'Side',
  people: 'People',
  half: 'Half',
  nineInTen: 'Nine in ten',
  heldUpNowBySide: 'Held up now, by side',
  waitedForTheLongest: (persons: Part, n: number, days: Part) =>
    `${persons} ${n === 1 ? 'is' : 'are'} waited for, the longest for ${days}.`,
  noOneIsWaited: 'No one is waited for.',
  waitedForWithin: 'waited for',
  waitedFor: 'Waited for',
  longestDays: 'Longest, days',
  fromDraftToExecuted: 'From draft to executed',
  inHalfOfThePackets: (monthName: Part, days: Part) =>
    `In ${monthName} half of the packets took no longer than ${days}, from the draft to the end.`,
  noPacketWasExecuted: 'No packet was executed in the last year.',
  month: 'Month',
  halfDays: 'Half, days',
};
