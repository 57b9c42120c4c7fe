/** Settings: each touch is one request with the whole choice in it. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { FirmView } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { show } from '../../test/office';
import { ClockCard, FailuresCard, HolidaysCard, NoticesCard } from './settings';

const firm = { holidays: ['2026-11-26'] } as FirmView;

test('a member chooses what to be written to about', async () => {
  const asked = show(<NoticesCard />);
  expect(screen.getByTestId('notice-done').getAttribute('aria-checked')).toBe('true');
  fireEvent.click(screen.getByTestId('notice-opened'));
  await waitFor(() =>
    expect(asked[0]).toEqual({
      method: 'PUT',
      url: '/api/session/notices',
      body: { notices: ['done', 'opened'], digest: false },
    }),
  );
});

test('holidays are added and removed by day', async () => {
  const asked = show(<HolidaysCard firm={firm} />, () => firm);
  expect(screen.getByText('Thu, Nov 26, 2026')).toBeTruthy();
  fireEvent.change(screen.getByTestId('holiday'), { target: { value: '2026-12-25' } });
  fireEvent.click(screen.getByTestId('add-holiday'));
  await waitFor(() => expect(asked[0]?.body).toEqual({ holidays: ['2026-11-26', '2026-12-25'] }));
  fireEvent.click(screen.getByLabelText('Remove 2026-11-26'));
  await waitFor(() => expect(asked[1]?.body).toEqual({ holidays: [] }));
});

test('the clock goes on by so many hours, and a refusal is said', async () => {
  const asked = show(<ClockCard />, () => new ApiError(403, 'not-demo', 'Only the demo’s clock can be set forward.'));
  expect(screen.getByText('Mon, Nov 23, 10:00 AM')).toBeTruthy();
  fireEvent.click(screen.getByTestId('forward-24'));
  await waitFor(() => expect(screen.getByTestId('trouble').textContent).toContain('Only the demo’s clock'));
  expect(asked[0]!.body).toEqual({ hours: 24 });
});

test('what the server gave up is told, with the way to try it again; nothing is said when all is well', async () => {
  const failures = [
    {
      queue: 'seal',
      thing: 'packet-1',
      sentence: 'The papers of “Papers” could not be sealed.',
      detail: 'the stored file is not what its name says',
      tries: 6,
      at: '2026-11-23T12:00:00.000Z',
    },
  ];
  show(<FailuresCard firm={{ ...firm, timeZone: 'UTC', failures: [] }} />);
  expect(screen.queryByTestId('failures')).toBeNull();
  const asked = show(<FailuresCard firm={{ ...firm, timeZone: 'UTC', failures }} />, () => firm);
  expect(screen.getByTestId('failures').textContent).toContain('could not be sealed');
  expect(screen.getByTestId('failures').textContent).toContain('Tried 6 times');
  fireEvent.click(screen.getByTestId('work-again'));
  await waitFor(() => expect(asked[0]?.body).toEqual({ queue: 'seal', thing: 'packet-1' }));
});
