import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { SigningView } from '@gatepath/contract';
import { makeTheme } from '../../ui/theme';
import { AgreementStep } from './agreement-step';
import type { Signing } from './use-signing';

const mark = (
  id: string,
  kind: 'initials' | 'signature' | 'date_signed',
  page: number,
): SigningView['marks'][number] => ({
  id,
  documentId: 'd',
  page,
  kind,
  rect: { x: 0, y: 0, w: 50, h: 20 },
  required: true,
  label: null,
  help: null,
  several: false,
  value: null,
  check: null,
  options: [],
  group: null,
  done: false,
  automatic: kind === 'date_signed',
});

const view = {
  packetName: 'Listing papers',
  dealName: '14 Lantern Row',
  firmName: 'Towpath & Vane Realty',
  message: 'Call me',
  me: { id: 'c', name: 'Callum Alder', side: 'seller', ordinal: 2, act: 'sign', ink: 1 },
  agreementText: { version: '7', paragraphs: ['This counts like ink.'] },
  documents: [{ id: 'd', name: 'Agreement', pages: [1, 2].map(() => ({ width: 612, height: 792 })), sealed: false }],
  marks: [mark('a', 'initials', 1), mark('b', 'initials', 2), mark('s', 'signature', 2), mark('t', 'date_signed', 2)],
} as unknown as SigningView;

function show() {
  const agree = jest.fn();
  const signing = { agree: { mutate: agree, isPending: false, isError: false, error: null } } as unknown as Signing;
  render(
    <PaperProvider theme={makeTheme(false)}>
      <AgreementStep signing={signing} view={view} onRead={jest.fn()} onDecline={jest.fn()} />
    </PaperProvider>,
  );
  return agree;
}

test('it says for whom it is and how much there is to do', () => {
  show();
  expect(screen.getByText('You are signing as Callum')).toBeTruthy();
  expect(screen.getByText(/2 pages\. You initial 2 places and sign 1 time\./)).toBeTruthy();
});

test('going on without agreeing points to the agreement and does nothing else', () => {
  const agree = show();
  fireEvent.click(screen.getByTestId('agree'));
  expect(agree).not.toHaveBeenCalled();
  expect(screen.getByText(/Please tick/)).toBeTruthy();
  fireEvent.click(screen.getByTestId('agree-tick'));
  expect(screen.getByRole('checkbox').getAttribute('aria-checked')).toBe('true');
  fireEvent.click(screen.getByTestId('agree'));
  expect(agree).toHaveBeenCalledWith('7');
});
