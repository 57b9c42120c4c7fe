/** What is said of a paper that held more than its pages. */
import { screen } from '@testing-library/react';
import type { DocumentView, LeftOut } from '@gatepath/contract';
import { show } from '../../test/office';
import { LeftOutNote, leftOutWords } from './left-out';

const doc = (leftOut: LeftOut[]) => ({ id: 'd', name: 'Offer', leftOut }) as DocumentView;

test('what was left out is told in words, one or many', () => {
  expect(leftOutWords([])).toBeNull();
  expect(leftOutWords([{ what: 'signatures', n: 2 }])).toBeNull();
  expect(
    leftOutWords([
      { what: 'scripts', n: 1 },
      { what: 'attachments', n: 2 },
      { what: 'layers', n: 1 },
    ]),
  ).toBe('Left out of what is shown and signed: 1 script, 2 attached files and 1 hidden layer.');
});

test('a plain paper says nothing; one with signatures says that they hold for the original only', () => {
  show(<LeftOutNote doc={doc([])} />);
  expect(screen.queryByTestId('left-out')).toBeNull();
  show(<LeftOutNote doc={doc([{ what: 'signatures', n: 1 }])} />);
  expect(screen.getByTestId('left-out').textContent).toContain('not for the copy that is signed here');
  expect(screen.getByText('The file as it came')).toBeTruthy();
});
