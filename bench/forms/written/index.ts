/** The forms the reader's rules were written on. */
import { browserForms } from './browser';
import { libraryForms } from './library';
import { writerForms } from './writer';

export const written = [...browserForms, ...writerForms, ...libraryForms];
