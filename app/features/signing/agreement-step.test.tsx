import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { SigningView } from '@gatepath/contract';
import { makeTheme } from '../../ui/theme';
import { AgreementStep } from './agreement-step';
import { ownMark } from '../../test/own-mark';
import type { OwnMark } from './own-rules';
import type { Signing } from './use-signing';

const mark = (id: string, kind: OwnMark['kind'], page: number) =>
  ownMark(id, { kind, page, automatic: kind === 'date_signed' });

const view = {
  packetName: 'Listing papers',
  dealName: '14 Lantern Row',
  firmName: 'Towpath & Vane Realty',
  message: 'Call me',
  language: 'en',
  languages: [],
  lastDay: null,
  note: '',
  me: { id: 'c', name: 'Callum Alder', side: 'seller', ordinal: 2, act: 'sign', ink: 1 },
  agreementText: { version: '7', paragraphs: ['This counts like ink.'] },
  documents: [{ id: 'd', name: 'Agreement', pages: [1, 2].map(() => ({ width: 612, height: 792 })), sealed: false }],
  marks: [mark('a', 'initials', 1), mark('b', 'initials', 2), mark('s', 'signature', 2), mark('t', 'date_signed', 2)],
} as unknown as SigningView;

function show(shown = view) {
  const agree = jest.fn();
  const signing = { agree, agreementCopy: {}, setLanguage: {} } as unknown as Signing;
  render(
    <PaperProvider theme={makeTheme(false)}>
      <AgreementStep token="t" signing={signing} view={shown} onBack={jest.fn()} onSide={jest.fn()} />
    </PaperProvider>,
  );
  return agree;
}

test('it says for whom it is and how much there is to do', () => {
  show();
  expect(screen.getByText('You are signing as Callum')).toBeTruthy();
  expect(screen.getByText(/2 pages\. You have 2 initials and 1 signature\./)).toBeTruthy();
});

test('what is to be filled in is told too, a group of choices as one place', () => {
  const own = [
    mark('a', 'initials', 1),
    mark('m', 'money', 1),
    ownMark('gas', { kind: 'choice', group: 'g' }),
    ownMark('wood', { kind: 'choice', group: 'g' }),
    ownMark('note', { required: false }),
  ];
  show({ ...view, marks: own });
  expect(screen.getByText(/You have 1 set of initials and 2 places to fill in\./)).toBeTruthy();
});

test('going on without agreeing points to the agreement and does nothing else', () => {
  const agree = show();
  fireEvent.click(screen.getByTestId('agree'));
  expect(agree).not.toHaveBeenCalled();
  expect(screen.getByText(/Please check the box/)).toBeTruthy();
  fireEvent.click(screen.getByTestId('agree-tick'));
  expect(screen.getByRole('checkbox').getAttribute('aria-checked')).toBe('true');
  fireEvent.click(screen.getByTestId('agree'));
  expect(agree).toHaveBeenCalledWith('7');
});
