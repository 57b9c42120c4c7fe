/** What the screens of “facts” say, in one place to read, edit and translate. */
export const TEXT = {
  // fact-field.tsx
  notKnown: 'Not known',
};
