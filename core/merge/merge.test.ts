import { party } from '../test/support';
import { mergeTags, tagValues } from './index';

const facts = { address: '14 Lantern Row', city: 'Tern Lock', price: '', closing: 'Dec 1, 2026' };
const values = tagValues(facts, [
  party('callum', { ordinal: 2, name: 'Callum Alder' }),
  party('wren', { ordinal: 1, name: 'Wren Alder' }),
  party('theo', { side: 'buyer_broker', name: 'Theo Vane' }),
]);

test('tags become what the deal knows', () => {
  expect(mergeTags('{address}, {City}: {sellers} sell on {closing day}', values)).toEqual({
    text: '14 Lantern Row, Tern Lock: Wren Alder and Callum Alder sell on Dec 1, 2026',
    missing: [],
  });
  expect(mergeTags("{seller 2} and {buyer's broker 1}", values).text).toBe('Callum Alder and Theo Vane');
});

test('a tag without a value is named and stays', () => {
  expect(mergeTags('Price {price}, buyer {buyer 1}', values)).toEqual({
    text: 'Price {price}, buyer {buyer 1}',
    missing: ['price', 'buyer 1'],
  });
});

test('curly brackets that hold no tag are left alone when closed over lines', () => {
  expect(mergeTags('{\n}', values)).toEqual({ text: '{\n}', missing: [] });
});
