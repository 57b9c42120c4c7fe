/** Answers about the firm and its members: sessions, colleagues, invitations, work that failed. */
import type * as yup from 'yup';
import { calendarDay, flag, list, moment, named, oneOf, shape, text, whole } from './answer-fields';
import { MEMBER_ROLES, NOTICES } from './schemas';

/** The signed-in member, the firm, and what this server can do. */
export const sessionView = named('Session', {
  /** Name and time zone of the firm; null on a new server, before anybody has set it up. */
  firm: shape({ name: text(), timeZone: text() }).nullable(),
  member: shape({
    id: text(),
    name: text(),
    email: text(),
    role: oneOf(MEMBER_ROLES),
    notices: list(oneOf(NOTICES)),
    digest: flag(),
  }).nullable(),
  /** Whether the set-up asks for the code that the server printed. */
  setupToken: flag(),
  /** Whether the demo world is loaded; then its sign-ins may be shown. */
  demo: shape({ signIns: list(shape({ name: text(), email: text(), password: text() })) }).nullable(),
  /** Whether the clock can be set forward here. */
  clockForward: flag(),
  /** Where messages go. */
  mail: oneOf(['mailroom', 'smtp']),
  /** Languages a client can be written to in, by tag. */
  languages: list(shape({ tag: text(), name: text() })),
  now: moment(),
});
/** The type of `sessionView`. */
export type SessionView = yup.InferType<typeof sessionView>;

/** Message texts: the member's own, and those the firm shares. */
export const messageTexts = named('MessageTexts', {
  items: list(shape({ id: text(), name: text(), text: text(), shared: flag(), own: flag(), by: text() })),
});
/** The type of `messageTexts`. */
export type MessageTexts = yup.InferType<typeof messageTexts>;

const colleague = shape({ id: text(), name: text() });
/** Who may send in the member's name, and in whose name they may send. */
export const colleaguesView = named('Colleagues', {
  others: list(colleague),
  /** Those who may send in the member's name, by their ids. */
  lets: list(text()),
  /** Those in whose name the member may send. */
  mayFor: list(colleague),
});
/** The type of `colleaguesView`. */
export type Colleagues = yup.InferType<typeof colleaguesView>;

/** Something the server could not do, and has stopped trying by itself. */
const workFailureView = named('WorkFailure', {
  queue: text(),
  thing: text(),
  /** What it was about, in words. */
  sentence: text(),
  /** What went wrong, as the server saw it. */
  detail: text(),
  tries: whole(),
  at: moment(),
});
/** The type of `workFailureView`. */
export type WorkFailureView = yup.InferType<typeof workFailureView>;

/** The firm: members, invitations, seal, holidays and failed work. */
export const firmView = named('Firm', {
  name: text(),
  timeZone: text(),
  /** Those who have left too: what is on file names them. */
  members: list(
    shape({
      id: text(),
      name: text(),
      email: text(),
      role: oneOf(MEMBER_ROLES),
      disabledAt: moment().nullable(),
      /** Who took over from them. */
      handedTo: text().nullable(),
    }),
  ),
  /** Invitations nobody has taken yet; for owners. */
  invitations: list(shape({ id: text(), name: text(), email: text(), role: oneOf(MEMBER_ROLES), expiresAt: moment() })),
  holidays: list(calendarDay()),
  /** Whether what was on a paper the last time is placed at once, where nothing is in doubt. */
  placeRemembered: flag(),
  seal: shape({ subject: text(), issuer: text(), validUntil: moment(), fingerprint: text(), selfMade: flag() }),
  mail: oneOf(['mailroom', 'smtp']),
  /** Background work that was given up after its tries. */
  failures: list(workFailureView),
});
/** The type of `firmView`. */
export type FirmView = yup.InferType<typeof firmView>;

/** Who is invited by a link. */
export const invitationView = named('Invitation', { firm: text(), name: text(), email: text() });
/** The type of `invitationView`. */
export type InvitationView = yup.InferType<typeof invitationView>;

/** Where a member is signed in. */
export const sessionsView = named('Sessions', {
  sessions: list(
    shape({
      id: text(),
      /** The browser as it names itself. */
      browser: text(),
      since: moment(),
      until: moment(),
      /** Whether it is the one that asks. */
      current: flag(),
    }),
  ),
});
/** The type of `sessionsView`. */
export type SessionsView = yup.InferType<typeof sessionsView>;
