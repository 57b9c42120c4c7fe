import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { SigningView } from '@gatepath/contract';
import { makeTheme } from '../../ui/theme';
import { ownMark } from '../../test/own-mark';
import { PlaceAct } from './place-act';
import type { OwnMark } from './own-rules';
import type { Signing } from './use-signing';

const view = {
  me: { id: 'me', name: 'Wren Alder', ink: 0 },
  documents: [{ id: 'd', name: 'Disclosure', pages: [{ width: 612, height: 792 }], sealed: false }],
  fills: [],
  redlines: [],
  hand: null,
} as unknown as SigningView;

/** Shows one place; returns what was sent off for it. */
function show(marks: OwnMark[], more: { required?: boolean; onSkip?: () => void; fills?: unknown[] } = {}) {
  const sent: { markId: string; text?: string }[] = [];
  const signing = {
    fill: (markId: string, text?: string) => void sent.push({ markId, ...(text === undefined ? {} : { text }) }),
    addFile: {},
  } as unknown as Signing;
  render(
    <PaperProvider theme={makeTheme(false)}>
      <PlaceAct
        token="t"
        signing={signing}
        view={{ ...view, fills: (more.fills ?? []) as SigningView['fills'] }}
        place={{ key: 'k', marks, required: more.required ?? true, done: marks.some((m) => m.done) }}
        next={null}
        onHand={() => undefined}
        onNext={() => undefined}
        onSkip={more.onSkip}
      />
    </PaperProvider>,
  );
  return sent;
}
const write = (text: string) => fireEvent.change(screen.getByTestId('place-text'), { target: { value: text } });

test('a sum that does not pass is not sent, and says why; one that passes is', () => {
  const sent = show([ownMark('m', { kind: 'money', label: 'Price asked', check: { min: 1000 } })]);
  expect(screen.getByTestId('place-title').textContent).toBe('Price asked');
  write('900');
  fireEvent.click(screen.getByTestId('fill'));
  expect(screen.getByTestId('place-wrong').textContent).toBe('Please write $1,000.00 or more.');
  expect(sent).toEqual([]);
  write('1500');
  fireEvent.click(screen.getByTestId('fill'));
  expect(sent).toEqual([{ markId: 'm', text: '1500' }]);
});

test('a group of choices is one question with its own words on the buttons', () => {
  const sent = show([
    ownMark('gas', { kind: 'choice', group: 'g', label: 'Gas' }),
    ownMark('wood', { kind: 'choice', group: 'g', label: 'Wood' }),
  ]);
  expect(screen.getByTestId('choose-0').textContent).toBe('Gas');
  fireEvent.click(screen.getByTestId('choose-1'));
  expect(sent).toEqual([{ markId: 'wood', text: 'yes' }]);
});

test('a list offers its words, a tick says what it is about, and what may stay empty can be skipped', () => {
  const sent = show([ownMark('l', { kind: 'list', label: 'Water', options: ['Own well', 'Town'] })]);
  fireEvent.click(screen.getByTestId('choice-Town'));
  fireEvent.click(screen.getByTestId('fill'));
  expect(sent).toEqual([{ markId: 'l', text: 'Town' }]);
});

test('what may stay empty says so and can be passed over', () => {
  const onSkip = jest.fn();
  show([ownMark('t', { kind: 'tick', label: 'Smoke alarms', required: false })], { required: false, onSkip });
  expect(screen.getByText('You may leave this empty.')).toBeTruthy();
  expect(screen.getByTestId('place-title').textContent).toBe('Check: Smoke alarms');
  fireEvent.click(screen.getByTestId('skip'));
  expect(onSkip).toHaveBeenCalledTimes(1);
});

test('what was written stands in the field to be changed', () => {
  show([ownMark('m', { label: 'Left out', done: true })], {
    fills: [
      {
        markId: 'm',
        documentId: 'd',
        page: 1,
        kind: 'text',
        partyId: 'me',
        shows: { form: 'text', text: 'The stove' },
      },
    ],
  });
  expect((screen.getByTestId('place-text') as HTMLInputElement).value).toBe('The stove');
});
