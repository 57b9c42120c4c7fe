/** Each rule by the lines of a form that need it; the compiler asks for one of every rule. */
import { scanPage } from './blanks';
import { judge, type Judged, type PaperContext } from './classify';
import { RULES, type RuleName } from './rules';
import { filled, Sheet } from '../test/sheet';
import type { Blank } from './blanks';

const PAPER: PaperContext = {
  owner: 'seller',
  broker: 'broker',
  asksInitials: false,
  speaksOfInitials: false,
  initialsBy: null,
  letters: new Map(),
  misnamed: new Map(),
};

/** Returns what each blank of a page is, and by which rule. */
function judged(sheet: Sheet, paper: Partial<PaperContext> = {}): { rule: RuleName; is: string }[] {
  const scan = scanPage(sheet.content);
  const soFar = new Map<Blank, Judged>();
  return scan.blanks.map((b) => {
    const { places, rule } = judge(scan, b, { ...PAPER, ...paper }, soFar);
    if (places[0]) soFar.set(b, places[0]);
    return { rule, is: places.map((p) => [p.kind, p.role?.role].filter(Boolean).join(' of ')).join(', ') };
  });
}

const line = (text: string, x = 60, y = 300) => filled().text(x, y, text);
/** Returns a table of two columns: heads, then a row, then the words in its cells. */
const table = (heads: string[], ...rows: string[][]) => {
  const sheet = filled();
  [heads, ...rows].forEach((row, r) =>
    row.forEach((text, i) => {
      sheet.box(60 + i * 160, 300 + r * 24, 160, 24);
      if (text) sheet.text(64 + i * 160, 316 + r * 24, text);
    }),
  );
  return sheet;
};

const EXAMPLES: Record<RuleName, [form: Sheet, is: string, paper?: Partial<PaperContext>]> = {
  'box to tick': [line('\u2610 Smoke alarms'), 'checkbox'],
  'date in pieces': [line('Date: ____/____/______'), 'date'],
  'day of a month': [line('Dated this ______ day of'), 'date'],
  'day of, behind it': [line('planned for the ______ day of'), 'date'],
  'month after its day': [line('on that day of ____________'), 'date'],
  'year after its century': [line('on the ______ day of ____________, 20 ____'), 'date'],
  'day of a month in Spanish': [line('a ____ de ____________ de'), 'date'],
  'blank over two lines': [
    line(`${'the seller sells the parcel known as '.repeat(2)}${'_'.repeat(26)}`).text(60, 314, `${'_'.repeat(40)}.`),
    'text',
  ],
  'initials that go on': [line('Tenant initials: ( ____ ) ( ____ )'), 'initials of tenant'],
  'people joined by and': [line('Tenants: ____________________ and ____________________'), 'name of tenant'],
  'line parted by its captions': [
    filled().rule(60, 400, 300).text(60, 311, 'Seller signature', 9).text(330, 311, 'Date', 9),
    'signature of seller, date',
  ],
  'initials before their words': [line('( ______ ) Tenant initials'), 'initials of tenant'],
  'hands before a clause': [
    line('______ ______ The buyers waive the inspection.'),
    'initials of buyer',
    { speaksOfInitials: true },
  ],
  'initials of a row': [line('Initials: Seller ______ Buyer ______'), 'initials of seller'],
  'initial here': [line('The seller is to initial here if the house was never lived in: ______'), 'initials of seller'],
  'answer to tick': [line('____ Yes'), 'checkbox'],
  'clause to initial': [line('____ The pamphlet was read.'), 'initials', { asksInitials: true }],
  'clause to tick': [line('____ A home inspection is wanted.'), 'checkbox'],
  'sum of money': [line('with a deposit of $ ____________'), 'text'],
  'party of a preamble': [
    line('between ____________________, of Weir Lane (the \u201cLandlord\u201d), and'),
    'name of landlord',
  ],
  'day in a sentence': [line('The term begins on ____________'), 'date'],
  'day from which': [line('From ____________ until ____________'), 'date'],
  'day to which': [line('from ____________ to ____________ and no longer'), 'date'],
  'row of a person in a table': [table(['Asked', 'Tenant'], ['Date of birth', '']), 'text of tenant'],
  'cell that is filled': [filled().box(60, 300, 160, 40).text(64, 312, 'Kettle').box(220, 300, 160, 40), ''],
  'hand with its role behind': [
    line('______________________________, seller   ____________, date'),
    'signature of seller',
  ],
  'hand and day on one line': [filled().rule(60, 300, 300).text(60, 311, 'Seller / date', 9), 'signature of seller'],
  'who speaks': [line('I, ______________________________, agree to the sale'), 'name'],
  'named by its caption': [line('Signature of buyer: ____________________'), 'signature of buyer'],
  'name of who is called so': [line('____________________ (landlord)'), 'name of landlord'],
  'witness or notary': [line('Witness: ____________________'), 'signature'],
  'X before a line': [line('For the trust X ____________________'), 'signature'],
  'about somebody': [line('Notes of the broker: ____________________'), 'text of broker'],
  'role as caption': [filled().rule(60, 300, 300).text(60, 311, 'Seller 1', 9), 'signature of seller'],
  'initials at the foot': [line('Seller ________', 60, 750), 'initials of seller'],
  'day in a table': [table(['Thing', 'Effective'], ['Kettle', '']), 'date'],
  'corner of a table': [table(['', 'Stays'], ['Stove', '']), ''],
  'line under a role': [filled().text(60, 250, 'SELLER', 10, true).rule(60, 260, 320), 'signature of seller'],
  'frame without words': [new Sheet().box(60, 300, 200, 24), 'text'],
  'frame behind words': [filled().text(60, 316, 'Paint of the door').box(170, 300, 200, 24), 'text'],
  'cell to fill': [table(['Thing', 'Count'], ['Kettle', '']), 'text'],
  'line across the page': [filled().text(60, 280, 'Remarks:').rule(60, 560, 300).rule(60, 560, 320), 'text'],
  'underscores that part the page': [line('_'.repeat(98)), ''],
  dots: [line('Parking: ................................'), 'text'],
  'line or brackets of nothing': [filled().rule(60, 300, 500), ''],
  'words to write': [line('Fixtures that stay: ____________________'), 'text'],
};

test.each(RULES.map((r) => r.name))('%s', (name) => {
  const [form, is, paper] = EXAMPLES[name];
  expect(judged(form, paper)).toContainEqual({ rule: name, is });
});

test('initials of a table go on under one head, and begin anew under the head of somebody else', () => {
  const of = (...heads: string[]) => {
    const sheet = filled();
    ['Room', ...heads].forEach((text, i) => {
      for (const y of [300, 324]) sheet.box(60 + i * 80, y, 80, 24);
      sheet.text(64 + i * 80, 316, text, 8);
    });
    return judged(sheet.text(64, 340, 'Hall')).map((j) => j.is);
  };
  expect(of('Tenant initials', 'Manager initials')).toEqual(['initials of tenant', 'initials of manager']);
  expect(of('Tenant initials', 'Tenant initials')).toEqual(['initials of tenant', 'initials of tenant']);
});

test('one line for the initials of several people is parted by the names under it, also if all are called the same', () => {
  const foot = (asked: string, ...names: string[]) => {
    const sheet = filled()
      .text(60, 700, asked)
      .rule(120, 120 + 90 * names.length, 700);
    names.forEach((name, i) => sheet.text(130 + 90 * i, 711, name, 8));
    return judged(sheet);
  };
  const parted = (is: string) => ({ rule: 'line parted by its captions', is });
  expect(foot('Initials:', 'Tenant 1', 'Tenant 2', 'Landlord')).toEqual([
    parted('initials of tenant, initials of tenant, initials of landlord'),
  ]);
  expect(foot('Initials:', 'Tenant', 'Tenant')).toEqual([parted('initials of tenant, initials of tenant')]);
  // Only initials are divided among the people named under a line; a date is one date.
  expect(foot('Date:', 'Tenant 1', 'Tenant 2').map((j) => j.rule)).not.toContain('line parted by its captions');
});
