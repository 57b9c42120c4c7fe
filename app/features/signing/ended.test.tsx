import { screen } from '@testing-library/react';
import type { SigningView } from '@gatepath/contract';
import { show as draw } from '../../test/office';
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
  draw(
    <Ended
      token="t"
      signing={{ waiting } as unknown as Signing}
      view={{ ...view, ...more }}
      onBack={jest.fn()}
      onSide={jest.fn()}
    />,
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
  [{ status: 'declined', mine: 'asked' }, 'This has ended', /Someone declined/],
  [{ status: 'executed' }, 'Everyone has signed', /being made/],
] as [Partial<SigningView>, string, RegExp][])('at the end %j it says “%s”', (more, title, text) => {
  show([], more);
  expect(screen.getByTestId('ended').textContent).toBe(title);
  expect(screen.getByText(text)).toBeTruthy();
});

test('what is only delivered is there to be read, and asks for nothing', () => {
  const me = { ...view.me, act: 'receive' as const };
  show([], { me, status: 'executed', documents: [{ id: 'd', name: 'Notice', pages: [], sealed: true }] });
  expect(screen.getByTestId('ended').textContent).toBe('This is for you to read');
  screen.getByTestId('read-it');
  screen.getByTestId('ask-own-page');
});
