/** Routes for members: the shelf with its forms and kits, and kits used on deals. */
import { LARGE_BODY, MAX_FILE, WRITTEN_BODY } from './limits';
import { paths } from './paths';
import { PAPER_PROBLEMS, REFUSED } from './problems';
import { bytes, file, FILE_PROBLEMS, NOTHING, route } from './route';
import * as s from './schemas';
import * as v from './views';

const USE = [
  ...REFUSED,
  'not-on-shelf',
  'reading',
  'locked-setting',
  'gate-check',
  'warnings',
  'over-limits',
  'changed-meanwhile',
  'bad-fact',
  'bad-day',
  'not-allowed-for',
  'unfit-text',
] as const;

/** Routes of the shelf, for members. */
export const shelfRoutes = {
  shelf: route(paths.shelf, {
    who: 'member',
    summary: 'The forms or the kits of the firm, by name',
    query: s.shelfQuery,
    answer: v.pageOf(v.shelfSummary),
    problems: [],
  }),
  newForm: route(paths.newForm, {
    who: 'member',
    summary: 'Make a form from a paper',
    body: file('a PDF', MAX_FILE),
    answer: v.shelfItemView,
    problems: [...FILE_PROBLEMS, ...PAPER_PROBLEMS],
  }),
  shelfBundle: route(paths.shelfBundle, {
    who: 'member',
    summary: 'A form, or a kit with its forms, as one open file',
    answer: bytes('application/zip'),
    problems: ['no-document'],
  }),
  bringBundle: route(paths.bringBundle, {
    who: 'member',
    summary: 'Import a bundle of forms and kits, all of it or nothing',
    body: file('a bundle', MAX_FILE),
    answer: v.broughtView,
    problems: [...FILE_PROBLEMS, ...PAPER_PROBLEMS, 'bad-bundle', 'unfit-text'],
  }),
  newWritten: route(paths.newWritten, {
    who: 'member',
    summary: 'Start a form that is written here',
    body: s.writtenFormBody,
    answer: v.shelfItemView,
    problems: [],
  }),
  saveWritten: route(paths.saveWritten, {
    who: 'member',
    summary: 'Save the text of a form and lay out its paper again',
    body: s.writtenBody,
    answer: v.shelfItemView,
    problems: ['not-maker', 'changed-meanwhile', 'unfit-text', 'over-limits'],
    size: WRITTEN_BODY,
  }),
  addToShelf: route(paths.addToShelf, {
    who: 'member',
    summary: 'Make a form from a document of a packet, or a kit from a whole packet',
    body: s.saveToShelfBody,
    answer: v.shelfItemView,
    problems: ['unknown-document', 'reading', 'sealed'],
  }),
  newKit: route(paths.newKit, {
    who: 'member',
    summary: 'Make a kit of forms',
    body: s.kitBody,
    answer: v.shelfItemView,
    problems: ['not-on-shelf', 'over-limits', 'unknown-document'],
  }),
  shelfItem: route(paths.shelfItem, {
    who: 'member',
    summary: 'A form or kit in preparation',
    answer: v.shelfItemView,
    problems: [],
  }),
  editShelfItem: route(paths.editShelfItem, {
    who: 'member',
    summary: 'Apply edits to a form or kit in preparation',
    body: s.editsBody,
    answer: v.savedDraft,
    problems: ['over-limits', 'no-name', 'unknown-document', 'not-maker'],
    size: LARGE_BODY,
  }),
  setShelfItem: route(paths.setShelfItem, {
    who: 'member',
    summary: 'Its last day, whether it is retired, what is locked, who may use and change it',
    body: s.shelfPatch,
    answer: v.shelfItemView,
    problems: ['not-maker', 'unknown-member'],
  }),
  bringChanged: route(paths.bringChanged, {
    who: 'member',
    summary: 'Add a changed paper of a form; it is not used yet',
    body: file('a PDF', MAX_FILE),
    answer: v.documentView,
    problems: [...FILE_PROBLEMS, ...PAPER_PROBLEMS, 'not-maker'],
  }),
  findAgain: route(paths.findAgain, {
    who: 'member',
    summary: 'Where the marks of a form are on its changed paper',
    answer: v.againView,
    problems: ['reading', 'unknown-document'],
  }),
  copyShelfItem: route(paths.copyShelfItem, {
    who: 'member',
    summary: 'Make one’s own copy of a form or kit',
    answer: v.shelfItemView,
    problems: [],
  }),
  putOnShelf: route(paths.putOnShelf, {
    who: 'member',
    summary: 'Put a form or kit on the shelf as its next edition',
    body: s.editionBody,
    answer: v.shelfItemView,
    problems: ['changed-meanwhile', 'reading', 'not-on-shelf', 'no-document', 'not-maker'],
  }),
  deleteShelfItem: route(paths.deleteShelfItem, {
    who: 'member',
    summary: 'Delete a form or kit that was never on the shelf',
    answer: NOTHING,
    problems: ['was-sent', 'not-maker'],
  }),
  dealKits: route(paths.dealKits, {
    who: 'member',
    summary: 'Kits for a deal, first those that meet what it needs',
    answer: v.kitsView,
    problems: [],
  }),
  tryKit: route(paths.tryKit, {
    who: 'member',
    summary: 'Preview a kit on a deal; nothing is saved',
    body: s.kitTrialBody,
    answer: v.kitTrial,
    problems: ['not-on-shelf', 'reading', 'locked-setting', 'bad-fact', 'unfit-text'],
  }),
  useKit: route(paths.useKit, {
    who: 'member',
    summary: 'Make a packet from a kit, and send it if asked to',
    body: s.kitUseBody,
    answer: v.packetView,
    problems: USE,
  }),
};
