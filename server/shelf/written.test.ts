/** Forms written here: set the same twice, for the people of a deal, with what is not known named and filled in. */
import type { PacketView, ShelfItemView } from '@gatepath/contract';
import type { DraftEdit } from '@gatepath/core/packet';
import { newSlot } from '@gatepath/core/shelf';
import { newId } from '../ids';
import { judged, sound, textOf } from '../test/judges';
import { Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
let form: ShelfItemView;
let kit: ShelfItemView;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const t = (text: string) => ({ type: 'text', text });
const tag = (key: string) => ({ type: 'tag', attrs: { key } });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const cell = (...content: object[]) => ({ type: 'tableCell', content: [p(...content)] });
const HOSTILE = '<script>alert(1)</script> {{constructor}} ${process.exit()} {address} {% raw %}';

const docOf = (landlord: string, tenants: string) => ({
  type: 'doc',
  content: [
    { type: 'heading', attrs: { level: 1 }, content: [t('House rules')] },
    p(t('For '), tag('address'), t(', rented by '), tag('people.tenant'), t(' from '), tag('date.move_in'), t('.')),
    {
      type: 'table',
      content: [
        { type: 'tableRow', content: [cell(t('Rent a month')), cell(tag('rent'))] },
        { type: 'tableRow', content: [cell(t('Furnished')), cell(tag('furnished'))] },
      ],
    },
    {
      type: 'when',
      attrs: { key: 'pets', is: 'there' },
      content: [p(t('Pets are welcome; the deposit is '), tag('deposit'), t('.'))],
    },
    { type: 'when', attrs: { key: 'pets', is: 'not' }, content: [p(t('No pets live here.'))] },
    p(t(HOSTILE)),
    {
      type: 'each',
      attrs: { side: 'tenant' },
      content: [
        p(tag('each.name'), t(' has the keys: '), {
          type: 'place',
          attrs: { kind: 'initials', slot: tenants, label: 'Keys' },
        }),
      ],
    },
    { type: 'heading', attrs: { level: 2 }, content: [t('Signed')] },
    { type: 'signatures', attrs: { slots: [landlord, tenants], date: true } },
  ],
});

const tenancy = async (address: string, names: string[]) => {
  const deal = await way.server.ok('newDeal', {
    body: { kind: 'tenancy', forWhom: 'landlord', address, city: 'Tern Lock' },
  });
  const params = { dealId: deal.id };
  await way.server.ok('addParty', { params, body: { side: 'landlord', name: 'Odile Marsh', email: 'odile@m.test' } });
  for (const [i, name] of names.entries())
    await way.server.ok('addParty', { params, body: { side: 'tenant', name, email: `tenant${i}@example.com` } });
  return deal;
};
const use = (dealId: string, body: object = {}) =>
  way.server.call('useKit', { params: { dealId, shelfId: kit.id }, body });
const tryIt = (dealId: string, body: object = {}) =>
  way.server.ok('tryKit', { params: { dealId, shelfId: kit.id }, body });

test('a form is written: roles, text, its paper with the places that stand in it', async () => {
  form = await way.server.ok('newWritten', { body: { name: 'House rules' } });
  expect(form).toMatchObject({ what: 'form', edition: 0, slots: [], written: { version: 1 } });
  const params = { shelfId: form.id };
  const landlord = newSlot('one', 'landlord', 1, newId(), 0);
  const tenants = newSlot('every', 'tenant', 1, newId(), 1);
  const edits: DraftEdit[] = [landlord, tenants].map((item) => ({ op: 'put', list: 'parties', item }));
  edits.push({ op: 'put', list: 'gates', item: { id: 'g', partyIds: [landlord.id, tenants.id] } });
  await way.server.ok('editShelfItem', { params, body: { edits } });
  const text = { language: 'en', doc: docOf(landlord.id, tenants.id) };
  form = await way.server.ok('saveWritten', { params, body: { version: 1, text } });
  expect(form.draft.marks.map((m) => [m.kind, m.partyId === tenants.id ? 'T' : 'L']).sort()).toEqual([
    ['date_signed', 'L'],
    ['date_signed', 'T'],
    ['initials', 'T'],
    ['signature', 'L'],
    ['signature', 'T'],
  ]);
  // Whoever wrote on an older text is told, and keeps what they have.
  const late = await way.server.call('saveWritten', { params, body: { version: 1, text } });
  expect([late.status, late.problem.type]).toEqual([409, '/problems/changed-meanwhile']);
  // The same text is the same file.
  const sha = form.documents[0]!.sha256;
  form = await way.server.ok('saveWritten', { params, body: { version: form.written!.version, text } });
  expect(form.documents.map((d) => d.sha256)).toEqual([sha]);
});

test('initials at the foot of every page, put on the shelf, and in a kit', async () => {
  const params = { shelfId: form.id };
  const item = {
    id: 'every',
    documentId: form.documents[0]!.id,
    partyIds: form.draft.parties.map((x) => x.id),
    anchor: { fx: 1, fy: 1 },
    except: [],
    moved: [],
  };
  await way.server.ok('editShelfItem', { params, body: { edits: [{ op: 'put', list: 'rules', item }] } });
  // The rule goes along to a paper that is set anew.
  const now = await way.server.ok('shelfItem', { params });
  form = await way.server.ok('saveWritten', {
    params,
    body: { version: now.written!.version, text: now.written!.text },
  });
  expect(form.draft.rules.map((r) => r.documentId)).toEqual([form.documents[0]!.id]);
  await way.server.ctx.jobs.idle('read');
  form = await way.server.ok('putOnShelf', { params, body: { version: form.version } });
  kit = await way.server.ok('newKit', { body: { name: 'Moving in', formIds: [form.id] } });
  kit = await way.server.ok('putOnShelf', { params: { shelfId: kit.id }, body: { version: kit.version } });
});

test('what a deal does not know is named, and filled in for this packet or for the deal', async () => {
  const deal = await tenancy('1 Cooper’s Wharf', ['Priya Sallow', 'Callum Reed', 'Ines Moor']);
  const trial = await tryIt(deal.id);
  expect(trial.unknown.map((u) => u.key).sort()).toEqual(['date.move_in', 'furnished', 'pets', 'rent']);
  expect(trial.findings.filter((f) => f.severity === 'stops').map((f) => f.sentence)).toContain(
    'Rent a month is not known, and a paper needs it. Fill it in here, or in the deal.',
  );
  const no = await use(deal.id, { send: true, despiteWarnings: true });
  expect([no.status, no.problem.type]).toEqual([422, '/problems/gate-check']);
  const values = { rent: 1450, furnished: false, pets: true, 'date.move_in': '2027-02-01' };
  // What stops it stops it before the deal learns anything.
  const held = await use(deal.id, { values, saveValues: true, send: true, despiteWarnings: true });
  expect([held.status, held.problem.type]).toEqual([422, '/problems/gate-check']);
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).facts).toEqual({});
  // A condition that holds now asks for more.
  expect((await tryIt(deal.id, { values })).unknown.map((u) => u.key)).toEqual(['deposit']);
  const bad = await use(deal.id, { values: { rent: 'a lot' } });
  expect([bad.status, bad.problem.type]).toEqual([422, '/problems/bad-fact']);
  expect((await use(deal.id, { values: { 'person.tenant.1': 'Mallory' } })).problem.type).toBe('/problems/bad-fact');
  const all = { ...values, deposit: 2900.5 };
  const mine: PacketView = (await use(deal.id, { values: all })).body;
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).facts).toEqual({});
  const words = await textOf(
    (await way.server.call('documentFile', { params: { documentId: mine.documents[0]!.id } })).raw,
  );
  expect(words).toContain(
    'For 1 Cooper’s Wharf, rented by Priya Sallow, Callum Reed and Ines Moor from February 1, 2027.',
  );
  expect(words).toContain('Pets are welcome; the deposit is $2,900.50.');
  expect(words).not.toContain('No pets');
  expect(words).toMatch(/Rent a month\s+\$1,450/);
  expect(words).toMatch(/Furnished\s+no/);
  // Text stays text.
  expect(words.replace(/\s+/g, ' ')).toContain(HOSTILE);
  await use(deal.id, { values: all, saveValues: true, despiteWarnings: true });
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).facts).toMatchObject({
    rent: 1450,
    pets: true,
  });
  expect((await tryIt(deal.id)).unknown).toEqual([]);
});

test.each([1, 3, 10])('for %i tenants: everybody has places of their own, signs, and it is sealed', async (count) => {
  const names = Array.from({ length: count }, (_, i) => `Tenant ${'ABCDEFGHIJ'[i]}`);
  const deal = await tenancy(`${count} Weir Terrace`, names);
  const values = { rent: 1450, furnished: true, pets: false, 'date.move_in': '2027-02-01' };
  const trial = await tryIt(deal.id, { values });
  expect(trial.findings.filter((f) => f.severity === 'stops')).toEqual([]);
  expect(trial.people.map((x) => [x.signatures, x.beyond])).toEqual(Array(count + 1).fill([1, 0]));
  const sent = await use(deal.id, { values, send: true, despiteWarnings: true });
  const packet: PacketView = sent.body;
  expect(packet.status).toBe('at_gate');
  const pages = packet.documents[0]!.pages.length;
  // On every page; where the keys are initialled that is the one of the page.
  for (const x of trial.people.filter((y) => y.side === 'tenant')) expect(x.initials).toBe(pages);
  if (count > 3) return;
  for (const name of ['Odile Marsh', ...names]) await way.signAll(await way.server.tokenFor(packet.id, name), name);
  const [copy] = await way.sealed(packet.id);
  expect(await judged(copy!)).toEqual(sound(count + 2));
});

test('an edition tells what of the text is new; a copy can be written on', async () => {
  const params = { shelfId: form.id };
  const text = JSON.parse(JSON.stringify(form.written!.text));
  text.doc.content.splice(1, 0, p(t('The keys stay in the house.')));
  const saved = await way.server.ok('saveWritten', { params, body: { version: form.written!.version, text } });
  expect(saved.since).toEqual(['1 line of the text is new.']);
  const copy = await way.server.ok('copyShelfItem', { params });
  expect(copy.written?.text).toEqual(text);
  const again = await way.server.ok('saveWritten', { params: { shelfId: copy.id }, body: { version: 1, text } });
  expect(again.draft.marks).toHaveLength(5);
});

test.each<[string, unknown]>([
  ['a part nobody knows', { doc: { type: 'doc', content: [{ type: 'iframe', attrs: { src: 'x' } }] } }],
  ['no text at all', {}],
  ['too deep', { doc: nested(8) }],
  ['a NUL', { doc: { type: 'doc', content: [p(t('a\u0000b'))] } }],
  ['letters no face has', { doc: { type: 'doc', content: [p(t('\u{1F3E0}'))] } }],
  ['a table too wide', { doc: { type: 'doc', content: [table(13)] } }],
])('%s is refused with words, and nothing changes', async (_what, text) => {
  const params = { shelfId: form.id };
  const was = await way.server.ok('shelfItem', { params });
  const no = await way.server.call('saveWritten', { params, body: { version: was.written!.version, text } });
  expect([no.status, no.problem.type]).toEqual([422, '/problems/unfit-text']);
  expect((await way.server.ok('shelfItem', { params })).written).toEqual(was.written);
});

function nested(depth: number): unknown {
  let inner: unknown = p(t('deep'));
  for (let i = 0; i < depth; i++) inner = { type: 'bulletList', content: [{ type: 'listItem', content: [inner] }] };
  return { type: 'doc', content: [inner] };
}
function table(columns: number): unknown {
  return {
    type: 'table',
    content: [{ type: 'tableRow', content: Array.from({ length: columns }, () => cell(t('x'))) }],
  };
}
