/** Routes that are open to anybody. */
import { MAX_FILE } from './limits';
import { paths } from './paths';
import { bytes, file, FILE_PROBLEMS, PDF, route } from './route';
import { ownCodeBody, ownFileQuery, ownLanguageBody, ownPageQuery, ownPageView } from './own-schemas';
import * as s from './schemas';
import * as v from './views';

/** Routes that anybody may call. */
export const openRoutes = {
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
    problems: ['set-up', 'time-zone', 'setup-token'],
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
  invitation: route(paths.invitation, {
    who: 'anybody',
    summary: 'Who is invited to the firm by a link',
    answer: v.invitationView,
    problems: ['dead-link'],
    slow: true,
  }),
  join: route(paths.join, {
    who: 'anybody',
    summary: 'Become a member by an invitation; the session comes as a cookie',
    body: s.joinBody,
    answer: v.sessionView,
    problems: ['dead-link', 'member-exists'],
    slow: true,
  }),
  forgotPassword: route(paths.forgotPassword, {
    who: 'anybody',
    summary: 'Mail a link to choose a new password, if the address is a member’s',
    body: s.forgotBody,
    answer: v.sessionView,
    problems: [],
    slow: true,
  }),
  resetPassword: route(paths.resetPassword, {
    who: 'anybody',
    summary: 'Choose a new password by the link that was mailed; all sessions end',
    body: s.resetBody,
    answer: v.sessionView,
    problems: ['dead-link'],
    slow: true,
  }),
  signOut: route(paths.signOut, { who: 'anybody', summary: 'Sign out', answer: v.sessionView, problems: [] }),
  words: route(paths.words, {
    who: 'anybody',
    summary: 'The sentences of one language',
    answer: v.wordsView,
    problems: [],
  }),
  calendar: route(paths.calendar, {
    who: 'anybody',
    summary: 'A calendar (RFC 5545), by its secret address',
    answer: bytes('text/calendar'),
    problems: [],
    slow: true,
  }),
  ownPage: route(paths.ownPage, {
    who: 'anybody',
    summary: 'A person’s own page; without its contents before the code is entered',
    query: ownPageQuery,
    answer: ownPageView,
    problems: ['dead-link'],
    slow: true,
  }),
  sendOwnCode: route(paths.sendOwnCode, {
    who: 'anybody',
    summary: 'Send the code that opens an own page to its person',
    answer: ownPageView,
    problems: ['dead-link', 'code-soon', 'locked'],
    slow: true,
  }),
  giveOwnCode: route(paths.giveOwnCode, {
    who: 'anybody',
    summary: 'Enter the code; this browser is admitted for some hours',
    body: ownCodeBody,
    answer: ownPageView,
    problems: ['dead-link', 'wrong-code', 'locked'],
    slow: true,
  }),
  setOwnLanguage: route(paths.setOwnLanguage, {
    who: 'anybody',
    summary: 'The language of an own page',
    body: ownLanguageBody,
    answer: ownPageView,
    problems: ['dead-link'],
    slow: true,
  }),
  openOwn: route(paths.openOwn, {
    who: 'anybody',
    summary: 'A link into one of the person’s own packets',
    answer: v.linkView,
    problems: ['dead-link', 'step-wanted'],
    slow: true,
  }),
  ownFile: route(paths.ownFile, {
    who: 'anybody',
    summary: 'A document of the person’s own: as it was sent, or sealed',
    query: ownFileQuery,
    answer: PDF,
    problems: ['dead-link', 'step-wanted'],
    slow: true,
  }),
  check: route(paths.check, {
    who: 'anybody',
    summary: 'Verify a sealed PDF; it stays in memory and is not stored',
    body: file('a sealed PDF', MAX_FILE),
    answer: v.copyVerification,
    problems: [...FILE_PROBLEMS, 'paper-too-large'],
    slow: true,
  }),
};
