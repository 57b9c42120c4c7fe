/** Answers: what the server shows a member. Times are ISO 8601 in UTC, lengths PDF points. */
import * as yup from 'yup';
import { ACTS, LETTER_WAYS, SECOND_STEPS } from '@gatepath/core/packet';
import { PARTY_STATUSES } from '@gatepath/core/routing';
import { SIDES } from '@gatepath/core/text';
import type { WordKey } from '@gatepath/core/words';
import { byName, calendarDay, flag, list, moment, named, number, oneOf, shape, text, whole } from './answer-fields';
import { DEAL_KINDS, DEAL_STATUSES, FOR_WHOM, DOCUMENT_STATUSES } from '@gatepath/core/deal';
import * as core from './core-answers';
import * as d from './deal-views';
import { documentView } from './document-views';
import { forecast } from './insight-views';
import { anyPacketStatus } from './packet-status';

export {
  activityView,
  type ActivityView,
  asked,
  dealsActed,
  type DealsActed,
  dealTags,
  type DealTags,
  factDef,
  factValues,
  feedView,
  type FeedView,
  savedViews,
  type SavedViews,
  keyDates,
  moved,
  next,
  nextAct,
  readiness,
  requirement,
  rule,
  rulesView,
  type RulesView,
  ruleTrial,
  type RuleTrial,
  todayView,
  type TodayView,
} from './deal-views';
export {
  changesOfPaper,
  type ChangesOfPaper,
  type ReviewedPlaceView,
  comparisonView,
  type ComparisonView,
  documentView,
  type DocumentView,
  LEFT_OUT,
  type LeftOut,
  type LeftOutKind,
  paperReviewView,
  type PaperReviewView,
  type PaperSignature,
  paperSignatures,
  type PaperSignatures,
  SIGNATURE_STATES,
} from './document-views';
export {
  type Colleagues,
  colleaguesView,
  firmView,
  type FirmView,
  invitationView,
  type InvitationView,
  messageTexts,
  type MessageTexts,
  sessionsView,
  type SessionsView,
  sessionView,
  type SessionView,
  type WorkFailureView,
} from './firm-views';
export { incomingList, type IncomingList, incomingView, type IncomingView } from './incoming-views';
export { rememberedView, type RememberedView } from './memory-views';
export { forecast, type ForecastView, insightView, type InsightView } from './insight-views';
export { anyPacketStatus, type AnyPacketStatus } from './packet-status';
export {
  type Found,
  foundView,
  type FoundView,
  messageSummary,
  type MessageSummary,
  messageView,
  type MessageView,
  personSummary,
  type PersonSummary,
  personView,
  type PersonView,
} from './people-views';
export { copyVerification, type CopyVerification, type VerifiedRevision } from './verification-views';
export {
  againView,
  type AgainView,
  broughtView,
  type BroughtView,
  kitsView,
  type KitsView,
  kitTrial,
  type KitTrial,
  shelfItemView,
  type ShelfItemView,
  shelfSummary,
  type ShelfSummary,
  type SlotView,
  tagDef,
} from './shelf-views';
export {
  homeTable,
  type HomeTable,
  lettersWent,
  NOTICE_STATES,
  noticeRow,
  type NoticeRow,
  noticeRulesView,
  type NoticeRulesView,
  noticeSummary,
  type NoticeSummary,
  noticeView,
  type NoticeView,
  ROW_STATES,
  STEP_STATES,
} from './notice-views';
export { binderView, type BinderView, importView, type ImportView } from './table-views';

/** A packet as lists show it. */
export const packetSummary = named('PacketSummary', {
  id: text(),
  dealId: text(),
  name: text(),
  status: anyPacketStatus,
  gate: whole(),
  gateCount: whole(),
  marksDone: whole(),
  marksTotal: whole(),
  /** Who holds it up, in words; empty while drafting. */
  holdUp: text(),
  /** The path with its parties, for the drawing of it. */
  path: list(shape({ partyIds: list(text()) })),
  parties: list(shape({ id: text(), name: text(), ink: whole(), act: oneOf(ACTS), done: flag() })),
  sentAt: moment().nullable(),
  endedAt: moment().nullable(),
  createdAt: moment(),
});
/** The type of `packetSummary`. */
export type PacketSummary = yup.InferType<typeof packetSummary>;

const dealFields = {
  id: text(),
  kind: oneOf(DEAL_KINDS),
  address: text(),
  city: text(),
  forWhom: oneOf(FOR_WHOM),
  status: oneOf(DEAL_STATUSES),
  tags: list(text()),
  readiness: d.readiness,
  archivedAt: moment().nullable(),
  createdAt: moment(),
  /** The day it works towards: closing, move-in. */
  goalOn: calendarDay().nullable(),
  packets: list(packetSummary),
};
/** A deal as lists show it. */
export const dealSummary = named('DealSummary', dealFields);
/** The type of `dealSummary`. */
export type DealSummary = yup.InferType<typeof dealSummary>;

/** A person of a deal. */
export const partyView = named('Party', {
  id: text(),
  side: oneOf(SIDES),
  ordinal: whole(),
  name: text(),
  email: text(),
  phone: text().nullable(),
  /** The company or trust they sign for; empty for none. */
  company: text(),
  /** In what capacity they sign; empty for their own. */
  capacity: text(),
  /** Who of the address book they are. */
  personId: text().nullable(),
});
/** The type of `partyView`. */
export type PartyView = yup.InferType<typeof partyView>;

/** A deal. */
export const dealView = named('Deal', {
  ...dealFields,
  timeZone: text(),
  /** The day it is there. */
  today: calendarDay(),
  /** Since when it has stood so. */
  statusOn: calendarDay().nullable(),
  facts: d.factValues(),
  dates: d.keyDates(),
  /** Members who work on it; nobody for everybody. */
  memberIds: list(text()),
  /** Facts the firm added. */
  ownFacts: list(d.factDef),
  parties: list(partyView),
  documents: list(documentView),
  /** How each document stands, by its id, in words. */
  papers: list(
    shape({ documentId: text(), status: oneOf(DOCUMENT_STATUSES), words: text(), packetId: text().nullable() }),
  ),
  requirements: list(d.requirement),
  asked: list(d.asked),
  /** Signatures and initials in packets that are on their way or executed. */
  signatures: shape({ done: whole(), of: whole() }),
  initials: shape({ done: whole(), of: whole() }),
  /** What would move it most. */
  next: list(d.next),
  /** Packets that may not be executed by the day the deal is about: nine times in ten only by then. */
  slow: list(shape({ packetId: text(), name: text(), day: calendarDay() })),
  /** What documents state otherwise than the deal. */
  stated: list(d.stated),
  /** Whether it can be thrown away: nothing in it was ever sent. */
  disposable: flag(),
  /** Until when it is kept at the least. */
  retainUntil: calendarDay().nullable(),
});
/** The type of `dealView`. */
export type DealView = yup.InferType<typeof dealView>;

/** A deal after a change, with what the change did to what it needs. */
export const dealChanged = named('DealChanged', {
  deal: dealView,
  moved: list(d.moved),
  added: list(text()),
  gone: list(text()),
});
/** The type of `dealChanged`. */
export type DealChanged = yup.InferType<typeof dealChanged>;

/**
 * Returns the schema of one part of a long list. `next` is sent back as `after` for the next part; it is null at the
 * end.
 */
export const pageOf = <T>(item: yup.ISchema<T>) => shape({ items: list(item), next: text().nullable() });
/** A page of a list, and the cursor of the next one. */
export interface Page<T> {
  items: T[];
  next: string | null;
}

/** Facts of a document's pages as they travel: ink grids packed, print as flat x, y, w, h numbers. */
export const packedFacts = named('DocumentFacts', {
  cell: number(),
  pages: list(
    shape({
      width: number(),
      height: number(),
      cols: whole(),
      rows: whole(),
      ink: text(),
      print: list(number()),
      /** The printed words, one a box, with spaces between. */
      words: text(),
      /** Blanks that were filled in before the document came, as flat x, y, w, h numbers. */
      filled: yup.array(number()),
    }),
  ),
  /** What was read on the pages. */
  places: list(core.printedPlace),
  /** The number of a sealed copy's own pages, without the signing record that follows them. */
  ownPages: whole().optional(),
});
/** The type of `packedFacts`. */
export type PackedFacts = yup.InferType<typeof packedFacts>;

/** What became of edits: the draft after them, and whether somebody else had just changed the same things. */
export const savedDraft = named('SavedDraft', {
  draft: core.draft,
  version: whole(),
  /** Names of those whose change of the same items these edits stand over; empty nearly always. */
  over: list(text()),
});
/** The type of `savedDraft`. */
export type SavedDraft = yup.InferType<typeof savedDraft>;

const sentParty = shape({
  partyId: text(),
  status: oneOf(PARTY_STATUSES),
  askedAt: moment().nullable(),
  openedAt: moment().nullable(),
  doneAt: moment().nullable(),
  lastActAt: moment().nullable(),
  device: text().nullable(),
  /** Places the party still has to fill itself, and those it has in all. */
  left: whole(),
  total: whole(),
  reason: text().nullable(),
  seenAt: moment().nullable(),
  agreedAt: moment().nullable(),
  again: flag(),
  locked: flag(),
  proved: oneOf(SECOND_STEPS).nullable(),
  hostName: text().nullable(),
  bounced: text().nullable(),
  nudges: whole(),
  lastNudgeAt: moment().nullable(),
  before: list(shape({ name: text(), at: moment(), reason: text() })),
  /** Whether it may be acted on now. */
  turn: flag(),
  /** Since when they may read before their gate; null when they may not. */
  shownAt: moment().nullable(),
  /** Of somebody to whom it is only delivered: when a message reached them, the letter that went, and the day that counts. */
  arrivedAt: moment().nullable(),
  letter: shape({ day: calendarDay(), way: oneOf(LETTER_WAYS) }).nullable(),
  countsFrom: shape({ day: calendarDay(), why: text() }).nullable(),
  wantsLetter: flag(),
});

/** A packet on its way or at its end. */
export const sentView = named('Sent', {
  /** How far the packet’s log goes in this view. */
  seq: whole(),
  plan: core.plan,
  gate: whole(),
  sentAt: moment(),
  endedAt: moment().nullable(),
  parties: list(sentParty),
  questions: list(core.question),
  corrections: list(core.correction),
  /** When somebody is reminded next, warned, or the packet lapses, if nobody does anything. */
  ahead: list(shape({ what: oneOf(['nudge', 'warning', 'last_day']), day: calendarDay(), partyId: text().nullable() })),
  revisions: list(shape({ forSeq: whole(), partyId: text().nullable(), at: moment(), documents: whole() })),
  ledger: shape({ rows: list(core.ledgerRow), partyIds: list(text()), total: whole(), done: whole() }),
  /** What stands in the filled marks, as each page shows it. */
  fills: list(core.shownFill),
  redlines: list(core.redline),
  holdUp: shape({ partyIds: list(text()), sentence: text() }),
  /** When it will likely be executed; null at its end. */
  forecast: forecast.nullable(),
  activity: list(core.activityLine),
  sealed: list(shape({ documentId: text(), name: text(), sha256: text() })).nullable(),
});
/** The type of `sentView`. */
export type SentView = yup.InferType<typeof sentView>;

/** A packet: its draft and, once sent, its progress. */
export const packetView = named('Packet', {
  id: text(),
  dealId: text(),
  dealName: text(),
  timeZone: text(),
  name: text(),
  status: anyPacketStatus,
  draft: core.draft,
  version: whole(),
  documents: list(documentView),
  /** What tags in its text stand for. */
  facts: core.dealFacts,
  /** The parties of the deal, for adding to the draft. */
  dealParties: list(partyView),
  /** Days on which the firm reminds nobody. */
  holidays: list(calendarDay()),
  /** Packets that came of this one, or that it came of. */
  kin: list(
    shape({ id: text(), name: text(), how: oneOf(['new_version', 'old_version', 'late_round', 'first_round']) }),
  ),
  /** Of a draft that waits to be sent: when; of one that did not go when its time came: why. */
  later: shape({
    at: moment().nullable(),
    by: text(),
    inNameOf: text().nullable(),
    problem: text().nullable(),
  }).nullable(),
  sent: sentView.nullable(),
});
/** The type of `packetView`. */
export type PacketView = yup.InferType<typeof packetView>;

/** The sentences of one language, by their keys. */
export const wordsView = named('Words', { language: text(), messages: byName<string, WordKey>(text()) });

/** A way into a ceremony: the secret its signing link ends with. */
export const linkView = named('Link', { token: text() });
