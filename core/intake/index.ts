/**
 * Importing tables: which column is what, what a cell says, and what is wrong with a row. Knows deals and people;
 * must not know files and formats: it is given headings and cells.
 */
export { guessFields, type IntakeField, intakeFields, TABLE_KINDS, type TableKind } from './fields';
export { dayOfCell, factOfCell, figureOfCell, textOfCell } from './cells';
export { type BadRow, type DealRow, dealsOf, peopleOf, type PersonRow, type Table, type Taken } from './rows';
