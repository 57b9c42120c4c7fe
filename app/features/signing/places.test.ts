import { placesOf } from './places';
import type { OwnMark } from './use-signing';

const own = (id: string, more: Partial<OwnMark> = {}): OwnMark => ({
  id,
  documentId: 'd',
  page: 1,
  kind: 'text',
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
  automatic: false,
  ...more,
});

test('what fills itself is no place; the choices of a group are one', () => {
  const places = placesOf({
    marks: [
      own('a'),
      own('date', { automatic: true }),
      own('gas', { kind: 'choice', group: 'heat', required: false }),
      own('b', { required: false }),
      own('wood', { kind: 'choice', group: 'heat', done: true }),
    ],
  });
  expect(places.map((p) => [p.key, p.marks.length, p.required, p.done])).toEqual([
    ['a', 1, true, false],
    ['heat', 2, true, true],
    ['b', 1, false, false],
  ]);
});
