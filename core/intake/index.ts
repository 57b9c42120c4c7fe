/**
 * What comes in as a table: which column is what, what a cell says, and what is wrong with a row. It knows deals and
 * people; it must not know of files and their formats: it is given headings and cells.
 */
export * from './fields';
export * from './cells';
export * from './rows';
