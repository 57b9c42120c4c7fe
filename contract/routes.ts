/** What each route is for, who may call it, and the schemas of what goes in. */
import type * as yup from 'yup';
import { LARGE_BODY, type BodySize } from './limits';
import { paths, type RouteName, type Wire } from './paths';
import * as s from './schemas';

/** A schema, or one that is chosen by looking at the value. */
export type BodySchema = yup.Schema | yup.Lazy<unknown, yup.AnyObject>;

export interface Route extends Wire {
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
  wire: Wire,
  who: Route['who'],
  summary: string,
  more: Pick<Route, 'body' | 'query' | 'answers' | 'size'> = {},
): Route => ({ ...wire, who, summary, ...more });

export const routes = {
  session: route(paths.session, 'anybody', 'Who is signed in, and how this server is set up'),
  setup: route(paths.setup, 'anybody', 'Set up the firm and its first member, once', { body: s.setupBody }),
  signIn: route(paths.signIn, 'anybody', 'Sign in', { body: s.signInBody }),
  signOut: route(paths.signOut, 'anybody', 'Sign out'),
  words: route(paths.words, 'anybody', 'The sentences of one language'),
  check: route(paths.check, 'anybody', 'Check a sealed PDF; it stays in memory and is kept nowhere (multipart)'),
  setNotices: route(paths.setNotices, 'member', 'Choose what to be written to about', {
    body: s.noticesBody,
  }),
  setHolidays: route(paths.setHolidays, 'member', 'The days on which nobody is reminded', {
    body: s.holidaysBody,
  }),
  tryAgain: route(paths.tryAgain, 'member', 'Try something again that was given up', {
    body: s.tryAgainBody,
  }),
  forwardClock: route(paths.forwardClock, 'member', 'Set the clock forward (demo only)', { body: s.clockBody }),
  firm: route(paths.firm, 'member', 'The firm, its members and its seal'),

  deals: route(paths.deals, 'member', 'Deals, newest first', { query: s.listQuery }),
  newDeal: route(paths.newDeal, 'member', 'Open a deal', { body: s.dealBody }),
  deal: route(paths.deal, 'member', 'One deal with parties, documents and packets'),
  dealLive: route(paths.dealLive, 'member', 'Server-sent events: the deal changed', {
    answers: 'text/event-stream',
  }),
  setDeal: route(paths.setDeal, 'member', 'Correct what is known of a deal', { body: s.dealPatch }),
  addParty: route(paths.addParty, 'member', 'Add a party to a deal', { body: s.partyBody }),
  setParty: route(paths.setParty, 'member', 'Correct a party of a deal', { body: s.partyBody }),
  dropParty: route(paths.dropParty, 'member', 'Take a party out of a deal'),

  addDocument: route(paths.addDocument, 'member', 'Add one paper (multipart form, one file part)'),
  composeDocument: route(paths.composeDocument, 'member', 'Make a document of pages of others', {
    body: s.composeBody,
    size: LARGE_BODY,
  }),
  setDocument: route(paths.setDocument, 'member', 'Correct a document’s name or type', {
    body: s.documentPatch,
  }),
  dropDocument: route(paths.dropDocument, 'member', 'Remove a document that is in no packet'),
  documentFacts: route(paths.documentFacts, 'member', 'Where its pages carry ink and print'),
  documentFile: route(paths.documentFile, 'member', 'The file as it was brought in', {
    answers: 'application/pdf',
  }),
  documentPage: route(paths.documentPage, 'member', 'A page as PNG; ?dpi=72, 108, 144, 216 or 288', {
    answers: 'image/png',
    query: s.pageQuery,
  }),

  newPacket: route(paths.newPacket, 'member', 'Start a packet as a draft', {
    body: s.newPacketBody,
  }),
  packet: route(paths.packet, 'member', 'One packet: its draft, and its way once sent'),
  packetLive: route(paths.packetLive, 'member', 'Server-sent events: the packet changed', {
    answers: 'text/event-stream',
  }),
  editPacket: route(paths.editPacket, 'member', 'Apply edits to the draft', {
    body: s.editsBody,
    size: LARGE_BODY,
  }),
  dropPacket: route(paths.dropPacket, 'member', 'Throw a draft away'),
  sendPacket: route(paths.sendPacket, 'member', 'Check the draft and send it through its first gate', {
    body: s.sendBody,
  }),
  withdrawPacket: route(paths.withdrawPacket, 'member', 'Withdraw a packet that is on its way', {
    body: s.withdrawBody,
  }),
  changePacket: route(paths.changePacket, 'member', 'Change a packet that is on its way', {
    body: s.changeBody,
  }),
  newVersion: route(paths.newVersion, 'member', 'Take a packet back into a draft of a new version', {
    body: s.withdrawBody,
  }),
  lateRound: route(paths.lateRound, 'member', 'Start a late signing round', {
    body: s.lateRoundBody,
  }),
  hostParty: route(paths.hostParty, 'member', 'Open a ceremony at the desk'),
  ownPass: route(paths.ownPass, 'member', 'Open the own ceremony'),
  chain: route(paths.chain, 'member', 'The packet’s events with their hashes', {
    answers: 'application/json',
  }),
  packetPicture: route(paths.packetPicture, 'member', 'A picture of a hand', {
    answers: 'image/png',
  }),
  sealedCopy: route(paths.sealedCopy, 'member', 'A sealed copy', {
    answers: 'application/pdf',
  }),

  mailroom: route(paths.mailroom, 'member', 'Messages, newest first', { query: s.mailroomQuery }),
  message: route(paths.message, 'member', 'One message'),
  messageFile: route(paths.messageFile, 'member', 'One message as an .eml file', {
    answers: 'message/rfc822',
  }),

  returnMessage: route(paths.returnMessage, 'member', 'Let a message come back (mailroom only)', {
    body: s.returnBody,
  }),

  signing: route(paths.signing, 'pass', 'The packet as this party sees it'),
  signingLive: route(paths.signingLive, 'pass', 'Server-sent events: the packet changed', {
    answers: 'text/event-stream',
  }),
  signingPage: route(paths.signingPage, 'pass', 'A page as PNG', {
    answers: 'image/png',
    query: s.pageQuery,
  }),
  signingFile: route(paths.signingFile, 'pass', 'The document; the sealed copy once there is one', {
    answers: 'application/pdf',
  }),
  agree: route(paths.agree, 'pass', 'Agree to sign electronically', {
    body: s.agreementBody,
  }),
  setHand: route(paths.setHand, 'pass', 'Set signature and initials', {
    body: s.handBody,
    size: LARGE_BODY,
  }),
  addFile: route(paths.addFile, 'pass', 'Add the file that is asked for (multipart)', { query: s.actQuery }),
  fill: route(paths.fill, 'pass', 'Fill one of the own marks', { body: s.fillBody }),
  finish: route(paths.finish, 'pass', 'Finish: nothing is left to do', { body: s.finishBody }),
  signingPicture: route(paths.signingPicture, 'pass', 'A picture of a hand', {
    answers: 'image/png',
  }),
  addPicture: route(paths.addPicture, 'pass', 'A photo of writing, its paper taken out (multipart)'),
  sendCode: route(paths.sendCode, 'pass', 'Send a one-time code'),
  giveCode: route(paths.giveCode, 'pass', 'Give the code of the second step', { body: s.codeBody }),
  setLanguage: route(paths.setLanguage, 'pass', 'Choose the language', { body: s.languageBody }),
  askQuestion: route(paths.askQuestion, 'pass', 'Ask the sender', { body: s.questionBody }),
  handOver: route(paths.handOver, 'pass', 'Hand over to somebody else', {
    body: s.handOverBody,
  }),
  agreementCopy: route(paths.agreementCopy, 'pass', 'Have the agreement’s text sent'),
  decline: route(paths.decline, 'pass', 'Decline with a reason', { body: s.declineBody }),
} satisfies Record<RouteName, Route>;
