import { render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { SigningView } from '@gatepath/contract';
import { makeTheme } from '../../ui/theme';
import { Ended } from './ended';
import type { Signing } from './use-signing';

const view = {
  packetName: 'Papers',
  firmName: 'Towpath & Vane Realty',
  me: { id: 'w', name: 'Wren Alder', side: 'seller', ordinal: 1, act: 'sign', ink: 0 },
  status: 'at_gate',
  mine: 'done',
  myTurn: false,
  documents: [],
  questions: [],
  somethingSigned: true,
  others: [{ name: 'Callum', ink: 1, done: false }],
} as unknown as SigningView;

const show = (waiting: unknown[], more: Partial<SigningView> = {}) =>
  render(
    <PaperProvider theme={makeTheme(false)}>
      <Ended
        token="t"
        signing={{ waiting } as unknown as Signing}
        view={{ ...view, ...more }}
        onBack={jest.fn()}
        onSide={jest.fn()}
      />
    </PaperProvider>,
  );

test('thanks are said only when the server has everything', () => {
  show([{ id: 'a', type: 'finish' }]);
  expect(screen.queryByTestId('ended')).toBeNull();
  expect(screen.getByTestId('sending').textContent).toBe('Sending what you did…');
});

test.each([
  [{}, 'Thank you, Wren', /Callum signs next/],
  [{ others: [] }, 'Thank you, Wren', /You are done\./],
  [{ mine: 'excused' }, 'Already done', /another has done it/],
  [{ status: 'declined', mine: 'declined' }, 'You have declined', /told Towpath/],
  [{ status: 'declined', mine: 'asked' }, 'This has ended', /Somebody declined/],
  [{ status: 'executed' }, 'Everyone has signed', /being made/],
] as [Partial<SigningView>, string, RegExp][])('at the end %j it says “%s”', (more, title, text) => {
  show([], more);
  expect(screen.getByTestId('ended').textContent).toBe(title);
  expect(screen.getByText(text)).toBeTruthy();
});
