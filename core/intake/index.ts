/**
 * What comes in as a table: which column is what, what a cell says, and what is wrong with a row. It knows deals and
 * people; it must not know of files and their formats: it is given headings and cells.
 */
export { guessFields, type IntakeField, intakeFields, TABLE_KINDS, type TableKind } from './fields';
export { dayOfCell, factOfCell, figureOfCell, textOfCell } from './cells';
export { type BadRow, type DealRow, dealsOf, peopleOf, type PersonRow, type Table, type Taken } from './rows';
