/** Tests the list of changes between two editions of a form or kit: every change is named, and nothing else. */
import { emptyDraft, NOBODY } from '../packet';
import type { Draft, InitialsRule } from '../packet';
import { mark } from '../test/support';
import { changesBetween, newSlot } from '.';

const wren = newSlot('one', 'seller', 1, 'wren', 0);
const callum = newSlot('one', 'seller', 2, 'callum', 1);
const rule: InitialsRule = {
  id: 'r',
  documentId: 'a',
  partyIds: ['wren'],
  anchor: { fx: 0, fy: 1 },
  except: [],
  moved: [],
};
const FORM: Draft = {
  ...emptyDraft('Disclosure'),
  parties: [wren, callum],
  documents: [{ id: 'a' }, { id: 'b' }],
  marks: [mark('s', 'wren', 'signature'), mark('t', 'callum', 'signature')],
  rules: [rule],
  gates: [{ id: 'g', partyIds: ['wren', 'callum'] }],
};
const changes = (after: Partial<Draft>, before: Partial<Draft> = {}) =>
  changesBetween({ ...FORM, ...before }, { ...FORM, ...after }, (id) => `Paper ${id}`);

test.each<[string, Partial<Draft>, string]>([
  ['subject', { subject: 'Please read' }, 'Subject or message changed.'],
  ['message', { message: 'Hello' }, 'Subject or message changed.'],
  ['last day', { schedule: { ...FORM.schedule, lastDay: '2026-12-24' } }, 'Nudges or the last day changed.'],
  ['reading along', { readAlong: true }, 'Who may read along or hand over changed.'],
  ['handing over', { handOver: true }, 'Who may read along or hand over changed.'],
  ['reports', { reports: ['odile'] }, 'Who is notified changed.'],
  ['one at a gate', { gates: [{ id: 'g', partyIds: ['wren'] }] }, 'The order changed.'],
  ['any of a gate', { gates: [{ ...FORM.gates[0]!, need: 'any' }] }, 'The order changed.'],
  ['what a party does', { parties: [{ ...wren, act: 'approve' }, callum] }, 'Seller 1 has a different act.'],
  ['a note', { parties: [{ ...wren, note: 'x' }, callum] }, 'Seller 1 has a different act.'],
  ['a language', { parties: [wren, { ...callum, language: 'es' }] }, 'Seller 2 has a different act.'],
  ['a mark’s page', { marks: [{ ...FORM.marks[0]!, page: 2 }, FORM.marks[1]!] }, '1 mark moved.'],
  [
    'a mark’s person',
    { marks: FORM.marks.map((m) => ({ ...m, partyId: NOBODY })) },
    '2 marks changed in what they ask.',
  ],
])('%s', (_what, after, sentence) => {
  expect(changes(after)).toEqual([sentence]);
});

test('a missing setting equals one that is off; ids, names and inks are not compared', () => {
  expect(changes({ readAlong: false })).toEqual([]);
  expect(changes({ readAlong: false }, { readAlong: false })).toEqual([]);
  expect(changes({}, { readAlong: true })).toEqual(['Who may read along or hand over changed.']);
  expect(changes({ reports: [] })).toEqual([]);
  expect(changes({ gates: [{ id: 'other', partyIds: ['wren', 'callum'] }] })).toEqual([]);
  expect(changes({ parties: [{ ...wren, name: 'Seller', ink: 3 }, callum] })).toEqual([]);
});

test('added, removed and reordered papers are named', () => {
  const papers = (...ids: string[]): Partial<Draft> => ({ documents: ids.map((id) => ({ id })) });
  expect(changes(papers('a', 'b', 'c', 'd'))).toEqual(['Paper c and Paper d were added.']);
  expect(changes(papers('a'))).toEqual(['Paper b was removed.']);
  expect(changes(papers('b', 'a'))).toEqual(['The order of the papers changed.']);
  expect(changes(papers('b', 'c'))).toEqual(['Paper c was added.', 'Paper a was removed.']);
  expect(changes(papers('a', 'c'))).toEqual(['Paper c was added.', 'Paper b was removed.']);
  // Replacing the only paper of a form is a changed paper, not one added and one removed.
  expect(changes(papers('c'), papers('a'))).toEqual(['The paper was changed.']);
  expect(changes(papers('c'), papers('a', 'b'))).toEqual(['Paper c was added.', 'Paper a and Paper b were removed.']);
  expect(changes(papers('b', 'c'), papers('a'))).toEqual(['Paper b and Paper c were added.', 'Paper a was removed.']);
});

test('a removed role is named once: its initials are not listed as well', () => {
  expect(changes({ parties: [callum], marks: [FORM.marks[1]!], rules: [] })).toEqual([
    'No longer there: Seller 1.',
    '1 mark taken away.',
  ]);
  expect(changes({ parties: [] })).toContain('No longer there: Seller 1 and Seller 2.');
});

test('initials on every page are described in singular or plural', () => {
  const by = (...partyIds: string[]): Partial<Draft> => ({ rules: [{ ...rule, partyIds }] });
  expect(changes(by('wren', 'callum'))).toEqual(['Seller 2 initials every page now.']);
  expect(changes(by('wren', 'callum'), { rules: [] })).toEqual(['Seller 1 and Seller 2 initial every page now.']);
  expect(changes(by('callum'))).toEqual([
    'Seller 2 initials every page now.',
    'Seller 1 no longer initials every page.',
  ]);
  expect(changes({ rules: [] }, by('wren', 'callum'))).toEqual(['Seller 1 and Seller 2 no longer initial every page.']);
});

test('added, removed, moved and changed marks are counted; a new paper alone changes no mark', () => {
  const [s, t] = FORM.marks as [Draft['marks'][number], Draft['marks'][number]];
  expect(changes({ marks: [s, t, { ...t, id: 'u' }, { ...t, id: 'v' }] })).toEqual(['2 marks more.']);
  expect(changes({ marks: [] })).toEqual(['2 marks taken away.']);
  expect(changes({ marks: [{ ...s, documentId: 'new', placeId: 'new.1.0' }, t] })).toEqual([]);
  expect(changes({ marks: [{ ...s, required: false, rect: { ...s.rect, x: 3 } }, t] })).toEqual([
    '1 mark moved.',
    '1 mark changed in what they ask.',
  ]);
});
