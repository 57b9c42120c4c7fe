/**
 * The page as a sheet: where it carries ink and print, where it is free, how text is set into a box. It knows points and
 * boxes; it must not know of kinds of marks, of people, or of what a form says.
 */
export * from './types';
export * from './geometry';
export * from './ink';
export * from './space';
export * from './placing';
export * from './arrange';
export * from './fit';
