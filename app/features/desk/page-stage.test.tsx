/** How much of a page is drawn again when something on it changes. */
import { act, screen } from '@testing-library/react';
import { QueryClient } from '@tanstack/react-query';
import { createRef } from 'react';
import { emptyDraft, type DocumentFacts, type Draft, type Mark } from '@gatepath/core/packet';
import { emptyGrid } from '@gatepath/core/paper';
import { party, show, underWay } from '../../test/office';
import * as faces from '../pages/mark-box';
import { PACKET_SETUP } from './desk-setup';
import { DeskStore } from './desk-store';
import { PageSheet } from './page-stage';
import { DeskContext } from './use-desk';

const PAGES = 100;
const A_PAGE = 20;
const PAGE = { width: 612, height: 792, ink: emptyGrid(612, 792), print: [], words: [] };
const DOCUMENT: DocumentFacts = {
  id: 'doc',
  name: 'Papers',
  pages: Array.from({ length: PAGES }, () => PAGE),
  places: [],
};

const MARKS: Mark[] = DOCUMENT.pages.flatMap((_, i) =>
  Array.from({ length: A_PAGE }, (_x, n) => ({
    id: `m${i + 1}-${n}`,
    documentId: 'doc',
    page: i + 1,
    kind: 'text' as const,
    partyId: 'wren',
    rect: { x: 60, y: 20 + n * 36, w: 150, h: 20 },
    required: false,
  })),
);

/** Shows the first page of a packet of 100 pages and 2,000 marks; returns its desk and what is drawn of marks. */
function open() {
  const { packet } = underWay({ packet: { status: 'drafting', sent: null } });
  const draft = { ...emptyDraft('Papers'), parties: [party('wren')], documents: [{ id: 'doc' }], marks: MARKS };
  const desk = new DeskStore({ ...packet, draft, version: 1 }, PACKET_SETUP, new QueryClient());
  desk.dispatch({ type: 'facts', documents: [DOCUMENT], ready: true });
  const drawn = jest.spyOn(faces, 'MarkFace');
  show(
    <DeskContext.Provider value={desk}>
      <PageSheet
        documentId="doc"
        number={1}
        name="Papers"
        page={PAGE}
        width={612}
        paper={createRef()}
        onInsert={jest.fn()}
      />
    </DeskContext.Provider>,
  );
  return { desk, drawn };
}

test('of 2,000 marks on 100 pages only the one that is touched or moved is drawn again', () => {
  const { desk, drawn } = open();
  expect(screen.getAllByTestId('mark-text')).toHaveLength(A_PAGE);
  const during = (what: () => void) => {
    drawn.mockClear();
    act(what);
    return drawn.mock.calls.length;
  };
  expect(during(() => desk.acts.select('m1-3'))).toBe(1);
  // The one before and the one that is selected now.
  expect(during(() => desk.acts.select('m1-4'))).toBe(2);
  expect(during(() => desk.acts.nudge(5, 0))).toBe(1);
  expect(during(() => desk.acts.takeTool('tick'))).toBe(1);
  // What happens on another page, or is only said, draws no mark here.
  expect(
    during(() => desk.acts.moveMarks([{ mark: MARKS[MARKS.length - 1]!, rect: { x: 90, y: 90, w: 150, h: 20 } }])),
  ).toBe(0);
  expect(during(() => desk.dispatch({ type: 'said', words: 'Moved.' }))).toBe(0);
});

test('an answer of the server that changes nothing draws nothing', () => {
  const { desk, drawn } = open();
  const { draft } = desk.store.getState();
  drawn.mockClear();
  act(() => desk.dispatch({ type: 'base', base: { draft: JSON.parse(JSON.stringify(draft)) as Draft, version: 2 } }));
  expect(drawn).not.toHaveBeenCalled();
  expect(desk.store.getState().base.version).toBe(2);
});
