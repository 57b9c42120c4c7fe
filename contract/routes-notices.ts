/** Routes for members: notices to many households, and the rules they are held to. */
import { MAX_TABLE } from './limits';
import { paths } from './paths';
import { bytes, file, FILE_PROBLEMS, NOTHING, route } from './route';
import * as s from './schemas';
import * as v from './views';

/** Routes of notices, for members. */
export const noticeRoutes = {
  notices: route(paths.notices, {
    who: 'member',
    summary: 'Notices to households, newest first',
    query: s.noticesQuery,
    answer: v.pageOf(v.noticeSummary),
    problems: [],
  }),
  newNotice: route(paths.newNotice, {
    who: 'member',
    summary: 'Start a notice: a kit for many households; nothing is sent yet',
    body: s.noticeBody,
    answer: v.noticeView,
    problems: ['not-on-shelf', 'over-limits'],
  }),
  notice: route(paths.notice, {
    who: 'member',
    summary: 'Status of a notice',
    answer: v.noticeView,
    problems: [],
  }),
  setNotice: route(paths.setNotice, {
    who: 'member',
    summary: 'Its name, what its papers say for everyone, its rule',
    body: s.noticePatch,
    answer: v.noticeView,
    problems: ['bad-fact', 'already-sent'],
  }),
  deleteNotice: route(paths.deleteNotice, {
    who: 'member',
    summary: 'Delete a notice of which nothing has been sent',
    answer: NOTHING,
    problems: ['was-sent'],
  }),
  noticeRows: route(paths.noticeRows, {
    who: 'member',
    summary: 'The households of a notice in their order, each with its steps',
    query: s.noticeRowsQuery,
    answer: v.pageOf(v.noticeRow),
    problems: [],
  }),
  addHomes: route(paths.addHomes, {
    who: 'member',
    summary: 'Add homes to a notice, by their deals or all of a list',
    body: s.homesBody,
    answer: v.noticeView,
    problems: ['over-limits'],
  }),
  homeTable: route(paths.homeTable, {
    who: 'member',
    summary: 'Preview or import a table with a row per household (CSV)',
    body: file('a table', MAX_TABLE),
    query: s.homeTableQuery,
    answer: v.homeTable,
    problems: [...FILE_PROBLEMS, 'bad-table', 'rows-wrong', 'over-limits'],
  }),
  setNoticeRow: route(paths.setNoticeRow, {
    who: 'member',
    summary: 'Set what the notice says to one household, or leave it out',
    body: s.noticeRowPatch,
    answer: v.noticeRow,
    problems: ['bad-fact', 'already-sent'],
  }),
  noticePaper: route(paths.noticePaper, {
    who: 'member',
    summary: 'The papers of one household, as they will be or were sent',
    answer: bytes('application/pdf'),
    problems: ['not-on-shelf', 'reading', 'locked-setting', 'bad-fact', 'unfit-text'],
  }),
  goNotice: route(paths.goNotice, {
    who: 'member',
    summary: 'Send the notice to every household that is ready; none gets it twice',
    answer: v.noticeView,
    problems: ['rows-wrong', 'nothing-to-send'],
  }),
  stopNotice: route(paths.stopNotice, {
    who: 'member',
    summary: 'Stop sending; what is sent stays sent, the rest waits',
    answer: v.noticeView,
    problems: [],
  }),
  noticeLetters: route(paths.noticeLetters, {
    who: 'member',
    summary: 'The letters to mail, each with a slip to sign',
    answer: bytes('application/pdf'),
    problems: ['nothing-to-send'],
  }),
  lettersWent: route(paths.lettersWent, {
    who: 'member',
    summary: 'Record that letters were mailed or handed over',
    body: s.lettersBody,
    answer: v.lettersWent,
    problems: ['bad-letter-day', 'nothing-to-send'],
  }),
  noticeRules: route(paths.noticeRules, {
    who: 'member',
    summary: 'The firm’s rules for notices: terms, and when something counts as delivered',
    answer: v.noticeRulesView,
    problems: [],
  }),
  setNoticeRules: route(paths.setNoticeRules, {
    who: 'member',
    summary: 'Save the firm’s rules for notices',
    body: s.noticeRulesBody,
    answer: v.noticeRulesView,
    problems: ['bad-fact'],
  }),
};
