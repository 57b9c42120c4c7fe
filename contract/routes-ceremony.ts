/** Routes for clients, through their own signing link. */
import { picture } from './core-answers';
import { LARGE_BODY, MAX_FILE, MAX_PICTURE } from './limits';
import { ownPageSent } from './own-schemas';
import { paths } from './paths';
import { REFUSED } from './problems';
import { EVENTS, file, FILE_PROBLEMS, NOTHING, PDF, PNG, route } from './route';
import * as s from './schemas';
import { changesOfPaper } from './document-views';
import { actAnswer, signingView } from './signing-views';

/** Routes for clients, through their own signing link. */
export const ceremonyRoutes = {
  signing: route(paths.signing, {
    who: 'link',
    beforeStep: true,
    summary: 'The packet as this party sees it',
    answer: signingView,
    problems: [],
  }),
  signingLive: route(paths.signingLive, {
    who: 'link',
    beforeStep: true,
    summary: 'Server-sent events: the packet changed',
    answer: EVENTS,
    problems: [],
  }),
  signingPage: route(paths.signingPage, {
    who: 'link',
    summary: 'A page as PNG',
    query: s.pageQuery,
    answer: PNG,
    problems: ['undrawable'],
  }),
  signingFile: route(paths.signingFile, {
    who: 'link',
    summary: 'The document; the sealed copy once there is one',
    answer: PDF,
    problems: [],
  }),
  signingChanges: route(paths.signingChanges, {
    who: 'link',
    summary: 'What changed in a document since this party signed an earlier version of it',
    answer: changesOfPaper,
    problems: ['not-worked-out'],
  }),
  agree: route(paths.agree, {
    who: 'link',
    summary: 'Agree to sign electronically',
    body: s.agreementBody,
    answer: signingView,
    problems: [...REFUSED, 'agreement-changed'],
  }),
  setHand: route(paths.setHand, {
    who: 'link',
    summary: 'Set signature and initials',
    body: s.handBody,
    answer: signingView,
    problems: [...REFUSED, 'letters', 'no-picture'],
    size: LARGE_BODY,
  }),
  addFile: route(paths.addFile, {
    who: 'link',
    summary: 'Add the file that a mark asks for',
    query: s.actQuery,
    body: file('a photo or a PDF', MAX_FILE),
    answer: signingView,
    problems: [...REFUSED, ...FILE_PROBLEMS, 'no-paper'],
  }),
  fill: route(paths.fill, {
    who: 'link',
    summary: 'Fill one of one’s own marks',
    body: s.fillBody,
    answer: actAnswer,
    problems: REFUSED,
  }),
  finish: route(paths.finish, {
    who: 'link',
    summary: 'Finish: nothing is left to do',
    body: s.finishBody,
    answer: signingView,
    problems: REFUSED,
  }),
  signingPicture: route(paths.signingPicture, {
    who: 'link',
    summary: 'A picture of a hand',
    answer: PNG,
    problems: [],
  }),
  addPicture: route(paths.addPicture, {
    who: 'link',
    summary: 'A photo of writing, with the paper background removed',
    body: file('a photo', MAX_PICTURE + 1),
    answer: picture,
    problems: [...FILE_PROBLEMS, 'no-picture'],
  }),
  sendCode: route(paths.sendCode, {
    who: 'link',
    beforeStep: true,
    summary: 'Send a one-time code',
    answer: signingView,
    problems: [...REFUSED, 'code-soon'],
    slow: true,
  }),
  giveCode: route(paths.giveCode, {
    who: 'link',
    beforeStep: true,
    summary: 'Enter the code of the second step',
    body: s.codeBody,
    answer: signingView,
    problems: [...REFUSED, 'wrong-code'],
    slow: true,
  }),
  setLanguage: route(paths.setLanguage, {
    who: 'link',
    beforeStep: true,
    summary: 'Choose the language',
    body: s.languageBody,
    answer: signingView,
    problems: REFUSED,
  }),
  askQuestion: route(paths.askQuestion, {
    who: 'link',
    summary: 'Ask the sender',
    body: s.questionBody,
    answer: signingView,
    problems: REFUSED,
  }),
  handOver: route(paths.handOver, {
    who: 'link',
    summary: 'Hand over to someone else',
    body: s.handOverBody,
    answer: NOTHING,
    problems: REFUSED,
  }),
  agreementCopy: route(paths.agreementCopy, {
    who: 'link',
    summary: 'Have the agreement’s text sent',
    answer: NOTHING,
    problems: [],
    slow: true,
  }),
  decline: route(paths.decline, {
    who: 'link',
    summary: 'Decline with a reason',
    body: s.declineBody,
    answer: signingView,
    problems: REFUSED,
  }),
  askForPage: route(paths.askForPage, {
    who: 'link',
    summary: 'Send this person the address of their own page',
    answer: ownPageSent,
    problems: ['code-soon'],
  }),
};
