import type { DocumentView } from '@gatepath/contract';
import { earlierOf } from './earlier';
import { signatureWords } from './paper-signatures';

const doc = (id: string, more: Partial<DocumentView> = {}) =>
  ({
    id,
    status: 'ready',
    type: 'lease',
    replacedBy: null,
    unsigned: false,
    createdAt: id,
    madeFrom: [] as string[],
    ...more,
  }) as DocumentView;

describe('the version before a paper', () => {
  test('is the one whose place it took, before any of its type', () => {
    const [a, b, c] = [doc('1', { replacedBy: '3' }), doc('2'), doc('3')];
    expect(earlierOf(c, [a, b, c])).toEqual({ doc: a, replaced: true });
    // Of its own pages it is no version.
    const made = doc('3', { madeFrom: ['1'], type: 'other' });
    expect(earlierOf(made, [a, b, made])).toBeNull();
  });
  test('is else the newest older one of its type that stands', () => {
    const all = [doc('1'), doc('2'), doc('3', { type: 'notice' }), doc('4', { unsigned: true }), doc('5')];
    expect(earlierOf(all[4]!, all)).toEqual({ doc: all[1], replaced: false });
    expect(earlierOf(all[0]!, all)).toBeNull();
  });
  test('is none for papers of no type, and for one that is still read', () => {
    const [a, b] = [doc('1', { type: 'other' }), doc('2', { type: 'other' })];
    expect(earlierOf(b, [a, b])).toBeNull();
    expect(earlierOf(doc('3', { status: 'reading' }), [doc('1')])).toBeNull();
  });
});

test('a digital signature is told with who vouches for the name; of a broken one nobody does', () => {
  const one = { signer: 'Wren Alder', issuer: 'Northlock', selfMade: false, at: '2026-11-27T10:00:00.000Z' };
  expect(signatureWords({ ...one, state: 'holds', why: '' })).toMatch(
    /^Digitally signed by Wren Alder, \w+, Nov 27\. Valid\. Northlock confirms the name/,
  );
  expect(signatureWords({ ...one, at: null, state: 'broken', why: 'the file was changed after it was signed' })).toBe(
    'Digitally signed by Wren Alder. Not valid: the file was changed after it was signed.',
  );
  expect(signatureWords({ ...one, selfMade: true, state: 'unknown', why: '' })).toContain('No issuer confirms');
});
