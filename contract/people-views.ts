/** Answers about people: the address book, what was written to whom, and what is found. */
import * as yup from 'yup';
import { DEAL_KINDS, DEAL_STATUSES } from '@gatepath/core/deal';
import { SIDES } from '@gatepath/core/text';
import { list, flag, moment, named, oneOf, shape, text, whole } from './answer-fields';
import { anyPacketStatus } from './packet-status';
import { FOUND_KINDS } from './schemas';

const messageFields = {
  id: text(),
  kind: text(),
  toName: text(),
  toEmail: text(),
  subject: text(),
  createdAt: moment(),
  status: oneOf(['queued', 'kept', 'sent', 'failed', 'returned']),
  problem: text().nullable(),
  packetId: text().nullable(),
  link: text().nullable(),
  channel: oneOf(['email', 'text']),
  toPhone: text().nullable(),
};
/** A message as lists show it. */
export const messageSummary = named('MessageSummary', messageFields);
/** The type of `messageSummary`. */
export type MessageSummary = yup.InferType<typeof messageSummary>;
/** A message with its text. */
export const messageView = named('Message', { ...messageFields, bodyText: text() });
/** The type of `messageView`. */
export type MessageView = yup.InferType<typeof messageView>;

const personFields = {
  id: text(),
  name: text(),
  email: text(),
  phone: text().nullable(),
  company: text(),
};
/** Somebody of the address book, with how many deals they are in. */
export const personSummary = named('PersonSummary', { ...personFields, deals: whole() });
/** The type of `personSummary`. */
export type PersonSummary = yup.InferType<typeof personSummary>;

/** One person with all their deals, papers and messages, newest first. */
export const personView = named('Person', {
  ...personFields,
  deals: list(
    shape({
      id: text(),
      address: text(),
      kind: oneOf(DEAL_KINDS),
      status: oneOf(DEAL_STATUSES),
      side: oneOf(SIDES),
      ordinal: whole(),
    }),
  ),
  packets: list(
    shape({ id: text(), name: text(), address: text(), status: anyPacketStatus, holdUp: text(), at: moment() }),
  ),
  messages: list(messageSummary),
  /** Others who may be the same person: of the same name, or reached at the same address. */
  alike: list(shape(personFields)),
});
/** The type of `personView`. */
export type PersonView = yup.InferType<typeof personView>;

const found = shape({ kind: oneOf(FOUND_KINDS), id: text(), dealId: text().nullable(), title: text(), detail: text() });
/** The type of `found`. */
export type Found = yup.InferType<typeof found>;
/** Search results by kind. */
export const foundView = named('Found', {
  deals: list(found),
  people: list(found),
  packets: list(found),
  papers: list(found),
  /** Whether nothing is written quite so, and what is alike is shown. */
  alike: flag(),
});
/** The type of `foundView`. */
export type FoundView = yup.InferType<typeof foundView>;
