/** Every route: what it is for, who may call it, what goes in, what comes out, and what may go wrong. */
import type * as yup from 'yup';
import { LARGE_BODY, MAX_FILE, MAX_PICTURE } from './limits';
import { paths, type RouteName } from './paths';
import { PAPER_PROBLEMS, REFUSED } from './problems';
import { picture } from './core-answers';
import { bytes, EVENTS, file, NOTHING, route, type OtherAnswer, type ProblemOf, type Route } from './route';
import * as s from './schemas';
import * as v from './views';
import { actAnswer, signingView } from './signing-views';

const PDF = bytes('application/pdf');
const PNG = bytes('image/png');
const FILES = ['no-file', 'no-form', 'stalled', 'cut-off'] as const;
const CHANGES = [...REFUSED, 'changed-meanwhile', 'over-limits', 'no-document', 'unknown-document', 'no-room'] as const;

export const routes = {
  session: route(paths.session, {
    who: 'anybody',
    summary: 'Who is signed in, and how this server is set up',
    answer: v.sessionView,
    problems: [],
  }),
  setup: route(paths.setup, {
    who: 'anybody',
    summary: 'Set up the firm and its first member, once',
    body: s.setupBody,
    answer: v.sessionView,
    problems: ['set-up', 'time-zone'],
    slow: true,
  }),
  signIn: route(paths.signIn, {
    who: 'anybody',
    summary: 'Sign in; the session comes as a cookie',
    body: s.signInBody,
    answer: v.sessionView,
    problems: ['wrong-password'],
    slow: true,
  }),
  signOut: route(paths.signOut, { who: 'anybody', summary: 'Sign out', answer: v.sessionView, problems: [] }),
  words: route(paths.words, {
    who: 'anybody',
    summary: 'The sentences of one language',
    answer: v.wordsView,
    problems: [],
  }),
  check: route(paths.check, {
    who: 'anybody',
    summary: 'Check a sealed PDF; it stays in memory and is kept nowhere',
    body: file('a sealed PDF', MAX_FILE),
    answer: v.checkView,
    problems: [...FILES, 'paper-too-large'],
    slow: true,
  }),
  setNotices: route(paths.setNotices, {
    who: 'member',
    summary: 'Choose what to be written to about',
    body: s.noticesBody,
    answer: v.sessionView,
    problems: [],
  }),
  setHolidays: route(paths.setHolidays, {
    who: 'member',
    summary: 'The days on which nobody is reminded',
    body: s.holidaysBody,
    answer: v.firmView,
    problems: [],
  }),
  tryAgain: route(paths.tryAgain, {
    who: 'member',
    summary: 'Try something again that was given up',
    body: s.tryAgainBody,
    answer: v.firmView,
    problems: [],
  }),
  forwardClock: route(paths.forwardClock, {
    who: 'member',
    summary: 'Set the clock forward (demo only)',
    body: s.clockBody,
    answer: v.sessionView,
    problems: ['not-demo'],
  }),
  firm: route(paths.firm, {
    who: 'member',
    summary: 'The firm, its members and its seal',
    answer: v.firmView,
    problems: [],
  }),

  deals: route(paths.deals, {
    who: 'member',
    summary: 'Deals, newest first',
    query: s.listQuery,
    answer: v.pageOf(v.dealSummary),
    problems: [],
  }),
  newDeal: route(paths.newDeal, {
    who: 'member',
    summary: 'Open a deal',
    body: s.dealBody,
    answer: v.dealView,
    problems: [],
  }),
  deal: route(paths.deal, {
    who: 'member',
    summary: 'One deal with parties, documents and packets',
    answer: v.dealView,
    problems: [],
  }),
  dealLive: route(paths.dealLive, {
    who: 'member',
    summary: 'Server-sent events: the deal changed',
    answer: EVENTS,
    problems: [],
  }),
  setDeal: route(paths.setDeal, {
    who: 'member',
    summary: 'Correct what is known of a deal',
    body: s.dealPatch,
    answer: v.dealView,
    problems: [],
  }),
  addParty: route(paths.addParty, {
    who: 'member',
    summary: 'Add a party to a deal',
    body: s.partyBody,
    answer: v.dealView,
    problems: [],
  }),
  setParty: route(paths.setParty, {
    who: 'member',
    summary: 'Correct a party of a deal',
    body: s.partyBody,
    answer: v.dealView,
    problems: [],
  }),
  dropParty: route(paths.dropParty, {
    who: 'member',
    summary: 'Take a party out of a deal',
    answer: v.dealView,
    problems: ['in-packet'],
  }),

  addDocument: route(paths.addDocument, {
    who: 'member',
    summary: 'Add one paper',
    body: file('a PDF', MAX_FILE),
    answer: v.documentView,
    problems: [...FILES, ...PAPER_PROBLEMS],
  }),
  composeDocument: route(paths.composeDocument, {
    who: 'member',
    summary: 'Make a document of pages of others',
    body: s.composeBody,
    answer: v.documentView,
    problems: ['sealed', 'no-such-page'],
    size: LARGE_BODY,
  }),
  setDocument: route(paths.setDocument, {
    who: 'member',
    summary: 'Correct a document’s name or type',
    body: s.documentPatch,
    answer: v.documentView,
    problems: [],
  }),
  dropDocument: route(paths.dropDocument, {
    who: 'member',
    summary: 'Remove a document that is in no packet',
    answer: NOTHING,
    problems: ['in-packet'],
  }),
  documentFacts: route(paths.documentFacts, {
    who: 'member',
    summary: 'Where its pages carry ink and print',
    answer: v.packedFacts,
    problems: ['reading'],
  }),
  documentFile: route(paths.documentFile, {
    who: 'member',
    summary: 'The file as it was brought in',
    answer: bytes('application/pdf', 'application/octet-stream'),
    problems: [],
  }),
  documentPage: route(paths.documentPage, {
    who: 'member',
    summary: 'A page as PNG',
    query: s.pageQuery,
    answer: PNG,
    problems: ['undrawable'],
  }),

  newPacket: route(paths.newPacket, {
    who: 'member',
    summary: 'Start a packet as a draft',
    body: s.newPacketBody,
    answer: v.packetView,
    problems: ['unknown-document'],
  }),
  packet: route(paths.packet, {
    who: 'member',
    summary: 'One packet: its draft, and its way once sent',
    answer: v.packetView,
    problems: [],
  }),
  packetLive: route(paths.packetLive, {
    who: 'member',
    summary: 'Server-sent events: the packet changed',
    answer: EVENTS,
    problems: [],
  }),
  editPacket: route(paths.editPacket, {
    who: 'member',
    summary: 'Apply edits to the draft',
    body: s.editsBody,
    answer: v.savedDraft,
    problems: ['already-sent', 'over-limits', 'no-name', 'unknown-document'],
    size: LARGE_BODY,
  }),
  dropPacket: route(paths.dropPacket, {
    who: 'member',
    summary: 'Throw a draft away',
    answer: NOTHING,
    problems: ['already-sent'],
  }),
  sendPacket: route(paths.sendPacket, {
    who: 'member',
    summary: 'Check the draft and send it through its first gate',
    body: s.sendBody,
    answer: v.packetView,
    problems: [...REFUSED, 'changed-meanwhile', 'gate-check', 'warnings', 'reading'],
  }),
  withdrawPacket: route(paths.withdrawPacket, {
    who: 'member',
    summary: 'Withdraw a packet that is on its way',
    body: s.withdrawBody,
    answer: v.packetView,
    problems: REFUSED,
  }),
  changePacket: route(paths.changePacket, {
    who: 'member',
    summary: 'Change a packet that is on its way',
    body: s.changeBody,
    answer: v.packetView,
    problems: CHANGES,
  }),
  newVersion: route(paths.newVersion, {
    who: 'member',
    summary: 'Take a packet back into a draft of a new version',
    body: s.withdrawBody,
    answer: v.packetView,
    problems: CHANGES,
  }),
  lateRound: route(paths.lateRound, {
    who: 'member',
    summary: 'Start a late signing round',
    body: s.lateRoundBody,
    answer: v.packetView,
    problems: ['not-sealed', 'no-document'],
  }),
  hostParty: route(paths.hostParty, {
    who: 'member',
    summary: 'Open a ceremony at the desk',
    answer: v.passView,
    problems: [...REFUSED, 'not-at-desk'],
  }),
  ownPass: route(paths.ownPass, {
    who: 'member',
    summary: 'Open the own ceremony',
    answer: v.passView,
    problems: [...REFUSED, 'not-you'],
  }),
  chain: route(paths.chain, {
    who: 'member',
    summary: 'The packet’s events with their hashes, as a file',
    answer: bytes('application/json'),
    problems: ['not-sent'],
  }),
  packetPicture: route(paths.packetPicture, {
    who: 'member',
    summary: 'A picture of a hand',
    answer: PNG,
    problems: [],
  }),
  sealedCopy: route(paths.sealedCopy, { who: 'member', summary: 'A sealed copy', answer: PDF, problems: [] }),

  mailroom: route(paths.mailroom, {
    who: 'member',
    summary: 'Messages, newest first',
    query: s.mailroomQuery,
    answer: v.pageOf(v.messageSummary),
    problems: [],
  }),
  message: route(paths.message, { who: 'member', summary: 'One message', answer: v.messageView, problems: [] }),
  messageFile: route(paths.messageFile, {
    who: 'member',
    summary: 'One message as an .eml file',
    answer: bytes('message/rfc822'),
    problems: [],
  }),
  returnMessage: route(paths.returnMessage, {
    who: 'member',
    summary: 'Let a message come back (mailroom only)',
    body: s.returnBody,
    answer: v.messageView,
    problems: ['sent'],
  }),

  signing: route(paths.signing, {
    who: 'pass',
    beforeStep: true,
    summary: 'The packet as this party sees it',
    answer: signingView,
    problems: [],
  }),
  signingLive: route(paths.signingLive, {
    who: 'pass',
    beforeStep: true,
    summary: 'Server-sent events: the packet changed',
    answer: EVENTS,
    problems: [],
  }),
  signingPage: route(paths.signingPage, {
    who: 'pass',
    summary: 'A page as PNG',
    query: s.pageQuery,
    answer: PNG,
    problems: ['undrawable'],
  }),
  signingFile: route(paths.signingFile, {
    who: 'pass',
    summary: 'The document; the sealed copy once there is one',
    answer: PDF,
    problems: [],
  }),
  agree: route(paths.agree, {
    who: 'pass',
    summary: 'Agree to sign electronically',
    body: s.agreementBody,
    answer: signingView,
    problems: [...REFUSED, 'agreement-changed'],
  }),
  setHand: route(paths.setHand, {
    who: 'pass',
    summary: 'Set signature and initials',
    body: s.handBody,
    answer: signingView,
    problems: [...REFUSED, 'letters', 'no-picture'],
    size: LARGE_BODY,
  }),
  addFile: route(paths.addFile, {
    who: 'pass',
    summary: 'Add the file that is asked for',
    query: s.actQuery,
    body: file('a photo or a PDF', MAX_FILE),
    answer: signingView,
    problems: [...REFUSED, ...FILES, 'no-paper'],
  }),
  fill: route(paths.fill, {
    who: 'pass',
    summary: 'Fill one of the own marks',
    body: s.fillBody,
    answer: actAnswer,
    problems: REFUSED,
  }),
  finish: route(paths.finish, {
    who: 'pass',
    summary: 'Finish: nothing is left to do',
    body: s.finishBody,
    answer: signingView,
    problems: REFUSED,
  }),
  signingPicture: route(paths.signingPicture, {
    who: 'pass',
    summary: 'A picture of a hand',
    answer: PNG,
    problems: [],
  }),
  addPicture: route(paths.addPicture, {
    who: 'pass',
    summary: 'A photo of writing, its paper taken out',
    body: file('a photo', MAX_PICTURE + 1),
    answer: picture,
    problems: [...FILES, 'no-picture'],
  }),
  sendCode: route(paths.sendCode, {
    who: 'pass',
    beforeStep: true,
    summary: 'Send a one-time code',
    answer: signingView,
    problems: [...REFUSED, 'code-soon'],
    slow: true,
  }),
  giveCode: route(paths.giveCode, {
    who: 'pass',
    beforeStep: true,
    summary: 'Give the code of the second step',
    body: s.codeBody,
    answer: signingView,
    problems: [...REFUSED, 'wrong-code'],
    slow: true,
  }),
  setLanguage: route(paths.setLanguage, {
    who: 'pass',
    beforeStep: true,
    summary: 'Choose the language',
    body: s.languageBody,
    answer: signingView,
    problems: REFUSED,
  }),
  askQuestion: route(paths.askQuestion, {
    who: 'pass',
    summary: 'Ask the sender',
    body: s.questionBody,
    answer: signingView,
    problems: REFUSED,
  }),
  handOver: route(paths.handOver, {
    who: 'pass',
    summary: 'Hand over to somebody else',
    body: s.handOverBody,
    answer: NOTHING,
    problems: REFUSED,
  }),
  agreementCopy: route(paths.agreementCopy, {
    who: 'pass',
    summary: 'Have the agreement’s text sent',
    answer: NOTHING,
    problems: [],
    slow: true,
  }),
  decline: route(paths.decline, {
    who: 'pass',
    summary: 'Decline with a reason',
    body: s.declineBody,
    answer: signingView,
    problems: REFUSED,
  }),
} satisfies Record<RouteName, Route>;
type Routes = typeof routes;

/** The routes with what is wanted where it does not matter which one it is. */
export const allRoutes = Object.entries(routes) as [RouteName, Route][];

type Inside<S> = S extends yup.ISchema<infer T> ? T : undefined;
/** What a route answers with: what its schema says, or nothing that could be read as JSON. */
export type AnswerOf<N extends RouteName> = Routes[N]['answer'] extends OtherAnswer
  ? void
  : Inside<Routes[N]['answer']>;
/** What goes into a route as JSON; `undefined` where nothing does. */
export type BodyOf<N extends RouteName> = Routes[N] extends { body: infer B } ? Inside<B> : undefined;
export type QueryOf<N extends RouteName> = Routes[N] extends { query: infer Q } ? Inside<Q> : undefined;
/** Routes whose answer is JSON or nothing: those that a screen calls and reads. */
export type JsonRoute = {
  [N in RouteName]: Routes[N]['answer'] extends OtherAnswer<'bytes' | 'events'> ? never : N;
}[RouteName];
/** Routes that take one file. */
export type FileRoute = { [N in RouteName]: Routes[N] extends { body: { kind: 'file' } } ? N : never }[RouteName];
/** Routes by who may call them. */
export type RouteOf<W extends Route['who']> = { [N in RouteName]: Routes[N]['who'] extends W ? N : never }[RouteName];
/** What may go wrong with a route. */
export type RouteProblem<N extends RouteName> = ProblemOf<Routes[N]>;
