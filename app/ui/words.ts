/** A value in a sentence: a name, a number, or words. */
type Part = string | number;

/** Texts of the shared controls, in one place to read, edit and translate. */
export const TEXT = {
  // boundary.tsx
  thisPageCouldNotBe: 'This page could not be shown',
  checkYourConnectionAndTry: 'Check your connection and try again. What you signed or placed is saved.',
  tryAgain: 'Try again',
  cannotBeShownRightNow: (name: Part) =>
    `“${name}” cannot be shown right now. Everything else still works, and what you did is saved.`,
  showItAgain: 'Show it again',
  // brand.tsx
  gatePath: 'Gate Path',
  // confirm.tsx
  yes: (label: Part) => `Yes: ${label}`,
  remove: 'Remove',
  keep: 'Keep',
  // gate.tsx
  openNow: 'open now',
  notOpenYet: 'not open yet',
  stoppedHere: 'stopped here',
  gate: (n: Part, says: Part) => `Gate ${n}, ${says}`,
  // new-password-field.tsx
  password: 'Password',
  useAtLeastCharacters: 'Use at least 10 characters.',
  // not-ready.tsx
  didNotLoad: (toUpperCase: Part, slice: Part) => `${toUpperCase}${slice} did not load`,
  // pieces.tsx
  somethingWentWrong: 'Something went wrong.',
  loading: (what: Part) => `Loading ${what}…`,
  // pill.tsx
  any: (label: Part) => `${label}: any`,
  // zone-field.tsx
  timeZone: 'Time zone',
  matchingTimeZones: 'Matching time zones',
  itIsThereNowDates: (clock: Part) => `It is ${clock} there now. Dates are shown in it.`,
  typeTheName: 'Type the name of a large city near you.',
  // csv-link.tsx
  asCsv: 'As CSV',
  // corner.tsx
  inDraft: 'in draft',
  outToBeSigned: 'out to be signed',
  // do-or-leave.tsx
  cancel: 'Cancel',
  // hour-menu.tsx
  at: (value: Part) => `at ${value}`,
};
