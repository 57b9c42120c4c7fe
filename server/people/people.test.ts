/** The address book, and what finds people, deals, papers and packets by their words. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { TestServer } from '../test/harness';
import { termsOf } from '../find/service';

jest.setTimeout(120_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const person = (name: string, email: string, more: object = {}) => ({ side: 'seller' as const, name, email, ...more });
const find = (q: string) => server.ok('find', { query: { q } });
const book = async (search?: string) =>
  (await server.ok('people', { query: { limit: '100', ...(search ? { search } : {}) } })).items;
const look = (personId: string) => server.ok('person', { params: { personId } });

test('one person is in many deals; what is corrected is corrected in all that are open', async () => {
  const a = await server.deal('1 Mill Cut', [person('Nadia Brandt', 'nadia@example.com', { phone: '555-0101' })]);
  const b = await server.deal('2 Mill Cut', [person('nadia brandt', 'NADIA@example.com')]);
  const over = await server.deal('3 Mill Cut', [person('Nadia Brandt', 'nadia@example.com')]);
  await server.ok('setDeal', { params: { dealId: over.id }, body: { status: 'closed' } });
  const id = a.parties[0]!.personId!;
  expect(b.parties[0]!.personId).toBe(id);
  const nadia = await look(id);
  expect(nadia.deals.map((d) => d.address)).toEqual(['3 Mill Cut', '2 Mill Cut', '1 Mill Cut']);
  expect(nadia.phone).toBe('555-0101');
  await server.ok('setPerson', {
    params: { personId: id },
    body: { name: 'Nadia Brandt-Ruiz', email: 'nadia@example.com', phone: '555-0199', company: '' },
  });
  const names = async (dealId: string) => (await server.ok('deal', { params: { dealId } })).parties.map((p) => p.name);
  expect([await names(a.id), await names(b.id), await names(over.id)]).toEqual([
    ['Nadia Brandt-Ruiz'],
    ['Nadia Brandt-Ruiz'],
    ['Nadia Brandt'],
  ]);
  expect((await book('Brandt')).map((p) => [p.name, p.deals])).toEqual([['Nadia Brandt-Ruiz', 3]]);
});

test('spouses of one address stay two; who is named twice is made one, with all deals, and found once', async () => {
  const a = await server.deal('4 Mill Cut', [
    person('Ivo Castellan', 'castellans@example.com'),
    person('Ana Castellan', 'castellans@example.com'),
  ]);
  const b = await server.deal('5 Mill Cut', [person('Ivo Castellan', 'ivo@example.com')]);
  const [ivo, ana] = a.parties.map((p) => p.personId!) as [string, string];
  const twice = b.parties[0]!.personId!;
  expect(new Set([ivo, ana, twice]).size).toBe(3);
  expect((await look(ivo)).alike.map((p) => p.id).sort()).toEqual([ana, twice].sort());
  const one = await server.ok('mergePerson', { params: { personId: ivo }, body: { personId: twice } });
  expect(one.deals.map((d) => d.address)).toEqual(['5 Mill Cut', '4 Mill Cut']);
  // The old name leads on, and a new deal with it finds the one.
  expect((await look(twice)).id).toBe(ivo);
  const c = await server.deal('6 Mill Cut', [person('Ivo Castellan', 'ivo@example.com')]);
  expect(c.parties[0]!.personId).toBe(ivo);
  expect((await find('ivo cast')).people.map((p) => p.id)).toEqual([ivo]);
  // The address of the one that leads on may become theirs.
  const body = { name: 'Ivo Castellan', email: 'ivo@example.com', phone: null, company: '' };
  expect((await server.ok('setPerson', { params: { personId: ivo }, body })).email).toBe('ivo@example.com');
  const self = await server.call('mergePerson', { params: { personId: ivo }, body: { personId: twice } });
  expect(self.status).toBe(404);
  const taken = await server.call('setPerson', {
    params: { personId: ana },
    body: { name: 'Ivo Castellan', email: 'ivo@example.com' },
  });
  expect(taken.status).toBe(409);
});

test('who has no address yet takes that of the one they are', async () => {
  const a = await server.deal('8 Mill Cut', [person('Lena Fischer', '')]);
  const b = await server.deal('9 Mill Cut', [person('Lena Fischer', 'lena@example.com', { phone: '555-0107' })]);
  const [one, other] = [a, b].map((d) => d.parties[0]!.personId!) as [string, string];
  const lena = await server.ok('mergePerson', { params: { personId: one }, body: { personId: other } });
  expect([lena.email, lena.phone, lena.deals.length]).toEqual(['lena@example.com', '555-0107', 2]);
});

test('the book comes in pages by name, whatever is in it', async () => {
  await server.deal(
    '7 Mill Cut',
    Array.from({ length: 30 }, (_, i) => person(`Person ${String(i).padStart(2, '0')}`, `p${i}@example.com`)),
  );
  const seen: string[] = [];
  let after: string | undefined;
  do {
    const page = await server.ok('people', { query: { limit: '7', search: 'Person', ...(after ? { after } : {}) } });
    seen.push(...page.items.map((p) => p.name));
    after = page.next ?? undefined;
  } while (after);
  expect(seen).toEqual(Array.from({ length: 30 }, (_, i) => `Person ${String(i).padStart(2, '0')}`));
  expect(await book('%')).toEqual([]);
});

test('things are found by beginnings of words, by words inside papers, and with typing mistakes', async () => {
  const deal = await server.deal('14 Lantern Row', [person('Zoë Ångström', 'zoe@example.com')]);
  await server.ok('setDeal', { params: { dealId: deal.id }, body: { tags: ['canal side'] } });
  const pdf = await PDFDocument.create();
  pdf.addPage([612, 792]).drawText('The chimney was swept by a zeppelin mechanic.', {
    x: 72,
    y: 700,
    font: await pdf.embedFont(StandardFonts.Helvetica),
  });
  const doc = await server.uploadReady(deal.id, 'Chimney report.pdf', Buffer.from(await pdf.save()));
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Winter papers', documentIds: [doc.id] },
  });
  await server.ctx.jobs.idle('deal');
  expect((await find('lant')).deals.map((d) => d.title)).toEqual(['14 Lantern Row']);
  expect((await find('row 14')).deals.map((d) => d.title)).toEqual(['14 Lantern Row']);
  expect((await find('canal')).deals.map((d) => d.id)).toEqual([deal.id]);
  expect((await find('zoe ang')).people.map((p) => p.title)).toEqual(['Zoë Ångström']);
  expect((await find('zeppelin')).papers.map((p) => p.id)).toEqual([doc.id]);
  expect((await find('winter')).packets.map((p) => p.id)).toEqual([packet.id]);
  const wrong = await find('lantren row');
  expect([wrong.alike, wrong.deals.map((d) => d.title)]).toEqual([true, ['14 Lantern Row']]);
  expect((await find('Angstrom zoo')).people.map((p) => p.title)).toEqual(['Zoë Ångström']);
});

test('nothing somebody types makes it fall over, find everything, or wait', async () => {
  for (const q of ['', '%', '_', "'; drop table person; --", ':* & | !', '((((', '\\', 'a'.repeat(200), '🏠', '-']) {
    const found = await find(q);
    expect([q, [...found.deals, ...found.people, ...found.papers, ...found.packets].length]).toEqual([q, 0]);
  }
  expect((await server.call('find', { query: { q: 'a'.repeat(10_000) } })).status).toBe(422);
  expect(termsOf('one two three four five six seven eight nine')).toHaveLength(8);
});

test('what is gone is not found any more', async () => {
  const deal = await server.deal('99 Vanishing Way', []);
  expect((await find('vanishing')).deals).toHaveLength(1);
  await server.ok('deleteDeal', { params: { dealId: deal.id } });
  expect((await find('vanishing')).deals).toEqual([]);
});
