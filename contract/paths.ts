/** Method and path of every route by name; paths hold `:names`. Apart from the schemas, so that a screen can call
 *  a route without carrying the language they are written in. */

import type { ListName } from './lists';
import type { TableKind } from '@gatepath/core/intake';

/** HTTP methods of routes. */
export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Method and path of a route. */
export interface Wire<M extends Method = Method, P extends string = string> {
  method: M;
  /** Below `API`. */
  path: P;
}

const to = <M extends Method, P extends string>(method: M, path: P): Wire<M, P> => ({ method, path });

/** Where the API stands on the server. */
export const API = '/api';

/** What the `:names` of paths stand for. */
export interface PathValues {
  dealId: string;
  partyId: string;
  ruleId: string;
  personId: string;
  documentId: string;
  /** An uploaded contract from which a deal can be opened. */
  incomingId: string;
  /** An earlier version of the document. */
  beforeId: string;
  packetId: string;
  markId: string;
  messageId: string;
  viewId: string;
  textId: string;
  shelfId: string;
  noticeId: string;
  rowId: string;
  /** The secret a signing link ends with. */
  token: string;
  memberId: string;
  invitationId: string;
  sessionId: string;
  /** From 1. */
  page: number;
  /** A fingerprint in hexadecimal. */
  sha256: string;
  /** A list that is written out: deals, people … */
  list: ListName;
  /** What a table becomes: deals or people. */
  tableKind: TableKind;
  /** A language by its tag. */
  language: string;
}
/** Name of a part of a path. */
export type PathValue = keyof PathValues;

/** The names in a path. */
export type NamesIn<P extends string> = P extends `${string}:${infer N}/${infer Rest}`
  ? N | NamesIn<`/${Rest}`>
  : P extends `${string}:${infer N}`
    ? N
    : never;

/** Method and path of every route, by name. */
export const paths = {
  session: to('GET', '/session'),
  setup: to('POST', '/setup'),
  signIn: to('POST', '/session'),
  signOut: to('DELETE', '/session'),
  words: to('GET', '/words/:language'),
  check: to('POST', '/check'),
  setNotices: to('PUT', '/session/notices'),
  invitation: to('GET', '/join/:token'),
  join: to('POST', '/join/:token'),
  forgotPassword: to('POST', '/session/forgot'),
  resetPassword: to('POST', '/reset/:token'),
  changePassword: to('PUT', '/session/password'),
  sessions: to('GET', '/sessions'),
  endSession: to('DELETE', '/sessions/:sessionId'),
  invite: to('POST', '/firm/invitations'),
  withdrawInvitation: to('DELETE', '/firm/invitations/:invitationId'),
  disableMember: to('POST', '/firm/members/:memberId/disable'),
  enableMember: to('POST', '/firm/members/:memberId/enable'),
  colleagues: to('GET', '/session/colleagues'),
  setLets: to('PUT', '/session/colleagues'),
  setHolidays: to('PUT', '/firm/holidays'),
  setPlaceRemembered: to('PUT', '/firm/remembered'),
  tryAgain: to('POST', '/firm/work'),
  forwardClock: to('POST', '/clock'),
  firm: to('GET', '/firm'),
  live: to('GET', '/live'),
  deals: to('GET', '/deals'),
  dealsAct: to('POST', '/deals/acts'),
  dealTags: to('GET', '/deal-tags'),
  messageTexts: to('GET', '/texts'),
  saveText: to('POST', '/texts'),
  deleteText: to('DELETE', '/texts/:textId'),
  savedViews: to('GET', '/views'),
  saveView: to('POST', '/views'),
  deleteView: to('DELETE', '/views/:viewId'),
  newDeal: to('POST', '/deals'),
  actOnStated: to('POST', '/deals/:dealId/stated'),
  incoming: to('GET', '/incoming'),
  addIncoming: to('POST', '/incoming'),
  incomingContract: to('GET', '/incoming/:incomingId'),
  openIncoming: to('POST', '/incoming/:incomingId/deal'),
  discardIncoming: to('DELETE', '/incoming/:incomingId'),
  deal: to('GET', '/deals/:dealId'),
  setDeal: to('PATCH', '/deals/:dealId'),
  deleteDeal: to('DELETE', '/deals/:dealId'),
  dealActivity: to('GET', '/deals/:dealId/activity'),
  dealFeed: to('GET', '/deals/:dealId/feed'),
  renewDealFeed: to('POST', '/deals/:dealId/feed'),
  endDealFeed: to('DELETE', '/deals/:dealId/feed'),
  dealCalendar: to('GET', '/deals/:dealId/calendar'),
  binder: to('GET', '/deals/:dealId/binder'),
  makeBinder: to('POST', '/deals/:dealId/binder'),
  binderFile: to('GET', '/deals/:dealId/binder/file'),
  ownFeed: to('GET', '/session/feed'),
  renewOwnFeed: to('POST', '/session/feed'),
  endOwnFeed: to('DELETE', '/session/feed'),
  calendar: to('GET', '/calendar/:token'),
  waive: to('PUT', '/deals/:dealId/waivers/:ruleId'),
  unwaive: to('DELETE', '/deals/:dealId/waivers/:ruleId'),
  rules: to('GET', '/rules'),
  newRule: to('POST', '/rules'),
  tryRule: to('POST', '/rules/trial'),
  turnRules: to('POST', '/rules/on'),
  setRule: to('PUT', '/rules/:ruleId'),
  deleteOneRule: to('DELETE', '/rules/:ruleId'),
  setOwnFacts: to('PUT', '/firm/facts'),
  people: to('GET', '/people'),
  person: to('GET', '/people/:personId'),
  setPerson: to('PATCH', '/people/:personId'),
  mergePerson: to('POST', '/people/:personId/merge'),
  insight: to('GET', '/insight'),
  csv: to('GET', '/csv/:list'),
  cards: to('GET', '/cards'),
  personCard: to('GET', '/people/:personId/card'),
  importTable: to('POST', '/imports/:tableKind'),
  find: to('GET', '/find'),
  today: to('GET', '/today'),
  seen: to('POST', '/today/seen'),
  addParty: to('POST', '/deals/:dealId/parties'),
  setParty: to('PUT', '/parties/:partyId'),
  removeParty: to('DELETE', '/parties/:partyId'),
  addDocument: to('POST', '/deals/:dealId/documents'),
  composeDocument: to('POST', '/deals/:dealId/documents/compose'),
  setDocument: to('PATCH', '/documents/:documentId'),
  beginPaperReview: to('POST', '/documents/:documentId/check'),
  paperReview: to('GET', '/documents/:documentId/check'),
  sayOfPlaces: to('PATCH', '/documents/:documentId/check'),
  endReview: to('POST', '/documents/:documentId/check/end'),
  sendBack: to('POST', '/documents/:documentId/check/packet'),
  paperSignatures: to('GET', '/documents/:documentId/signatures'),
  changes: to('GET', '/documents/:documentId/changes/:beforeId'),
  changesFile: to('GET', '/documents/:documentId/changes/:beforeId/file'),
  deleteDocument: to('DELETE', '/documents/:documentId'),
  remembered: to('GET', '/packets/:packetId/documents/:documentId/remembered'),
  stopOffering: to('DELETE', '/packets/:packetId/documents/:documentId/remembered'),
  documentFacts: to('GET', '/documents/:documentId/facts'),
  documentFile: to('GET', '/documents/:documentId/original'),
  documentPage: to('GET', '/documents/:documentId/pages/:page'),
  newPacket: to('POST', '/deals/:dealId/packets'),
  packet: to('GET', '/packets/:packetId'),
  editPacket: to('POST', '/packets/:packetId/edits'),
  deletePacket: to('DELETE', '/packets/:packetId'),
  sendPacket: to('POST', '/packets/:packetId/send'),
  sendLater: to('PUT', '/packets/:packetId/sending'),
  sendNotLater: to('DELETE', '/packets/:packetId/sending'),
  withdrawPacket: to('POST', '/packets/:packetId/withdraw'),
  changePacket: to('POST', '/packets/:packetId/changes'),
  newVersion: to('POST', '/packets/:packetId/new-version'),
  lateRound: to('POST', '/packets/:packetId/late-round'),
  hostParty: to('POST', '/packets/:packetId/parties/:partyId/host'),
  ownLink: to('POST', '/packets/:packetId/parties/:partyId/own'),
  rehearsal: to('GET', '/packets/:packetId/rehearsal/:partyId'),
  chain: to('GET', '/packets/:packetId/chain'),
  packetPicture: to('GET', '/packets/:packetId/pictures/:sha256'),
  sealedCopy: to('GET', '/packets/:packetId/sealed/:documentId'),
  shelf: to('GET', '/shelf'),
  newForm: to('POST', '/shelf/forms'),
  bringBundle: to('POST', '/shelf/bundles'),
  shelfBundle: to('GET', '/shelf/:shelfId/bundle'),
  newWritten: to('POST', '/shelf/written'),
  saveWritten: to('PUT', '/shelf/:shelfId/text'),
  newKit: to('POST', '/shelf/kits'),
  addToShelf: to('POST', '/shelf/kept'),
  shelfItem: to('GET', '/shelf/:shelfId'),
  setShelfItem: to('PATCH', '/shelf/:shelfId'),
  deleteShelfItem: to('DELETE', '/shelf/:shelfId'),
  editShelfItem: to('POST', '/shelf/:shelfId/edits'),
  bringChanged: to('POST', '/shelf/:shelfId/papers'),
  findAgain: to('GET', '/shelf/:shelfId/papers/:documentId'),
  copyShelfItem: to('POST', '/shelf/:shelfId/copy'),
  putOnShelf: to('POST', '/shelf/:shelfId/editions'),
  dealKits: to('GET', '/deals/:dealId/kits'),
  tryKit: to('POST', '/deals/:dealId/kits/:shelfId/trial'),
  useKit: to('POST', '/deals/:dealId/kits/:shelfId'),
  notices: to('GET', '/notices'),
  newNotice: to('POST', '/notices'),
  notice: to('GET', '/notices/:noticeId'),
  setNotice: to('PATCH', '/notices/:noticeId'),
  deleteNotice: to('DELETE', '/notices/:noticeId'),
  noticeRows: to('GET', '/notices/:noticeId/rows'),
  addHomes: to('POST', '/notices/:noticeId/homes'),
  homeTable: to('POST', '/notices/:noticeId/table'),
  setNoticeRow: to('PATCH', '/notices/:noticeId/rows/:rowId'),
  noticePaper: to('GET', '/notices/:noticeId/rows/:rowId/paper'),
  goNotice: to('POST', '/notices/:noticeId/go'),
  stopNotice: to('POST', '/notices/:noticeId/stop'),
  noticeLetters: to('GET', '/notices/:noticeId/letters'),
  lettersWent: to('POST', '/notices/:noticeId/letters'),
  noticeRules: to('GET', '/notice-rules'),
  setNoticeRules: to('PUT', '/notice-rules'),
  mailroom: to('GET', '/mailroom'),
  message: to('GET', '/mailroom/:messageId'),
  messageFile: to('GET', '/mailroom/:messageId/eml'),
  returnMessage: to('POST', '/mailroom/:messageId/return'),
  signing: to('GET', '/signing/:token'),
  signingLive: to('GET', '/signing/:token/live'),
  signingPage: to('GET', '/signing/:token/documents/:documentId/pages/:page'),
  signingChanges: to('GET', '/signing/:token/documents/:documentId/changes'),
  signingFile: to('GET', '/signing/:token/documents/:documentId/file'),
  agree: to('POST', '/signing/:token/agreement'),
  setHand: to('PUT', '/signing/:token/hand'),
  addFile: to('POST', '/signing/:token/marks/:markId/file'),
  fill: to('PUT', '/signing/:token/marks/:markId'),
  finish: to('POST', '/signing/:token/finish'),
  signingPicture: to('GET', '/signing/:token/pictures/:sha256'),
  addPicture: to('POST', '/signing/:token/pictures'),
  sendCode: to('POST', '/signing/:token/code'),
  giveCode: to('POST', '/signing/:token/step'),
  setLanguage: to('PUT', '/signing/:token/language'),
  askQuestion: to('POST', '/signing/:token/questions'),
  handOver: to('POST', '/signing/:token/hand-over'),
  agreementCopy: to('POST', '/signing/:token/agreement/copy'),
  decline: to('POST', '/signing/:token/decline'),
  askForPage: to('POST', '/signing/:token/own-page'),
  ownPage: to('GET', '/mine/:token'),
  sendOwnCode: to('POST', '/mine/:token/code'),
  giveOwnCode: to('POST', '/mine/:token/step'),
  setOwnLanguage: to('PUT', '/mine/:token/language'),
  openOwn: to('POST', '/mine/:token/packets/:packetId'),
  ownFile: to('GET', '/mine/:token/packets/:packetId/documents/:documentId'),
} satisfies Record<string, Wire>;

/** Name of a route. */
export type RouteName = keyof typeof paths;
/** What the path of a route has to be filled in with. */
export type ParamsOf<N extends RouteName> = Pick<PathValues, NamesIn<(typeof paths)[N]['path']> & PathValue>;
/** The same as arguments: none for a path without names. */
export type ParamsArg<N extends RouteName> = [keyof ParamsOf<N>] extends [never] ? [] : [params: ParamsOf<N>];

/** Returns the URL of a route with its `:names` filled in. */
export function urlOf<N extends RouteName>(name: N, ...[params]: ParamsArg<N>): string {
  return pathWith(name, params ?? {});
}

/**
 * Returns the path of a route that is known only at run time, with its `:names` filled in.
 *
 * @throws when something is missing
 */
export function pathWith(name: RouteName, params: Partial<PathValues>): string {
  const values = new Map<string, string | number>(Object.entries(params));
  return (
    API +
    paths[name].path.replace(/:(\w+)/g, (_, key: string) => {
      const value = values.get(key);
      if (value === undefined) throw new Error(`route ${name} needs ${key}`);
      return encodeURIComponent(String(value));
    })
  );
}
