/** A change on a sent page: found by its words, shown before it is made, refused where it cannot be. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { PackedFacts } from '@gatepath/contract';
import { emptyGrid, packGrid } from '@gatepath/core/paper';
import { show, underWay } from '../../test/office';
import { CorrectionCard } from './correction-card';

const words = ['The', 'shed', 'stays.', 'The', 'roof', 'stays.'];
const ink = emptyGrid(612, 792);
const facts: PackedFacts = {
  cell: ink.cell,
  pages: [
    {
      width: 612,
      height: 792,
      cols: ink.cols,
      rows: ink.rows,
      ink: packGrid(ink),
      print: words.flatMap((w, i) => [60 + i * 50, 100, w.length * 6, 11]),
      words: words.join(' '),
    },
  ],
  places: [],
};

function correction(more: Parameters<typeof underWay>[0] = {}) {
  const way = underWay(more);
  const asked = show(<CorrectionCard {...way} look={{ documentId: 'doc', page: 1 }} onClose={jest.fn()} />, (a) =>
    a.method === 'GET' ? facts : way.packet,
  );
  return asked;
}
const write = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const offered = () => screen.getByTestId('change-now').getAttribute('aria-disabled') !== 'true';

test('words are struck as they are printed, with the boxes they stand in', async () => {
  const asked = correction({ partyStatus: { wren: { status: 'done' } } });
  expect(screen.getByText(/One person who has signed will be asked to initial it/)).toBeTruthy();
  write('change-words', 'the roof');
  await waitFor(() => expect(offered()).toBe(true));
  fireEvent.click(screen.getByTestId('change-now'));
  await waitFor(() => expect(asked.some((a) => a.method === 'POST')).toBe(true));
  expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
    type: 'correct',
    documentId: 'doc',
    page: 1,
    kind: 'strike',
    text: 'The roof',
    rects: [{ x: 210, y: 100, w: 74, h: 11 }],
  });
});

test('words that are not printed cannot be struck; words that stand twice say so', async () => {
  correction();
  write('change-words', 'the barn');
  await waitFor(() => expect(screen.getByText(/not printed on this page/)).toBeTruthy());
  expect(offered()).toBe(false);
  write('change-words', 'stays');
  await waitFor(() => expect(screen.getByText(/They appear 2 times/)).toBeTruthy());
});

test('words put in go near the words that were named', async () => {
  const asked = correction();
  fireEvent.click(screen.getByTestId('choice-insert'));
  write('change-words', 'with its shingles');
  write('change-near', 'roof');
  await waitFor(() => expect(offered()).toBe(true));
  fireEvent.click(screen.getByTestId('change-now'));
  await waitFor(() => expect(asked.some((a) => a.method === 'POST')).toBe(true));
  const body = asked.find((a) => a.method === 'POST')!.body as {
    kind: string;
    text: string;
    rects: { x: number; y: number }[];
  };
  expect([body.kind, body.text, body.rects.length]).toEqual(['insert', 'with its shingles', 1]);
  expect(Math.hypot(body.rects[0]!.x - 290, body.rects[0]!.y - 100)).toBeLessThan(40);
});
