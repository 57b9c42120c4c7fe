/** Tests the summary of changes between two texts of a form. */
import { textChanges, writtenFrom } from './index';

const t = (text: string) => ({ type: 'text', text });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const text = (...content: object[]) => writtenFrom({ doc: { type: 'doc', content } });
const changes = (before: object[], after: object[]) => textChanges(text(...before), text(...after));

test('new and removed lines are counted in singular and plural', () => {
  const [a, b, c] = [p(t('a')), p(t('b')), p(t('c'))];
  expect(changes([a], [a, b])).toEqual(['1 line of the text is new.']);
  expect(changes([a], [a, b, c])).toEqual(['2 lines of the text are new.']);
  expect(changes([a, b], [a])).toEqual(['1 line of it before is gone.']);
  expect(changes([a, b, c], [a])).toEqual(['2 lines of it before are gone.']);
  expect(changes([a], [b])).toEqual(['1 line of the text is new.', '1 line of it before is gone.']);
  expect(changes([a, a], [a])).toEqual(['1 line of it before is gone.']);
});

test('a new order, page break or blank line only changes the layout', () => {
  const [a, b] = [p(t('a')), p(t('b'))];
  expect(changes([a, b], [b, a])).toEqual(['The text is laid out differently.']);
  expect(changes([a], [a, { type: 'pageBreak' }])).toEqual(['The text is laid out differently.']);
  // A blank line does not count as a new line.
  expect(changes([a], [a, p()])).toEqual(['The text is laid out differently.']);
});

const tag = (key: string) => p({ type: 'tag', attrs: { key } });
const list = (words: string) => ({
  type: 'bulletList',
  content: [
    { type: 'listItem', content: [p(t('same'))] },
    { type: 'listItem', content: [p(t(words))] },
  ],
});
const table = (words: string) => ({
  type: 'table',
  content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [p(t(words))] }] }],
});
const when = (key: string, words: string) => ({
  type: 'when',
  attrs: { key, is: 'there' },
  content: [p(t(words))],
});
const each = (side: string, words: string) => ({ type: 'each', attrs: { side }, content: [p(t(words))] });
test.each<[string, object, object]>([
  ['a heading', { type: 'heading', attrs: { level: 1 }, content: [t('a')] }, p(t('b'))],
  ['a tag', tag('rent'), tag('deposit')],
  ['a break in a line', p(t('a'), { type: 'hardBreak' }, t('b')), p(t('ab'))],
  ['an item of a list', list('a'), list('b')],
  ['a cell of a table', table('a'), table('b')],
  ['what a condition asks about', when('pets', 'a'), when('water', 'a')],
  ['what stands under a condition', when('pets', 'a'), when('pets', 'b')],
  ['for whom a part is repeated', each('tenant', 'a'), each('landlord', 'a')],
  ['what is repeated', each('tenant', 'a'), each('tenant', 'b')],
  ['who signs', { type: 'signatures', attrs: { slots: ['L'] } }, { type: 'signatures', attrs: { slots: ['L', 'T'] } }],
])('a change of %s counts as a changed line', (_what, before, after) => {
  expect(changes([before], [after])).toEqual(['1 line of the text is new.', '1 line of it before is gone.']);
  expect(changes([before], [before])).toEqual([]);
});

test('adding or removing a whole text lists no lines', () => {
  expect(textChanges(null, text(p(t('a'))))).toEqual([]);
  expect(textChanges(text(p(t('a'))), null)).toEqual([]);
});
