/** Routes for members: documents seen before. */
import { paths } from './paths';
import { NOTHING, route } from './route';
import * as s from './schemas';
import * as v from './views';

export const memoryRoutes = {
  remembered: route(paths.remembered, {
    who: 'member',
    summary: 'What a document of a packet had on it the last time it was sent, placed for the people of the packet',
    answer: v.rememberedView,
    problems: ['reading'],
  }),
  stopOffering: route(paths.stopOffering, {
    who: 'member',
    summary: 'Stop offering what the document had on it',
    answer: NOTHING,
    problems: ['reading'],
  }),
  setPlaceRemembered: route(paths.setPlaceRemembered, {
    who: 'member',
    summary: 'Whether what was on a paper the last time is placed at once, where nothing is in doubt',
    body: s.placeRememberedBody,
    answer: v.firmView,
    problems: [],
  }),
};
