/** What is particular to a party, and when a packet reminds and ends: every change is one edit of the draft. */
import { fireEvent, screen } from '@testing-library/react';
import type { DraftEdit, PacketParty } from '@gatepath/core/packet';
import { atDesk } from '../../test/desk';
import { party, show, underWay } from '../../test/office';
import { PartyOptions } from './party-options';
import { ScheduleCard } from './schedule-card';

function options(start: PacketParty): PacketParty[] {
  const changes: PacketParty[] = [];
  show(<PartyOptions party={start} onChange={(p) => changes.push(p)} />);
  return changes;
}

test('what is as usual is not written down', () => {
  const changes = options(party('wren', { language: 'es', secondStep: 'code', accessCode: 'heron' }));
  fireEvent.click(screen.getByTestId('choice-en'));
  fireEvent.click(screen.getByTestId('choice-none'));
  expect(changes[0]).not.toHaveProperty('language');
  expect(Object.keys(changes[1]!)).not.toEqual(expect.arrayContaining(['secondStep', 'accessCode']));
});

test('a code told in person is asked for only with that step, and is saved when the field is left', () => {
  const changes = options(party('wren', { secondStep: 'code' }));
  const field = screen.getByTestId('access-Wren');
  fireEvent.change(field, { target: { value: 'Heron 12' } });
  expect(changes).toEqual([]);
  fireEvent.blur(field);
  expect(changes[0]!.accessCode).toBe('Heron 12');
});

test('who gets a copy is asked when, not for a code; who signs at the desk for neither', () => {
  const changes = options(party('escrow', { act: 'copy' }));
  expect(screen.queryByTestId('choice-email')).toBeNull();
  fireEvent.click(screen.getByTestId('copy-now-Escrow'));
  expect(changes[0]!.copyAt).toBe('sending');
});

function schedule(change: Partial<ReturnType<typeof underWay>['packet']['draft']['schedule']>): DraftEdit[] {
  const edits: DraftEdit[] = [];
  const { packet } = underWay();
  const draft = { ...packet.draft, schedule: { ...packet.draft.schedule, ...change } };
  show(atDesk(<ScheduleCard />, { draft, packet }, { edit: (e) => void edits.push(...e) }));
  return edits;
}

test('every date that follows is shown before sending, by the server’s clock; the warning is reminder enough', () => {
  schedule({ lastDay: '2026-12-01', warnDays: 1, nudge: { first: 2, every: 2, most: 3, businessDays: true } });
  expect(screen.getByTestId('planned-dates').textContent).toBe(
    'If it is sent today and someone does nothing:' +
      'Wed, Nov 25: nudge 1' +
      'Fri, Nov 27: nudge 2' +
      'Mon, Nov 30: warning: it is about to lapse' +
      'Tue, Dec 1: last day for signing, until its end',
  );
});

test('a last day brings a warning with it; a number that is none changes nothing', () => {
  const edits = schedule({ nudge: { first: 2, every: 2, most: 3, businessDays: true } });
  fireEvent.change(screen.getByTestId('last-day'), { target: { value: '2026-12-01' } });
  expect(edits[0]).toMatchObject({ op: 'set', field: 'schedule', value: { lastDay: '2026-12-01', warnDays: 1 } });
  fireEvent.change(screen.getByTestId('nudge-first'), { target: { value: '0' } });
  fireEvent.change(screen.getByTestId('nudge-first'), { target: { value: 'soon' } });
  expect(edits).toHaveLength(1);
  fireEvent.change(screen.getByTestId('nudge-first'), { target: { value: '5' } });
  expect(edits[1]).toMatchObject({ value: { nudge: { first: 5 } } });
});

test('a day that has passed is said to have', () => {
  schedule({ lastDay: '2026-11-20' });
  expect(screen.getByText('This day has passed. Choose a later day.')).toBeTruthy();
});
