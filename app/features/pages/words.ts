/** What pages say wherever they are shown; clients read theirs from core/words. */
export const TEXT = {
  // sheet.tsx
  pageNotLoaded: 'This page could not be loaded. Check the connection and load it again.',
};
