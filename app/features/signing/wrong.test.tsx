import { render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { SigningView } from '@gatepath/contract';
import es from '@gatepath/core/words/es.json';
import { ENGLISH, say, type Words } from '@gatepath/core/words';
import { ApiError } from '../../api/client';
import { makeTheme } from '../../ui/theme';
import { ChangedStep } from './changed-step';
import { InLanguage, type Say } from './say';
import { wordsOfError, Wrong } from './wrong';

const SPANISH: Words = { language: 'es', messages: es };
const tell: Say = (key, params) => say(ENGLISH, key, params);
const problem = (status: number, code: ApiError['code'], detail: string) => new ApiError(status, code, detail);

test.each([
  [problem(0, 'offline', 'x'), 'The server cannot be reached. Check your connection.'],
  [problem(429, 'too-many', 'x'), 'Too many tries in a short time.'],
  [problem(500, 'internal', 'x'), 'Something went wrong. Please load the page again;'],
  [problem(422, 'no-picture', 'No hay escritura.'), 'No hay escritura.'],
  [new TypeError('x is undefined'), 'Something went wrong.'],
])('%s is told as a client can use it', (error, words) => expect(wordsOfError(tell, error)).toContain(words));

test('what the server does not word for one client is said in the client’s language, and so is the page’s', () => {
  const { unmount } = render(
    <PaperProvider theme={makeTheme(false)}>
      <InLanguage words={SPANISH}>
        <Wrong error={problem(0, 'offline', 'The server cannot be reached.')} retry={() => undefined} />
      </InLanguage>
    </PaperProvider>,
  );
  expect(screen.getByTestId('trouble').textContent).toContain('No se puede llegar al servidor');
  expect(screen.getByText('Intentar de nuevo')).toBeTruthy();
  expect(document.documentElement.lang).toBe('es');
  unmount();
  expect(document.documentElement.lang).toBe('en');
});

test('a change after signing is told before the first touch, with its words and where it is', () => {
  const redline = { id: 'r', documentId: 'd', page: 3, kind: 'strike', rects: [], text: 'the shed', moved: [] };
  const view = {
    me: { id: 'w', name: 'Wren Alder', side: 'seller', ordinal: 1, act: 'sign', ink: 0 },
    documents: [
      { id: 'd', name: 'Disclosure', pages: [1, 2, 3].map(() => ({ width: 612, height: 792 })), sealed: false },
    ],
    changes: [
      { redline, open: true },
      { redline: { ...redline, id: 'old', text: 'initialled before' }, open: false },
    ],
  } as unknown as SigningView;
  render(
    <PaperProvider theme={makeTheme(false)}>
      <ChangedStep token="t" signing={{} as never} view={view} onBack={jest.fn()} onSide={jest.fn()} onGo={jest.fn()} />
    </PaperProvider>,
  );
  expect(screen.getByText(/One change was made after you signed/)).toBeTruthy();
  expect(screen.getByText('Struck: “the shed”')).toBeTruthy();
  expect(screen.getByText('Page 3 of 3, Disclosure')).toBeTruthy();
  expect(screen.queryByText(/initialled before/)).toBeNull();
});
