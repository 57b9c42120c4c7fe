/** A person's own page: what goes in, and what comes out. */
import * as yup from 'yup';
import { ACTS } from '@gatepath/core/packet';
import { calendarDay, flag, list, named, oneOf, shape, text, whole } from './answer-fields';
import { id, language, line, object } from './fields';
import { OWN_STATUSES } from './lists';

/** Body of giving the code of an own page. */
export const ownCodeBody = object({ code: line(40).required('Give the code.') });
/** The type of `ownCodeBody`. */
export type OwnCodeBody = yup.InferType<typeof ownCodeBody>;
/** Body of choosing the language of an own page. */
export const ownLanguageBody = object({ language: language().required() });
/** Query of an own page: the packet after which it continues. */
export const ownPageQuery = object({ after: id() });
/** Query of a document of an own page: as sent, or sealed. */
export const ownFileQuery = object({
  as: yup
    .string()
    .oneOf(['original', 'sealed'] as const)
    .default('original'),
});

/** A person's own page. */
export const ownPageView = named('OwnPage', {
  firmName: text(),
  firstName: text(),
  language: text(),
  languages: list(shape({ tag: text(), name: text() })),
  /** Where the code goes, told so that only its owner knows it, and whether one is on its way. */
  code: shape({ to: text(), sent: flag() }),
  /** Whether this browser gave the code. Until then there is nothing below. */
  proved: flag(),
  name: text(),
  /** Newest first. */
  packets: list(
    shape({
      id: text(),
      partyId: text(),
      /** Empty where a second step is asked for first. */
      name: text(),
      dealName: text(),
      status: oneOf(OWN_STATUSES),
      act: oneOf(ACTS),
      /** Places that are left to fill. */
      left: whole(),
      opened: flag(),
      lastDay: calendarDay().nullable(),
      /** The day it came, or ended. */
      on: calendarDay(),
      documents: list(shape({ id: text(), name: text(), pages: whole(), sealed: flag() })),
    }),
  ),
  next: text().nullable(),
});
/** The type of `ownPageView`. */
export type OwnPage = yup.InferType<typeof ownPageView>;

/** Where the address of an own page was sent. */
export const ownPageSent = named('OwnPageSent', { to: text() });
/** The type of `ownPageSent`. */
export type OwnPageSent = yup.InferType<typeof ownPageSent>;
