/** Answers about incoming contracts: what each says about its deal. */
import * as yup from 'yup';
import type { StatedDay } from '@gatepath/core/abstract';
import { DEAL_KINDS, FOR_WHOM, type FactValue } from '@gatepath/core/deal';
import { SIDES } from '@gatepath/core/text';
import { flag, list, moment, named, oneOf, shape, text, whole } from './answer-fields';
import * as core from './core-answers';

/** A value of a field: of a fact, or a day that is stated or counted. */
const value = yup
  .mixed<FactValue | StatedDay>()
  .defined()
  .meta({ jsonSchema: { description: 'true, a number, a text, {"day": …} or {"count": …, "from": …}' } });

const reading = shape({ value, sources: list(core.source), clear: flag() });

/** A person of the address book with the name that was read. */
const known = shape({ id: text(), email: text(), phone: text().nullable(), company: text() });

const person = shape({
  side: oneOf(SIDES),
  name: text(),
  company: text(),
  capacity: text(),
  sources: list(core.source),
  certain: flag(),
  /** Who of the address book has this name. */
  known: list(known),
});

/** What a contract says about its deal. */
const abstract = named('Abstract', {
  kind: oneOf(DEAL_KINDS),
  kindCertain: flag(),
  /** The side whose broker has the firm’s name; null if none has. */
  forWhom: oneOf(FOR_WHOM).nullable(),
  people: list(person),
  /** Deals at the address it states: the contract may be of one of them. */
  atAddress: list(shape({ id: text(), address: text() })),
  fields: list(shape({ field: text(), readings: list(reading), certain: flag() })),
  /** Captions whose value could not be read, as where it is written by hand. */
  unread: list(shape({ field: text(), source: core.source })),
});

/** An uploaded contract from which a deal can be opened. */
export const incomingView = named('IncomingContract', {
  id: text(),
  documentId: text(),
  name: text(),
  fileName: text(),
  pages: list(core.pageSize),
  pagesRead: whole(),
  status: oneOf(['reading', 'ready', 'failed']),
  problem: text().nullable(),
  createdAt: moment(),
  /** The deal it became; null until it is opened. */
  dealId: text().nullable(),
  /** Null until its words are read. */
  abstract: abstract.nullable(),
  /** Days on which the firm does not work, for counted days. */
  holidays: list(text()),
});
/** The type of `incomingView`. */
export type IncomingView = yup.InferType<typeof incomingView>;

/** Contracts of the member that have not become deals, newest first. */
export const incomingList = named('IncomingContracts', {
  items: list(shape({ id: text(), name: text(), createdAt: moment() })),
});
/** The type of `incomingList`. */
export type IncomingList = yup.InferType<typeof incomingList>;
