/** Answers about tables that are brought in. */
import type * as yup from 'yup';
import { flag, list, moment, oneOf, named, shape, text, whole } from './answer-fields';

/** Preview or result of importing a table. */
export const importView = named('Import', {
  headings: list(text()),
  /** The field each column is taken for; empty for none. */
  map: list(text()),
  fields: list(shape({ key: text(), label: text(), needed: flag() })),
  /** Fields that no column is taken for, and without which no row can be taken. */
  missing: list(text()),
  /** The first rows. */
  sample: list(list(text())),
  good: whole(),
  bad: whole(),
  /** Rows that cannot be taken: the first two hundred, by their lines in the file. */
  wrong: list(shape({ line: whole(), why: list(text()) })),
  /** What became of it; null when it was only looked at. Known ones were there already, and stay as they are. */
  taken: shape({ added: whole(), known: whole() }).nullable(),
});
/** The type of `importView`. */
export type ImportView = yup.InferType<typeof importView>;

/** Status of a deal’s binder. */
export const binderView = named('Binder', {
  status: oneOf(['none', 'making', 'ready', 'failed']),
  /** Pieces put in so far, and in all. */
  done: whole(),
  pieces: whole(),
  /** Of the latest one that was made; null before there is one. */
  bytes: whole().nullable(),
  madeAt: moment().nullable(),
});
/** The type of `binderView`. */
export type BinderView = yup.InferType<typeof binderView>;
