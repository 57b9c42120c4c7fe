/** Requests as Yup schemas; their TypeScript types are inferred from them. Here: firm, deals, documents, lists. */
import * as yup from 'yup';
import { MOST_TOPICS, TOPIC_KINDS } from './limits';
import { DEAL_KINDS, FOR_WHOM } from '@gatepath/core/deal';
import { DOCUMENT_TYPES } from '@gatepath/core/reading';
import { SIDES } from '@gatepath/core/text';
import { dateValues, givenFacts } from './deal-schemas';
import { day, email, id, language, line, object, text } from './fields';

export {
  changeBody,
  type ChangeBody,
  lateRoundBody,
  type LateRoundBody,
  withdrawBody,
  type WithdrawBody,
} from './change-schemas';
export { addDocumentQuery, composeBody, type ComposeBody } from './document-schemas';
export {
  editsBody,
  type EditsBody,
  markItem,
  sendBody,
  type SendBody,
  sendingHour,
  sendLaterBody,
  type SendLaterBody,
} from './draft-schemas';
export {
  agreementBody,
  codeBody,
  declineBody,
  type DeclineBody,
  fillBody,
  type FillBody,
  finishBody,
  handBody,
  type HandBody,
  handOverBody,
  type HandOverBody,
  languageBody,
  questionBody,
  type QuestionBody,
} from './signing-schemas';

export { DEAL_KINDS } from '@gatepath/core/deal';
export {
  activityQuery,
  type ActivityQuery,
  DEAL_ORDERS,
  dealFilters,
  dealPatch,
  type DealPatch,
  dealsActBody,
  type DealsActBody,
  dealsQuery,
  type DealsQuery,
  findQuery,
  FOUND_KINDS,
  givenFacts,
  mergeBody,
  MOST_OWN_FACTS,
  ownFactsBody,
  type OwnFactsBody,
  personBody,
  statedBody,
  type StatedBody,
  type PersonBody,
  ruleBody,
  type RuleBody,
  rulesOnBody,
  type RulesOnBody,
  ruleTrialBody,
  type RuleTrialBody,
  seenBody,
  term,
  viewBody,
  type ViewBody,
  waiverBody,
  type WaiverBody,
} from './deal-schemas';
export {
  editionBody,
  type EditionBody,
  saveToShelfBody,
  type SaveToShelfBody,
  kitBody,
  type KitBody,
  kitTrialBody,
  kitUseBody,
  type KitUseBody,
  SHELF_KINDS,
  shelfPatch,
  type ShelfPatch,
  shelfQuery,
  type ShelfQuery,
  writtenBody,
  type WrittenBody,
  writtenFormBody,
  type WrittenFormBody,
} from './shelf-schemas';
export {
  homesBody,
  type HomesBody,
  homeTableQuery,
  type HomeTableQuery,
  lettersBody,
  type LettersBody,
  NOTICE_SHOWS,
  noticeBody,
  type NoticeBody,
  noticePatch,
  type NoticePatch,
  noticeRowPatch,
  type NoticeRowPatch,
  noticeRowsQuery,
  type NoticeRowsQuery,
  noticeRulesBody,
  type NoticeRulesBody,
  noticesQuery,
  type NoticesQuery,
} from './notice-schemas';

/** Body of setting up the firm. */
export const setupBody = object({
  firmName: line(120).required('Give the name of your firm.'),
  timeZone: line(60).required('Choose a time zone.'),
  name: line(120).required('Give your name.'),
  email: email().required('Give your email address.'),
  password: yup.string().min(10, 'Use at least 10 characters.').max(200).required('Choose a password.'),
  /** The code that the server printed when it was started, where it asks for one. */
  token: line(100).default(''),
});
/** The type of `setupBody`. */
export type SetupBody = yup.InferType<typeof setupBody>;

const newPassword = () => yup.string().min(10, 'Use at least 10 characters.').max(200).required('Choose a password.');

/** What somebody becomes in the firm: owners invite and disable members. */
export const MEMBER_ROLES = ['owner', 'member'] as const;

/** Body of inviting a member. */
export const inviteBody = object({
  name: line(120).required('Give their name.'),
  email: email().required('Give their email address.'),
  role: yup.string().oneOf(MEMBER_ROLES).required(),
});
/** The type of `inviteBody`. */
export type InviteBody = yup.InferType<typeof inviteBody>;

/** Body of becoming a member. */
export const joinBody = object({ name: line(120).required('Give your name.'), password: newPassword() });
/** The type of `joinBody`. */
export type JoinBody = yup.InferType<typeof joinBody>;

/** Body of requesting a link for a new password. */
export const forgotBody = object({ email: email().required('Give your email address.') });
/** The type of `forgotBody`. */
export type ForgotBody = yup.InferType<typeof forgotBody>;

/** Body of choosing a new password by that link. */
export const resetBody = object({ password: newPassword() });
/** The type of `resetBody`. */
export type ResetBody = yup.InferType<typeof resetBody>;

/** Body of changing one's own password. */
export const passwordBody = object({
  current: yup.string().max(200).required('Give your password.'),
  password: newPassword(),
});
/** The type of `passwordBody`. */
export type PasswordBody = yup.InferType<typeof passwordBody>;

/** Who takes over from a member who leaves. */
export const disableBody = object({ toId: id().required('Choose who takes over.') });
/** The type of `disableBody`. */
export type DisableBody = yup.InferType<typeof disableBody>;

/** Body of signing in. */
export const signInBody = object({
  email: line(254).required('Give your email address.'),
  password: yup.string().max(200).required('Give your password.'),
});
/** The type of `signInBody`. */
export type SignInBody = yup.InferType<typeof signInBody>;

/** Colleagues who may send in the member's name. */
export const letsBody = object({ lets: yup.array(id().required()).max(200).required() });
/** The type of `letsBody`. */
export type LetsBody = yup.InferType<typeof letsBody>;

/** A part of messages that recurs, under a name. */
export const messageTextBody = object({
  name: line(60).min(1, 'Give it a name.').required('Give it a name.'),
  text: text(4000).min(1, 'There is no text.').required('There is no text.'),
  /** Whether the whole firm may use it. */
  shared: yup.boolean().default(false),
});
/** The type of `messageTextBody`. */
export type MessageTextBody = yup.InferType<typeof messageTextBody>;

/** Body of adding or correcting a person of a deal. */
export const partyBody = object({
  side: yup.string().oneOf(SIDES).required('Choose a side.'),
  name: line(120).required('Give a name.'),
  email: email().default(''),
  phone: line(40).nullable().default(null),
  /** Whom they sign for, when it is not themselves. */
  company: line(160).default(''),
  /** In what capacity they sign: "trustee of the Alder Trust". */
  capacity: line(120).default(''),
  /** Who of the address book they are; left out, they are looked up there by name and address. */
  personId: id().nullable().default(null),
});
/** The type of `partyBody`. */
export type PartyBody = yup.InferType<typeof partyBody>;

/** Body of opening a deal. */
export const dealBody = object({
  kind: yup.string().oneOf(DEAL_KINDS).required('Choose what kind of deal it is.'),
  /** Left out for the usual side of its kind. */
  forWhom: yup.string().oneOf(FOR_WHOM).nullable().default(null),
  address: line(160).required('Give the street address.'),
  city: line(120).default(''),
  parties: yup.array(partyBody).max(40).default([]),
});
/** The type of `dealBody`. */
export type DealBody = yup.InferType<typeof dealBody>;

/** Body of opening the deal of a contract: what a member has accepted of what was read, and what they typed. */
export const openIncomingBody = dealBody.shape({ facts: givenFacts(), dates: dateValues() });
/** The type of `openIncomingBody`. */
export type OpenIncomingBody = yup.InferType<typeof openIncomingBody>;

const TOPIC = `(?:${TOPIC_KINDS.join('|')}):[\\w-]{1,60}`;
/** What a stream of news may be about, at most a few dozen at a time: `deal:…`, `packet:…`, `today:firm`, with commas between. */
export const liveQuery = object({
  topics: yup
    .string()
    .max(4_000)
    .matches(new RegExp(`^${TOPIC}(?:,${TOPIC}){0,${MOST_TOPICS - 1}}$`), 'names no topics')
    .required('Name what to hear of.'),
});

/** Whether a table is only looked at, taken whole or not at all, or the rows of it with nothing wrong. */
export const importQuery = object({
  take: yup.string().oneOf(['none', 'all', 'good']).default('none'),
  /** The field of each column, in their order, with commas between; empty for a column that is left out. */
  map: yup.string().max(4_000),
});
/** The type of `importQuery`. */
export type ImportQuery = yup.InferType<typeof importQuery>;

/** Query of a list: search and page. */
export const listQuery = object({
  after: id(),
  limit: yup.number().integer().min(1).max(100).default(20),
  search: line(80),
});
/** The type of `listQuery`. */
export type ListQuery = yup.InferType<typeof listQuery>;

/** How finely a page is drawn, in dots an inch; the next larger of those that are kept is taken. */
export const pageQuery = object({ dpi: yup.number().min(1).max(1000).default(108) });
/** The type of `pageQuery`. */
export type PageQuery = yup.InferType<typeof pageQuery>;

/** The id of an act whose body is a file. */
export const actQuery = object({ actId: id().min(8).required('Load the page again and add the file once more.') });

/** Query of a rehearsal: the language. */
export const rehearsalQuery = object({ language: language() });
/** Query of the list of messages. */
export const mailroomQuery = listQuery.shape({ packetId: id() });

/** Body of starting a packet. */
export const newPacketBody = object({
  name: line(120).required('Give the packet a name.'),
  documentIds: yup.array(id().required()).max(60).default([]),
});
/** The type of `newPacketBody`. */
export type NewPacketBody = yup.InferType<typeof newPacketBody>;

/** What members can be notified about. */
export const NOTICES = ['asked', 'opened', 'done', 'declined', 'question', 'lapsing', 'executed', 'trouble'] as const;
/** What a member wants to be written to about. */
export type Notice = (typeof NOTICES)[number];
/** Body of choosing notifications. */
export const noticesBody = object({
  notices: yup.array(yup.string().oneOf(NOTICES).required()).max(NOTICES.length).required(),
  digest: yup.boolean().required(),
});
/** The type of `noticesBody`. */
export type NoticesBody = yup.InferType<typeof noticesBody>;

/** Body of choosing whether what was on a paper the last time is placed at once. */
export const placeRememberedBody = object({ on: yup.boolean().required() });

/** Body of replacing the firm's holidays. */
export const holidaysBody = object({ holidays: yup.array(day().required()).max(400).required() });
/** The type of `holidaysBody`. */
export type HolidaysBody = yup.InferType<typeof holidaysBody>;

/** Work that was given up, by the names the firm’s view gives it. */
export const tryAgainBody = object({ queue: line(40).required(), thing: line(200).required() });
/** The type of `tryAgainBody`. */
export type TryAgainBody = yup.InferType<typeof tryAgainBody>;

/** Body of setting the demo's clock forward. */
export const clockBody = object({
  hours: yup
    .number()
    .integer()
    .min(1)
    .max(24 * 120)
    .required(),
});
/** The type of `clockBody`. */
export type ClockBody = yup.InferType<typeof clockBody>;

/** Body of returning a message, in the mailroom only. */
export const returnBody = object({ why: line(200) });
/** The type of `returnBody`. */
export type ReturnBody = yup.InferType<typeof returnBody>;

/** Body of changing a document; absent fields stay as they are. */
export const documentPatch = object({
  name: line(120).min(1, 'Give the document a name.'),
  type: yup.string().oneOf(DOCUMENT_TYPES),
  replacedBy: id().nullable(),
  /** The last day it holds; null for no end. */
  endsOn: day().nullable(),
  /** The day it was signed somewhere else; null for one that is signed here. */
  elsewhereOn: day().nullable(),
  /** Whether nobody signs it: it is only kept. */
  unsigned: yup.boolean(),
  /** Goes on without the words of pages that are pictures, where they are still being recognised. */
  withoutWords: yup.boolean().oneOf([true]),
});
/** The type of `documentPatch`. */
export type DocumentPatch = yup.InferType<typeof documentPatch>;

/** Against which empty form a paper that came back is looked at; null for none. */
export const reviewBody = object({ blankId: id().nullable().defined() });
/** The type of `reviewBody`. */
export type ReviewBody = yup.InferType<typeof reviewBody>;

/** What somebody says of places after looking at them. */
export const reviewSaidBody = object({
  places: yup
    .array(object({ id: id().required(), said: yup.string().oneOf(['yes', 'no']).nullable().defined() }).required())
    .max(5_000)
    .required(),
});
/** The type of `reviewSaidBody`. */
export type ReviewSaidBody = yup.InferType<typeof reviewSaidBody>;

/** Body of ending the review of a returned paper. */
export const reviewEndBody = object({
  how: yup.string().oneOf(['meets', 'kept']).required(),
  reason: line(500).default(''),
});
/** The type of `reviewEndBody`. */
export type ReviewEndBody = yup.InferType<typeof reviewEndBody>;
