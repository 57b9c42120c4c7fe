/** People under way who have done nothing yet: taken out, given another act, their places changed. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { Mark } from '@gatepath/core/packet';
import { ApiError } from '../../api/client';
import { show, underWay } from '../../test/office';
import { MarksCard, movable } from './marks-card';
import { ChangeAct, RemoveParty, isUntouched } from './people-changes';

const mark = (id: string, partyId: string, kind: Mark['kind'], y: number): Mark => ({
  id,
  documentId: 'doc',
  page: 1,
  kind,
  partyId,
  rect: { x: 72, y, w: 120, h: 24 },
  required: true,
});

function packet(partyStatus: Parameters<typeof underWay>[0] = {}) {
  const way = underWay(partyStatus);
  way.sent.plan.marks = [mark('s', 'callum', 'signature', 600), mark('i', 'callum', 'initials', 740)];
  return way;
}
const posted = (asked: { method: string; body: unknown }[]) =>
  asked.filter((a) => a.method === 'POST').map((a) => a.body);

test('only of those who have done nothing yet can something be changed', () => {
  const { sent } = packet({ partyStatus: { wren: { status: 'done' }, tobias: { status: 'dropped' } } });
  expect(['wren', 'callum', 'tobias'].map((id) => isUntouched(sent, id))).toEqual([false, true, false]);
  expect(movable(sent, 'doc').map((p) => p.id)).toEqual(['callum']);
});

test('somebody is taken out with a reason, which they read when they were asked', async () => {
  const way = packet({ partyStatus: { callum: { status: 'asked', askedAt: '2026-11-23T12:00:00.000Z' } } });
  const close = jest.fn();
  const asked = show(<RemoveParty {...way} party={way.sent.plan.parties[1]!} onClose={close} />, () => way.packet);
  expect(screen.getByTestId('drop-now').getAttribute('aria-disabled')).toBe('true');
  fireEvent.change(screen.getByLabelText(/Callum will read it/), { target: { value: 'He sold his share.' } });
  fireEvent.click(screen.getByTestId('drop-now'));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(posted(asked)).toEqual([{ type: 'drop_party', partyId: 'callum', reason: 'He sold his share.' }]);
});

test('who only approved and now signs is asked for papers; who signed and now approves loses their places', async () => {
  const way = packet({ parties: { tobias: { act: 'approve' } } });
  const asked = show(<ChangeAct {...way} party={way.sent.plan.parties[2]!} onClose={jest.fn()} />, () => way.packet);
  fireEvent.click(screen.getByRole('radio', { name: 'Signs' }));
  fireEvent.click(screen.getByLabelText('Initials every page of them'));
  fireEvent.click(screen.getByTestId('act-now'));
  await waitFor(() => expect(posted(asked)).toHaveLength(1));
  expect(posted(asked)[0]).toEqual({
    type: 'change_act',
    partyId: 'tobias',
    act: 'sign',
    after: 2,
    documentIds: ['doc'],
    initials: false,
  });
});

test('a place is moved with the arrows, another taken away; one that covers print is asked about', async () => {
  const way = packet();
  const asked = show(<MarksCard {...way} look={{ documentId: 'doc', page: 1 }} onClose={jest.fn()} />, (a) =>
    (a.body as { despiteWarnings?: boolean } | undefined)?.despiteWarnings
      ? way.packet
      : new ApiError(409, 'warnings', 'On page 1 it covers print.'),
  );
  // Callum comes before Tobias, who has nothing here.
  fireEvent.click(screen.getByRole('radio', { name: 'Callum' }));
  fireEvent.click(screen.getByRole('radio', { name: '1. signature' }));
  fireEvent.click(screen.getByLabelText('To the right'));
  fireEvent.click(screen.getByLabelText('Up'));
  fireEvent.click(screen.getByLabelText('Wider'));
  fireEvent.click(screen.getByRole('radio', { name: /initials/ }));
  fireEvent.click(screen.getByTestId('take-away'));
  fireEvent.click(screen.getByTestId('places-now'));
  fireEvent.click(await screen.findByTestId('places-anyway'));
  await waitFor(() => expect(posted(asked)).toHaveLength(2));
  expect(posted(asked)[1]).toEqual({
    type: 'change_marks',
    partyId: 'callum',
    put: [{ ...mark('s', 'callum', 'signature', 594), rect: { x: 78, y: 594, w: 126, h: 24 } }],
    drop: ['i'],
    despiteWarnings: true,
  });
});
