export * from './types';
export { readPlaces } from './read';
export { linesOf, wordsOf } from './text';
export { kindOfWords, roleOfWords, plain } from './words';
export { placeOfField, type FormField } from './acroform';
export { suggestType, DOCUMENT_TYPES, TYPE_WORDS, type DocumentType } from './suggest';
export { matchPages } from './match';
