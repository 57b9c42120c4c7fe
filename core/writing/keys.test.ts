/** Which tags a text asks for. */
import { keysIn, isOfPaper, tagDefs } from './index';
import type { Block, Inline } from './types';

const tag = (key: string): Inline => ({ type: 'tag', attrs: { key } });
const p = (...content: Inline[]): Block => ({ type: 'paragraph', content });

test('tags are found wherever they stand, conditions among them, each once and in their order', () => {
  const content: Block[] = [
    { type: 'heading', attrs: { level: 1 }, content: [tag('address')] },
    { type: 'bulletList', content: [{ type: 'listItem', content: [p(tag('paper.from'), tag('address'))] }] },
    {
      type: 'table',
      content: [
        { type: 'tableRow', content: [{ type: 'tableCell', attrs: { colspan: 1 }, content: [p(tag('rent'))] }] },
      ],
    },
    { type: 'when', attrs: { key: 'pets', is: 'there', value: '' }, content: [p(tag('deposit'))] },
    { type: 'each', attrs: { side: 'tenant' }, content: [p(tag('each.name'), tag('paper.new_rent'))] },
    { type: 'pageBreak' },
    { type: 'signatures', attrs: { slots: ['t'], date: true } },
    p({ type: 'text', text: '{city}' }),
  ];
  const keys = keysIn({ language: 'en', doc: { type: 'doc', content } });
  // Text is never looked through for tags, and whoever is repeated is no tag of the deal's.
  expect(keys).toEqual(['address', 'paper.from', 'rent', 'pets', 'deposit', 'paper.new_rent']);
  expect(keys.filter(isOfPaper)).toEqual(['paper.from', 'paper.new_rent']);
});

test('what a paper says anew with each use is told apart from what a deal keeps', () => {
  const of = tagDefs().filter((t) => isOfPaper(t.key));
  expect(of.every((t) => t.from === 'paper' && t.key.startsWith('paper.'))).toBe(true);
  expect(tagDefs().filter((t) => t.from === 'paper')).toEqual(of);
});
