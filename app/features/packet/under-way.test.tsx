/** What the sender does with a packet on its way: each act is one request, and says what went wrong. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { ApiError } from '../../api/client';
import { show, underWay } from '../../test/office';
import { ChangeAhead } from './change-ahead';
import { PartyLine } from './party-line';
import { AheadCard, EndCard, KinNote, QuestionsCard } from './under-way';

jest.mock('expo-router', () => ({ router: { push: jest.fn(), replace: jest.fn(), navigate: jest.fn() } }));

const write = (testId: string, value: string) => fireEvent.change(screen.getByTestId(testId), { target: { value } });
const press = (testId: string) => fireEvent.click(screen.getByTestId(testId));
const bodies = (asked: { method: string; body: unknown }[]) =>
  asked.filter((a) => a.method === 'POST').map((a) => a.body);

test('a question is answered from where it is read; one with an answer shows it', async () => {
  const q = { id: 'q1', partyId: 'wren', text: 'Is the shed included?', at: '2026-11-23T13:00:00Z', answer: null };
  const old = { ...q, id: 'q0', text: 'And the roof?', answer: { text: 'Yes', at: q.at, by: 'Odile Farrant' } };
  const way = underWay({ sent: { questions: [old, q] } });
  const asked = show(<QuestionsCard {...way} />, () => way.packet);
  expect(screen.getByText('Wren: “Is the shed included?”')).toBeTruthy();
  expect(screen.getByText('Odile Farrant: “Yes”')).toBeTruthy();
  write('answer-text', 'With its roof.');
  press('answer-now');
  await waitFor(() => expect(bodies(asked)).toEqual([{ type: 'answer', questionId: 'q1', text: 'With its roof.' }]));
});

test('what comes by itself is told day by day, and the last day can be moved', async () => {
  const way = underWay({
    sent: {
      ahead: [
        { what: 'nudge', day: '2026-11-25', partyId: 'wren' },
        { what: 'warning', day: '2026-11-30', partyId: null },
        { what: 'last_day', day: '2026-12-01', partyId: null },
      ],
    },
  });
  const asked = show(<AheadCard {...way} />, () => way.packet);
  for (const line of [
    'Wed, Nov 25: nudge to Wren',
    'Mon, Nov 30: warning before it lapses',
    'Tue, Dec 1: last day for signing',
  ])
    expect(screen.getByText(line)).toBeTruthy();
  press('nudge-now');
  await waitFor(() => expect(bodies(asked)).toEqual([{ type: 'nudge', partyIds: [] }]));
  write('extend-day', '2026-12-08');
  press('extend-now');
  await waitFor(() => expect(bodies(asked)[1]).toEqual({ type: 'extend', lastDay: '2026-12-08' }));
});

test('a lapsed packet says how it is taken up again; an ended one has nothing ahead', () => {
  const way = underWay({ packet: { status: 'lapsed' } });
  show(<AheadCard {...way} />);
  expect(screen.getByText(/Extend it and everyone who is waited for gets a new link/)).toBeTruthy();
  expect(screen.queryByTestId('nudge-now')).toBeNull();
});

test('withdrawing and taking back ask for a reason first, and can be left', async () => {
  const { packet } = underWay();
  const asked = show(<EndCard packet={packet} />, () => ({ ...packet, id: 'v2' }));
  press('withdraw');
  fireEvent.click(screen.getByText('Keep it open'));
  press('new-version');
  expect(screen.getByText(/Signatures given so far do not carry over/)).toBeTruthy();
  write('end-reason', 'The price changed');
  press('end-now');
  await waitFor(() =>
    expect(asked.filter((a) => a.method !== 'GET').map((a) => a.url)).toEqual(['/api/packets/p/new-version']),
  );
  expect(bodies(asked)).toEqual([{ reason: 'The price changed' }]);
});

test('somebody is added ahead with what they do and where; what the server refuses is said', async () => {
  const way = underWay();
  const asked = show(
    <ChangeAhead {...way} />,
    () => new ApiError(422, 'no-room', 'There is no room for a signature on “Disclosure”.'),
  );
  press('add-person');
  write('new-name', 'Ewa Holt');
  write('new-email', 'ewa@example.com');
  press('choice-buyer');
  press('choice-1');
  press('new-now');
  await waitFor(() => expect(screen.getByTestId('trouble').textContent).toContain('no room for a signature'));
  expect(bodies(asked)).toEqual([
    {
      type: 'add_party',
      name: 'Ewa Holt',
      email: 'ewa@example.com',
      phone: null,
      side: 'buyer',
      act: 'sign',
      after: 1,
      documentIds: ['doc'],
      initials: true,
    },
  ]);
});

test('only gates that are ahead can change their order', async () => {
  const way = underWay();
  const asked = show(<ChangeAhead {...way} />, () => way.packet);
  fireEvent.click(screen.getByText('Change the order'));
  expect(screen.queryByLabelText('Wren later')).toBeNull();
  fireEvent.click(screen.getByLabelText('Callum later'));
  fireEvent.click(screen.getByText('Use this order'));
  await waitFor(() =>
    expect(bodies(asked)).toEqual([
      { type: 'set_path', gates: ['g0', 'g2', 'g1'].map((id) => expect.objectContaining({ id })) },
    ]),
  );
});

test.each([
  ['asked', {}, 'Wren has not opened it yet', /asked Mon, Nov 23, 7:00 AM, wren@example.com/],
  ['again', { again: true }, 'Wren has a change to initial', /not opened yet/],
  [
    'in progress',
    { status: 'in_progress', openedAt: '2026-11-23T13:00:00Z', left: 1, device: 'phone (Safari)' },
    'Wren: 1 of 2 done',
    /on a phone \(Safari\).*1 place to go/,
  ],
  [
    'done',
    { status: 'done', doneAt: '2026-11-23T14:00:00Z', hostName: 'Odile Farrant' },
    'Wren is done',
    /at Odile Farrant’s desk, 2 marks/,
  ],
  ['declined', { status: 'declined', reason: 'The price' }, 'Wren declined', /“The price”/],
  ['excused', { status: 'excused' }, 'Wren was not needed', /another at this gate/],
  ['bounced', { bounced: 'No such mailbox' }, 'Wren has not opened it yet', /asked/],
] as const)('a party that is %s is told in words', (_, standing, head, tail) => {
  const way = underWay({ partyStatus: { wren: standing as never } });
  show(<PartyLine id="wren" {...way} />);
  expect(screen.getByText(head)).toBeTruthy();
  expect(screen.getByText(tail)).toBeTruthy();
  if ('bounced' in standing) expect(screen.getByText('The message came back: No such mailbox')).toBeTruthy();
});

test('a locked party is let in again, one at the desk is opened here, and who is a member signs here', async () => {
  const locked = underWay({ partyStatus: { wren: { locked: true } } });
  const asked = show(<PartyLine id="wren" {...locked} />, () => locked.packet);
  press('unlock-Wren');
  await waitFor(() => expect(bodies(asked)).toEqual([{ type: 'unlock', partyId: 'wren' }]));
  const desk = underWay({ parties: { wren: { act: 'desk' } } });
  const hosted = show(<PartyLine id="wren" {...desk} />, () => ({ token: 'secret' }));
  press('host-Wren');
  await waitFor(() => expect(hosted.map((a) => a.url)).toEqual(['/api/packets/p/parties/wren/host']));
  const own = underWay({ parties: { wren: { memberId: 'odile' } } });
  const signed = show(<PartyLine id="wren" {...own} />, () => ({ token: 'secret' }));
  press('sign-myself');
  await waitFor(() => expect(signed.map((a) => a.url)).toEqual(['/api/packets/p/parties/wren/own']));
});

test('packets that belong together name each other', () => {
  const { packet } = underWay({ packet: { kin: [{ id: 'v2', name: 'Papers', how: 'new_version' }] } });
  show(<KinNote packet={packet} />);
  expect(screen.getByText('Its new version: Papers')).toBeTruthy();
});
