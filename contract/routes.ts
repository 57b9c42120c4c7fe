/** Every route by name: method, path and the schemas of what goes in. Paths hold `:names`. */
import type * as yup from 'yup';
import { LARGE_BODY, type BodySize } from './limits';
import * as s from './schemas';

/** A schema, or one that is chosen by looking at the value. */
export type BodySchema = yup.Schema | yup.Lazy<unknown, yup.AnyObject>;

export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  summary: string;
  /** Who may call it: anybody, a signed-in member, or the bearer of a pass. */
  who: 'anybody' | 'member' | 'pass';
  body?: BodySchema;
  query?: yup.ObjectSchema<yup.AnyObject>;
  /** How much its body may hold, where that is more than `SMALL_BODY`. */
  size?: BodySize;
  /** Media type of the answer when it is not JSON. */
  answers?: string;
}

const route = (
  method: Route['method'],
  path: string,
  who: Route['who'],
  summary: string,
  more: Pick<Route, 'body' | 'query' | 'answers' | 'size'> = {},
): Route => ({ method, path, who, summary, ...more });

export const routes = {
  session: route('GET', '/api/session', 'anybody', 'Who is signed in, and how this server is set up'),
  setup: route('POST', '/api/setup', 'anybody', 'Set up the firm and its first member, once', { body: s.setupBody }),
  signIn: route('POST', '/api/session', 'anybody', 'Sign in', { body: s.signInBody }),
  signOut: route('DELETE', '/api/session', 'anybody', 'Sign out'),
  words: route('GET', '/api/words/:language', 'anybody', 'The sentences of one language'),
  check: route(
    'POST',
    '/api/check',
    'anybody',
    'Check a sealed PDF; it stays in memory and is kept nowhere (multipart)',
  ),
  setNotices: route('PUT', '/api/session/notices', 'member', 'Choose what to be written to about', {
    body: s.noticesBody,
  }),
  setHolidays: route('PUT', '/api/firm/holidays', 'member', 'The days on which nobody is reminded', {
    body: s.holidaysBody,
  }),
  tryAgain: route('POST', '/api/firm/work', 'member', 'Try something again that was given up', {
    body: s.tryAgainBody,
  }),
  forwardClock: route('POST', '/api/clock', 'member', 'Set the clock forward (demo only)', { body: s.clockBody }),
  firm: route('GET', '/api/firm', 'member', 'The firm, its members and its seal'),

  deals: route('GET', '/api/deals', 'member', 'Deals, newest first', { query: s.listQuery }),
  newDeal: route('POST', '/api/deals', 'member', 'Open a deal', { body: s.dealBody }),
  deal: route('GET', '/api/deals/:dealId', 'member', 'One deal with parties, documents and packets'),
  dealLive: route('GET', '/api/deals/:dealId/live', 'member', 'Server-sent events: the deal changed', {
    answers: 'text/event-stream',
  }),
  setDeal: route('PATCH', '/api/deals/:dealId', 'member', 'Correct what is known of a deal', { body: s.dealPatch }),
  addParty: route('POST', '/api/deals/:dealId/parties', 'member', 'Add a party to a deal', { body: s.partyBody }),
  setParty: route('PUT', '/api/parties/:partyId', 'member', 'Correct a party of a deal', { body: s.partyBody }),
  dropParty: route('DELETE', '/api/parties/:partyId', 'member', 'Take a party out of a deal'),

  addDocument: route('POST', '/api/deals/:dealId/documents', 'member', 'Add one paper (multipart form, one file part)'),
  composeDocument: route(
    'POST',
    '/api/deals/:dealId/documents/compose',
    'member',
    'Make a document of pages of others',
    {
      body: s.composeBody,
      size: LARGE_BODY,
    },
  ),
  setDocument: route('PATCH', '/api/documents/:documentId', 'member', 'Correct a document’s name or type', {
    body: s.documentPatch,
  }),
  dropDocument: route('DELETE', '/api/documents/:documentId', 'member', 'Remove a document that is in no packet'),
  documentFacts: route('GET', '/api/documents/:documentId/facts', 'member', 'Where its pages carry ink and print'),
  documentFile: route('GET', '/api/documents/:documentId/original', 'member', 'The file as it was brought in', {
    answers: 'application/pdf',
  }),
  documentPage: route(
    'GET',
    '/api/documents/:documentId/pages/:page',
    'member',
    'A page as PNG; ?dpi=72, 108, 144, 216 or 288',
    { answers: 'image/png', query: s.pageQuery },
  ),

  newPacket: route('POST', '/api/deals/:dealId/packets', 'member', 'Start a packet as a draft', {
    body: s.newPacketBody,
  }),
  packet: route('GET', '/api/packets/:packetId', 'member', 'One packet: its draft, and its way once sent'),
  packetLive: route('GET', '/api/packets/:packetId/live', 'member', 'Server-sent events: the packet changed', {
    answers: 'text/event-stream',
  }),
  editPacket: route('POST', '/api/packets/:packetId/edits', 'member', 'Apply edits to the draft', {
    body: s.editsBody,
    size: LARGE_BODY,
  }),
  dropPacket: route('DELETE', '/api/packets/:packetId', 'member', 'Throw a draft away'),
  sendPacket: route(
    'POST',
    '/api/packets/:packetId/send',
    'member',
    'Check the draft and send it through its first gate',
    { body: s.sendBody },
  ),
  withdrawPacket: route('POST', '/api/packets/:packetId/withdraw', 'member', 'Withdraw a packet that is on its way', {
    body: s.withdrawBody,
  }),
  changePacket: route('POST', '/api/packets/:packetId/changes', 'member', 'Change a packet that is on its way', {
    body: s.changeBody,
  }),
  newVersion: route(
    'POST',
    '/api/packets/:packetId/new-version',
    'member',
    'Take a packet back into a draft of a new version',
    { body: s.withdrawBody },
  ),
  lateRound: route('POST', '/api/packets/:packetId/late-round', 'member', 'Start a late signing round', {
    body: s.lateRoundBody,
  }),
  hostParty: route('POST', '/api/packets/:packetId/parties/:partyId/host', 'member', 'Open a ceremony at the desk'),
  ownPass: route('POST', '/api/packets/:packetId/parties/:partyId/own', 'member', 'Open the own ceremony'),
  chain: route('GET', '/api/packets/:packetId/chain', 'member', 'The packet’s events with their hashes', {
    answers: 'application/json',
  }),
  packetPicture: route('GET', '/api/packets/:packetId/pictures/:sha256', 'member', 'A picture of a hand', {
    answers: 'image/png',
  }),
  sealedCopy: route('GET', '/api/packets/:packetId/sealed/:documentId', 'member', 'A sealed copy', {
    answers: 'application/pdf',
  }),

  mailroom: route('GET', '/api/mailroom', 'member', 'Messages, newest first', { query: s.mailroomQuery }),
  message: route('GET', '/api/mailroom/:messageId', 'member', 'One message'),
  messageFile: route('GET', '/api/mailroom/:messageId/eml', 'member', 'One message as an .eml file', {
    answers: 'message/rfc822',
  }),

  returnMessage: route('POST', '/api/mailroom/:messageId/return', 'member', 'Let a message come back (mailroom only)', {
    body: s.returnBody,
  }),

  signing: route('GET', '/api/signing/:token', 'pass', 'The packet as this party sees it'),
  signingLive: route('GET', '/api/signing/:token/live', 'pass', 'Server-sent events: the packet changed', {
    answers: 'text/event-stream',
  }),
  signingPage: route('GET', '/api/signing/:token/documents/:documentId/pages/:page', 'pass', 'A page as PNG', {
    answers: 'image/png',
    query: s.pageQuery,
  }),
  signingFile: route(
    'GET',
    '/api/signing/:token/documents/:documentId/file',
    'pass',
    'The document; the sealed copy once there is one',
    { answers: 'application/pdf' },
  ),
  agree: route('POST', '/api/signing/:token/agreement', 'pass', 'Agree to sign electronically', {
    body: s.agreementBody,
  }),
  setHand: route('PUT', '/api/signing/:token/hand', 'pass', 'Set signature and initials', {
    body: s.handBody,
    size: LARGE_BODY,
  }),
  addFile: route(
    'POST',
    '/api/signing/:token/marks/:markId/file',
    'pass',
    'Add the file that is asked for (multipart)',
    { query: s.actQuery },
  ),
  fill: route('PUT', '/api/signing/:token/marks/:markId', 'pass', 'Fill one of the own marks', { body: s.fillBody }),
  finish: route('POST', '/api/signing/:token/finish', 'pass', 'Finish: nothing is left to do', { body: s.finishBody }),
  signingPicture: route('GET', '/api/signing/:token/pictures/:sha256', 'pass', 'A picture of a hand', {
    answers: 'image/png',
  }),
  addPicture: route(
    'POST',
    '/api/signing/:token/pictures',
    'pass',
    'A photo of writing, its paper taken out (multipart)',
  ),
  sendCode: route('POST', '/api/signing/:token/code', 'pass', 'Send a one-time code'),
  giveCode: route('POST', '/api/signing/:token/step', 'pass', 'Give the code of the second step', { body: s.codeBody }),
  setLanguage: route('PUT', '/api/signing/:token/language', 'pass', 'Choose the language', { body: s.languageBody }),
  askQuestion: route('POST', '/api/signing/:token/questions', 'pass', 'Ask the sender', { body: s.questionBody }),
  handOver: route('POST', '/api/signing/:token/hand-over', 'pass', 'Hand over to somebody else', {
    body: s.handOverBody,
  }),
  agreementCopy: route('POST', '/api/signing/:token/agreement/copy', 'pass', 'Have the agreement’s text sent'),
  decline: route('POST', '/api/signing/:token/decline', 'pass', 'Decline with a reason', { body: s.declineBody }),
} satisfies Record<string, Route>;

export type RouteName = keyof typeof routes;

/** The path of a route with its `:names` filled in. */
export function pathOf(name: RouteName, params: Record<string, string | number> = {}): string {
  return routes[name].path.replace(/:(\w+)/g, (_, key: string) => {
    const value = params[key];
    if (value === undefined) throw new Error(`route ${name} needs ${key}`);
    return encodeURIComponent(String(value));
  });
}
