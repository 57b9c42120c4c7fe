/** Routes for members: contracts that are added to open a deal, and documents that change one. */
import { MAX_FILE } from './limits';
import { paths } from './paths';
import { PAPER_PROBLEMS } from './problems';
import { file, FILE_PROBLEMS, NOTHING, route } from './route';
import * as s from './schemas';
import * as v from './views';

export const incomingRoutes = {
  actOnStated: route(paths.actOnStated, {
    who: 'member',
    summary: 'Accept what a document states otherwise than the deal, or dismiss it',
    body: s.statedBody,
    answer: v.dealView,
    problems: ['bad-fact'],
  }),
  incoming: route(paths.incoming, {
    who: 'member',
    summary: 'The member’s contracts that have not become deals',
    answer: v.incomingList,
    problems: [],
  }),
  addIncoming: route(paths.addIncoming, {
    who: 'member',
    summary: 'Add a contract to open a deal with; nothing of it is shown to others before',
    body: file('a contract', MAX_FILE),
    answer: v.incomingView,
    problems: [...FILE_PROBLEMS, ...PAPER_PROBLEMS, 'over-limits'],
  }),
  incomingContract: route(paths.incomingContract, {
    who: 'member',
    summary: 'What a contract says about its deal, with the words each value was read from',
    answer: v.incomingView,
    problems: [],
  }),
  openIncoming: route(paths.openIncoming, {
    who: 'member',
    summary: 'Open the deal of a contract; repeated calls answer with the same deal',
    body: s.openIncomingBody,
    answer: v.dealView,
    problems: ['bad-fact', 'reading'],
  }),
  discardIncoming: route(paths.discardIncoming, {
    who: 'member',
    summary: 'Discard a contract that has not become a deal',
    answer: NOTHING,
    problems: [],
  }),
};
