import { render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { PacketSummary } from '@gatepath/contract';
import { makeTheme } from '../../ui/theme';
import { gateState, PathStrip } from './path-strip';
import { packetLine } from './words';

const packet: PacketSummary = {
  id: 'p',
  dealId: 'd',
  name: 'Papers',
  status: 'at_gate',
  gate: 1,
  gateCount: 3,
  marksDone: 4,
  marksTotal: 9,
  holdUp: 'Callum still has 3 places to go.',
  path: [{ partyIds: ['w'] }, { partyIds: ['c'] }, { partyIds: ['t'] }],
  parties: [
    { id: 'w', name: 'Wren Alder', ink: 0, act: 'sign', done: true },
    { id: 'c', name: 'Callum Alder', ink: 1, act: 'sign', done: false },
    { id: 't', name: 'Tobias Mercer', ink: 2, act: 'sign', done: false },
  ],
  sentAt: null,
  endedAt: null,
  createdAt: '2026-11-23T12:00:00Z',
};

test.each([
  ['at_gate', 'At gate 2 of 3. Callum still has 3 places to go.'],
  ['executed', 'Executed, 4 marks, no gap'],
  ['drafting', 'Draft, 3 gates'],
] as const)('a packet that is %s says so in words', (status, line) =>
  expect(packetLine({ ...packet, status })).toBe(line),
);

test('gates stand open, lit or closed, and are stopped where a packet ended early', () => {
  const states = (status: string) => [0, 1, 2].map((i) => gateState({ status, gate: 1 }, i));
  expect(states('at_gate')).toEqual(['passed', 'lit', 'closed']);
  expect(states('executed')).toEqual(['passed', 'passed', 'passed']);
  expect(states('declined')).toEqual(['passed', 'stopped', 'closed']);
  expect([0, 1].map((i) => gateState({ status: 'drafting', gate: 0 }, i))).toEqual(['closed', 'closed']);
});

test('the path strip names its gates and who stands there', () => {
  render(
    <PaperProvider theme={makeTheme(false)}>
      <PathStrip packet={packet} />
    </PaperProvider>,
  );
  expect(screen.getByLabelText('Gate 2, open now')).toBeTruthy();
  expect(screen.getByLabelText('Wren Alder, done')).toBeTruthy();
});
