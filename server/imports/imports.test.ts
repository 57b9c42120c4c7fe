/** Tables of other programs, good and bad, as they come in; and lists as they go out. */
import { parse } from 'csv-parse/sync';
import ICAL from 'ical.js';
import type { ImportView } from '@gatepath/contract';
import { TestServer } from '../test/harness';

jest.setTimeout(180_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const bring = (
  tableKind: 'people' | 'deals',
  text: string | Uint8Array,
  query: { take?: 'none' | 'all' | 'good'; map?: string } = {},
) => server.post('importTable', { tableKind }, 'table.csv', typeof text === 'string' ? Buffer.from(text) : text, query);
const csv = async (list: 'people' | 'deals') => {
  const a = await server.call('csv', { params: { list } });
  return parse(a.raw.toString('utf8'), { bom: true, columns: true }) as Record<string, string>[];
};
const people = async () => (await csv('people')).length;

test('5,000 rows with 37 bad ones: none, or 4,963, as chosen; the bad ones are named with their reasons', async () => {
  const rows = Array.from({ length: 5_000 }, (_, i) =>
    i % 135 === 7
      ? `,nobody${i}@example.com,555-0100`
      : `Person ${i},person${i}@example.com,555-01${String(i % 100).padStart(2, '0')}`,
  );
  expect(rows.filter((r) => r.startsWith(',')).length).toBe(37);
  const table = ['Full name,E-mail,Mobile', ...rows].join('\r\n');
  const looked = (await bring('people', table)).body;
  expect([looked.map, looked.good, looked.bad, looked.taken]).toEqual([['name', 'email', 'phone'], 4_963, 37, null]);
  expect(looked.wrong).toHaveLength(37);
  expect(looked.wrong[0]).toEqual({ line: 9, why: ['Name: missing.'] });
  const before = await people();
  const refused = await bring('people', table, { take: 'all' });
  expect([refused.status, refused.problem.type, await people()]).toEqual([422, '/problems/rows-wrong', before]);
  // Nobody waits meanwhile.
  const taking = bring('people', table, { take: 'good' });
  expect((await server.ok('session')).member?.name).toBe('Odile Farrant');
  expect((await taking).body.taken).toEqual({ added: 4_963, known: 0 });
  expect(await people()).toBe(before + 4_963);
  // The same again adds nobody.
  expect((await bring('people', table, { take: 'good' })).body.taken).toEqual({ added: 0, known: 4_963 });
  const found = await server.ok('find', { query: { q: 'person 4321' } });
  expect(found.people[0]).toMatchObject({ title: 'Person 4321' });
});

test('deals come in with their people, facts and days, go out, and are known again', async () => {
  const table = [
    'Property;Type;Seller;Price;Closing date;Built',
    '"12 Weir Terrace";Sale;"Wren Alder <wren@example.com>; Callum Alder";"$412,000";11/30/2026;1972',
    '3 Mill Cut;Listing;Agnes Thorvald;298000;;',
  ].join('\n');
  const looked = (await bring('deals', table)).body;
  expect(looked.map).toEqual(['address', 'kind', 'side.seller', 'fact.price', 'date.closing', '']);
  const map = 'address,kind,side.seller,fact.price,date.closing,fact.year_built';
  expect((await bring('deals', table, { take: 'all', map })).body.taken).toEqual({ added: 2, known: 0 });
  await server.ctx.jobs.idle('rules');
  const [sale] = (await server.ok('deals', { query: { search: 'Weir Terrace' } })).items;
  const deal = await server.ok('deal', { params: { dealId: sale!.id } });
  expect(deal).toMatchObject({
    kind: 'sale',
    facts: { price: 412_000, year_built: 1972 },
    dates: { closing: '2026-11-30' },
  });
  expect(deal.parties.map((p) => [p.name, p.email, p.side, p.ordinal, p.personId !== null])).toEqual([
    ['Wren Alder', 'wren@example.com', 'seller', 1, true],
    ['Callum Alder', '', 'seller', 2, true],
  ]);
  // A house of 1972 needs a lead paint disclosure: the rules were asked.
  expect(deal.requirements.some((r) => r.paper === 'lead_paint')).toBe(true);
  const activity = await server.ok('dealActivity', { params: { dealId: deal.id }, query: {} });
  expect(activity.items.map((l) => l.sentence)).toContain('Odile Farrant imported the deal from a table.');
  const out = await server.call('csv', { params: { list: 'deals' } });
  const again = (await bring('deals', out.raw, { take: 'all' })).body;
  expect([again.bad, again.taken?.added]).toEqual([0, 0]);
});

test('cells that begin like a formula leave harmless, and come back as they were', async () => {
  const names = ['=HYPERLINK("x")', '+1 Alder', '-Alder', '@Alder', '\tAlder'];
  const table = ['Name,Email', ...names.map((n, i) => `"${n.replace(/"/g, '""')}",f${i}@example.com`)].join('\n');
  await bring('people', table, { take: 'all' });
  const raw = (await server.call('csv', { params: { list: 'people' } })).raw.toString('utf8');
  const cells = (parse(raw, { bom: true }) as string[][]).flat();
  expect(cells.filter((c) => /^[=+\-@\t\r]/.test(c))).toEqual([]);
  expect(cells).toContain(`'=HYPERLINK("x")`);
  expect((await bring('people', raw, { take: 'good' })).body.taken!.added).toBe(0);
});

test.each([
  ['a line of 4 MB', `Name\n${'a'.repeat(4 * 1024 * 1024)}\n`, 'longer than any row'],
  ['quotes that never close', `Name,Email\n"Wren,wren@example.com\nCallum,c@example.com\n`, 'never closed'],
  ['something after a quote', `Name\n"Wren" Alder\n`, 'after a closing quotation mark'],
  ['200 columns', `${Array.from({ length: 200 }, (_, i) => `c${i}`).join(',')}\n1\n`, '200 columns'],
  ['nothing', '', 'nothing in this table'],
  ['headings alone', 'Name,Email\n', 'no rows'],
  ['no text at all', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]), 'no table as text'],
  ['a card that never ends', 'BEGIN:VCARD\nFN:Wren\n', 'no whole card'],
])('%s is refused with a clear sentence, and nothing is kept', async (_name, table, says) => {
  const before = await people();
  const a = await bring('people', typeof table === 'string' ? table : new Uint8Array(table), { take: 'good' });
  expect([a.status, a.problem.type]).toEqual([422, '/problems/bad-table']);
  expect(a.problem.detail).toContain(says);
  expect(await people()).toBe(before);
});

test('a file that is too large is refused before it is read', async () => {
  const a = await bring('people', Buffer.alloc(6 * 1024 * 1024, 97));
  expect([a.status, a.problem.detail]).toEqual([422, expect.stringContaining('larger than 5 MB')]);
});

test('whatever encoding a program writes, names come in whole', async () => {
  const utf16 = Buffer.concat(
    [Buffer.from([0xff, 0xfe]), Buffer.from('Name\nZoë Ångström\n', 'utf16le')].map((b) => new Uint8Array(b)),
  );
  const western = Buffer.from('Name\nZo\u00eb Western\n', 'latin1');
  const samples: ImportView[] = [];
  for (const bytes of [utf16, western]) samples.push((await bring('people', new Uint8Array(bytes))).body);
  expect(samples.map((s) => s.sample[0])).toEqual([['Zoë Ångström'], ['Zoë Western']]);
});

test('cards come in without their pictures, and go out as others read them', async () => {
  const cards = [
    'BEGIN:VCARD',
    'VERSION:3.0',
    'N:Reyes;Tamsin;;;',
    'FN:Tamsin Reyes',
    'ORG:Reyes & Daughters;Sales',
    'TEL;TYPE=CELL:+1 555-0142',
    'item1.EMAIL;type=INTERNET:tamsin@example.com',
    `PHOTO;ENCODING=b;TYPE=JPEG:${'A'.repeat(200_000)}`,
    ` ${'B'.repeat(100)}`,
    'END:VCARD',
    'BEGIN:VCARD',
    'VERSION:4.0',
    'N:Vale;Edmund;;;',
    'FN:Edmund Vale',
    'TEL;VALUE=uri:tel:+1-555-0143',
    'END:VCARD',
    'BEGIN:VCARD',
    'BEGIN:VCARD',
    'FN;;;:::broken',
    'END:VCARD',
  ].join('\r\n');
  const looked = (await bring('people', cards)).body;
  expect(looked.sample.slice(0, 2)).toEqual([
    ['Tamsin Reyes', 'tamsin@example.com', '+1 555-0142', 'Reyes & Daughters, Sales'],
    ['Edmund Vale', '', '+1-555-0143', ''],
  ]);
  expect((await bring('people', cards, { take: 'good' })).body.taken!.added).toBeGreaterThanOrEqual(2);
  const [tamsin] = (await server.ok('people', { query: { search: 'Tamsin' } })).items;
  const one = await server.call('personCard', { params: { personId: tamsin!.id } });
  const card = ICAL.Component.fromString(one.raw.toString('utf8'));
  expect([
    card.getFirstPropertyValue('version'),
    card.getFirstPropertyValue('fn'),
    card.getFirstPropertyValue('n'),
  ]).toEqual(['4.0', 'Tamsin Reyes', ['Reyes', 'Tamsin', '', '', '']]);
  const all = (await server.call('cards')).raw.toString('utf8');
  const read = (ICAL.parse(all) as unknown[][]).length;
  expect(read).toBe(await people());
  // Lines are folded as the format wants it.
  expect(Math.max(...all.split('\r\n').map((l) => Buffer.byteLength(l)))).toBeLessThanOrEqual(76);
});

test('every list goes out, in the same form', async () => {
  for (const list of ['packets', 'messages', 'papers', 'weeks', 'waits', 'hold-ups', 'through'] as const) {
    const a = await server.call('csv', { params: { list } });
    expect([list, a.status, a.raw.subarray(0, 3).toString('hex')]).toEqual([list, 200, 'efbbbf']);
  }
  expect((await server.call('csv', { params: { list: 'passwords' as never } })).status).toBe(404);
});
