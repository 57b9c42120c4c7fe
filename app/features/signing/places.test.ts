import { signingPlaces } from './places';
import { ownMark as own } from '../../test/own-mark';

test('what fills itself is no place; the choices of a group are one', () => {
  const places = signingPlaces({
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
