/** What the screens of “facts” say, in one place to read, edit and translate. */
export const TEXT = {
  // fact-field.tsx
  yes: 'Yes',
  notKnown: 'Not known',
};
