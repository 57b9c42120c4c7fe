/** Blanks that a deal fills. */
import type { PrintedPlace } from '../reading/types';
import { knownBlanks, type KnownDeal } from './index';

const deal: KnownDeal = {
  kind: 'sale',
  address: '26 Lock Hill',
  city: 'Tern Lock',
  facts: { price: 412_000 },
  dates: { closing: '2027-01-15' },
  parties: [
    { side: 'seller', ordinal: 1, name: 'Orla Byrne' },
    { side: 'seller', ordinal: 2, name: 'Dermot Byrne' },
    { side: 'buyer', ordinal: 1, name: 'Maren Aalto' },
  ],
};

type Asked = Partial<PrintedPlace> & { w?: number; decided?: true };

/** Returns what is known for the blanks of a page: `_` in a row is a blank, whose places are given in order. */
function filled(rows: string[], asked: Asked[], known: KnownDeal = deal) {
  const words: string[] = [];
  const print: PrintedPlace['rect'][] = [];
  const places: PrintedPlace[] = [];
  const open: boolean[] = [];
  rows.forEach((row, i) => {
    let x = 60;
    for (const text of row.split(' ')) {
      const { w = 120, decided, ...more } = (text === '_' && asked[places.length]) || {};
      const rect = { x, y: 60 + i * 16, w: text === '_' ? w : text.length * 5, h: 10 };
      x += rect.w + 3;
      if (text === '_') open.push(!decided);
      if (text === '_')
        places.push({
          kind: 'text',
          role: 'unknown',
          ordinal: null,
          label: '',
          source: 'print',
          confidence: 1,
          page: 1,
          rect,
          ...more,
        });
      else {
        words.push(text);
        print.push(rect);
      }
    }
  });
  return knownBlanks([{ words, print }], places, (n) => open[n] ?? false, known).map((b) => [b.field, b.value]);
}

test('amounts, days and the address go where the words before a blank ask for them', () => {
  const rows = [
    'Purchase price: $ _ . The late fee is $ _ .',
    'Closing takes place on _ . The offer expires on _ .',
    'for the property at _ .',
  ];
  expect(filled(rows, [{}, {}, { kind: 'date' }, { kind: 'date' }, {}])).toEqual([
    ['fact.price', '412,000'],
    ['date.closing', 'January 15, 2027'],
    ['address', '26 Lock Hill, Tern Lock'],
  ]);
});

test('a narrow blank gets the short way of writing it; a part of a day gets nothing', () => {
  const row = ['Closing takes place on _ .'];
  expect(filled(row, [{ kind: 'date', w: 60 }])).toEqual([['date.closing', '1/15/2027']]);
  expect(filled(row, [{ kind: 'date', w: 24 }])).toEqual([]);
  expect(filled(['for the property at _ .'], [{ w: 80 }])).toEqual([['address', '26 Lock Hill']]);
});

test('the day of a signature is never filled', () => {
  expect(filled(['Closing date: _'], [{ kind: 'date', signed: true }])).toEqual([]);
});

test('one blank for a side gets all of its people; several get one each, and none for nobody', () => {
  const seller = (ordinal: number | null): Asked => ({ kind: 'name', role: 'seller', ordinal });
  expect(filled(['_'], [seller(1)])).toEqual([['side.seller', 'Orla Byrne and Dermot Byrne']]);
  expect(filled(['_', '_', '_'], [seller(1), seller(2), seller(3)])).toEqual([
    ['side.seller', 'Orla Byrne'],
    ['side.seller', 'Dermot Byrne'],
  ]);
});

test('a blank is for one person also when the blank of the other one is decided already', () => {
  const seller = (ordinal: number, decided?: true): Asked => ({
    kind: 'name',
    role: 'seller',
    ordinal,
    ...(decided ? { decided } : {}),
  });
  expect(filled(['_', '_'], [seller(1), seller(2, true)])).toEqual([['side.seller', 'Orla Byrne']]);
});

test('what the deal does not know is named', () => {
  expect(filled(['Initial deposit: $ _ .', 'Tenant: _'], [{}, { kind: 'name', role: 'tenant', ordinal: 1 }])).toEqual([
    ['fact.earnest', null],
    ['side.tenant', null],
  ]);
});
