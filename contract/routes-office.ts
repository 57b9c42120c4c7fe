/** Routes for members: the firm, papers, packets, and what was written to whom. Those about deals: routes-deals.ts. */
import { LARGE_BODY, MAX_FILE } from './limits';
import { paths } from './paths';
import { PAPER_PROBLEMS, REFUSED } from './problems';
import { bytes, EVENTS, file, FILE_PROBLEMS, NOTHING, PDF, PNG, route } from './route';
import * as s from './schemas';
import { signingView } from './signing-views';
import * as v from './views';

const CHANGES = [
  ...REFUSED,
  'changed-meanwhile',
  'over-limits',
  'warnings',
  'no-document',
  'unknown-document',
  'no-room',
  'locked-setting',
] as const;

export const officeRoutes = {
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
  live: route(paths.live, {
    who: 'member',
    summary:
      'Server-sent events: a deal or a packet changed; each names its topic and, of a packet, how far its log goes',
    query: s.liveQuery,
    answer: EVENTS,
    problems: [],
  }),
  addDocument: route(paths.addDocument, {
    who: 'member',
    summary: 'Add one paper',
    body: file('a PDF', MAX_FILE),
    answer: v.documentView,
    problems: [...FILE_PROBLEMS, ...PAPER_PROBLEMS],
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
  editPacket: route(paths.editPacket, {
    who: 'member',
    summary: 'Apply edits to the draft',
    body: s.editsBody,
    answer: v.savedDraft,
    problems: ['already-sent', 'over-limits', 'no-name', 'unknown-document', 'locked-setting'],
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
  rehearsal: route(paths.rehearsal, {
    who: 'member',
    summary: 'A draft as one of its people will go through it, in their language or another; nothing is sent',
    query: s.rehearsalQuery,
    answer: signingView,
    problems: ['already-sent', 'reading'],
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
};
