/** Forms and kits: a paper becomes a form, forms a kit, and the kit packets of deals with other people. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { PacketView, ShelfItemView } from '@gatepath/contract';
import { acceptEdits, canAccept, proposalsOf, type DraftEdit } from '@gatepath/core/packet';
import { unpackFacts } from '@gatepath/contract/facts';
import { listMembers } from '../firm/queries';
import { judged, sound } from '../test/judges';
import { onPostgres } from '../test/postgres';
import { Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
let form: ShelfItemView;
let kit: ShelfItemView;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

/** Returns a paper with signature lines for two sellers on its last page. */
async function sellersPaper(title: string, pages = 2): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([612, 792]);
    page.drawText(`${title}, page ${n}`, { x: 72, y: 730, size: 14, font });
    for (let y = 700; y > 400; y -= 16)
      page.drawText('The sellers say that what stands here is so, as far as they know it.', {
        x: 72,
        y,
        size: 10,
        font,
      });
    if (n < pages) continue;
    for (const [i, who] of ['Seller 1', 'Seller 2'].entries()) {
      const y = 320 - i * 60;
      page.drawLine({ start: { x: 72, y }, end: { x: 300, y }, thickness: 0.7 });
      page.drawText(`${who} signature`, { x: 72, y: y - 12, size: 9, font });
      page.drawLine({ start: { x: 340, y }, end: { x: 460, y }, thickness: 0.7 });
      page.drawText('Date', { x: 340, y: y - 12, size: 9, font });
    }
  }
  return doc.save();
}

/** Returns a form whose printed places are accepted, with initials of all on every page, put on the shelf. */
async function onShelf(title: string): Promise<ShelfItemView> {
  const made = await way.server.post('newForm', {}, `${title}.pdf`, await sellersPaper(title));
  const id = made.body.id;
  const look = () => way.server.ok('shelfItem', { params: { shelfId: id } });
  let item = await look();
  for (let n = 0; n < 500 && !item.slots.length; n++) {
    await new Promise((r) => setTimeout(r, 40));
    item = await look();
  }
  const paper = item.documents[0]!;
  const packed = await way.server.ok('documentFacts', { params: { documentId: paper.id } });
  const facts = unpackFacts(paper.id, paper.name, packed);
  const edits: DraftEdit[] = [
    ...acceptEdits(proposalsOf(item.draft, [facts]).filter(canAccept), item.draft.parties),
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'every',
        documentId: paper.id,
        partyIds: item.draft.parties.map((p) => p.id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    },
  ];
  const { version } = await way.server.ok('editShelfItem', { params: { shelfId: id }, body: { edits } });
  return way.server.ok('putOnShelf', { params: { shelfId: id }, body: { version } });
}

const shelved = async (name: string) =>
  (await way.server.ok('shelf', { query: { what: 'form' } })).items.find((i) => i.name === name)?.id;
const people = (count: number, more: { company?: string } = {}) =>
  Array.from({ length: count }, (_, i) => ({
    side: 'seller' as const,
    name: `Seller ${'ABCDEFG'[i]}`,
    email: `seller${i}@example.com`,
    ...more,
  }));
const use = (dealId: string, body: object = {}) =>
  way.server.call('useKit', { params: { dealId, shelfId: kit.id }, body });

test('a paper becomes a form with the roles its lines name, and is not to be used before it is on the shelf', async () => {
  const made = await way.server.post('newForm', {}, 'Draft form.pdf', await sellersPaper('Draft form'));
  expect(made.body).toMatchObject({ what: 'form', name: 'Draft form', edition: 0, changed: true });
  const no = await way.server.call('newKit', { body: { name: 'Too soon', formIds: [made.body.id] } });
  expect([no.status, no.problem.type]).toEqual([409, '/problems/not-on-shelf']);
  expect((await way.server.call('deleteShelfItem', { params: { shelfId: made.body.id } })).status).toBe(204);

  form = await onShelf('Seller disclosure');
  expect(form.slots.map((s) => [s.name, s.letters])).toEqual([
    ['Seller 1', 'S1'],
    ['Seller 2', 'S2'],
  ]);
  expect([form.edition, form.changed]).toEqual([1, false]);
  expect(form.draft.marks.filter((m) => m.kind === 'signature')).toHaveLength(2);
  // It is no deal's: nothing of it shows in a deal, and a packet cannot take it.
  const deal = await way.server.deal('1 Mill Cut', people(1));
  const packet = { params: { dealId: deal.id }, body: { name: 'P', documentIds: [form.documents[0]!.id] } };
  expect((await way.server.call('newPacket', packet)).problem.type).toBe('/problems/unknown-document');
});

test('what an edition changed is told, and what is prepared since', async () => {
  const params = { shelfId: (await onShelf('Water statement')).id };
  const item = await way.server.ok('shelfItem', { params });
  expect([item.editions.map((e) => e.changes), item.since]).toEqual([[[]], []]);
  const edits: DraftEdit[] = [{ op: 'drop', list: 'marks', id: item.draft.marks[0]!.id }];
  const { version } = await way.server.ok('editShelfItem', { params, body: { edits } });
  expect((await way.server.ok('shelfItem', { params })).since).toEqual(['1 mark taken away.']);
  const put = await way.server.ok('putOnShelf', { params, body: { version } });
  expect([put.editions.map((e) => [e.edition, e.changes]), put.since]).toEqual([
    [
      [2, ['1 mark taken away.']],
      [1, []],
    ],
    [],
  ]);
  await way.server.ok('setShelfItem', { params, body: { retired: true } });
});

test('two forms make a kit; it is used on a deal as it was put on the shelf, whatever is prepared since', async () => {
  const other = await onShelf('Lead paint disclosure');
  kit = await way.server.ok('newKit', { body: { name: 'Older home', formIds: [form.id, other.id] } });
  expect(kit.slots.map((s) => s.letters)).toEqual(['S1', 'S2']);
  const deal = await way.server.deal('2 Mill Cut', people(2));
  expect((await use(deal.id)).problem.type).toBe('/problems/not-on-shelf');
  kit = await way.server.ok('putOnShelf', { params: { shelfId: kit.id }, body: { version: kit.version } });
  const item = { ...form.draft.marks[0]!, label: 'changed since' };
  const edits: DraftEdit[] = [{ op: 'put', list: 'marks', item }];
  await way.server.ok('editShelfItem', { params: { shelfId: form.id }, body: { edits } });
  const { draft } = (await use(deal.id)).body;
  expect(draft.documents).toHaveLength(2);
  expect(draft.marks.some((m) => m.label === 'changed since')).toBe(false);
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).documents.map((d) => d.name)).toEqual([
    'Seller disclosure',
    'Lead paint disclosure',
  ]);
});

test.each([
  ['two sellers', 2, {}],
  ['five sellers', 5, {}],
  ['one seller who is a trust', 1, { company: 'Alder Family Trust' }],
])('%s: one act sends it, everybody signs, and it is executed and sealed', async (_who, count, more) => {
  const deal = await way.server.deal(`${count} Lantern Row`, []);
  for (const p of people(count, more)) await way.server.ok('addParty', { params: { dealId: deal.id }, body: p });
  const trial = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kit.id }, body: {} });
  expect(trial.findings.filter((f) => f.severity === 'stops')).toEqual([]);
  expect(trial.people.map((p) => [p.signatures, p.initials, p.beyond])).toEqual(
    Array.from({ length: count }, (_, i) => [2, 4, i >= 2 ? 2 : 0]),
  );
  const sent = await use(deal.id, { send: true, despiteWarnings: true });
  const packet: PacketView = sent.body;
  expect(packet.status).toBe('at_gate');
  for (const p of people(count)) await way.signAll(await way.server.tokenFor(packet.id, p.name), p.name);
  const copies = await way.sealed(packet.id);
  expect(copies).toHaveLength(2);
  // A seal for each, and the last one for the record.
  for (const copy of copies) expect(await judged(copy)).toEqual(sound(count + 1));
  const state = (await way.look(packet.id)).sent!;
  expect([state.ledger.done, state.ledger.total]).toEqual([state.ledger.total, state.ledger.total]);
});

test('who is missing is told before anything is kept, and warnings are answered knowingly', async () => {
  const deal = await way.server.deal('Nobody’s Row', []);
  const trial = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kit.id }, body: {} });
  expect(trial.slots.map((s) => s.empty)).toEqual(['nobody', 'nobody']);
  const no = await use(deal.id, { send: true, despiteWarnings: true });
  expect([no.status, no.problem.type]).toEqual([422, '/problems/gate-check']);
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).documents).toEqual([]);
});

test('what is locked in a kit is not changed by who uses it, neither at once nor later at the desk', async () => {
  const deal = await way.server.deal('3 Mill Cut', people(2));
  await way.server.ok('setShelfItem', { params: { shelfId: kit.id }, body: { locks: ['message', 'path'], lastIn: 7 } });
  const no = await use(deal.id, { subject: 'Sign this' });
  expect([no.status, no.problem.type]).toEqual([403, '/problems/locked-setting']);
  expect(no.problem.detail).toContain('Odile Farrant locked subject and message');
  const packet = (await use(deal.id, { name: 'Papers of the mill' })).body;
  expect(packet.draft.schedule.lastDay).toMatch(/^\d{4}-/);
  const edit = (edits: DraftEdit[]) =>
    way.server.call('editPacket', { params: { packetId: packet.id }, body: { edits } });
  expect((await edit([{ op: 'set', field: 'message', value: 'x' }])).status).toBe(403);
  expect((await edit([{ op: 'drop', list: 'gates', id: packet.draft.gates[0]!.id }])).status).toBe(403);
  expect((await edit([{ op: 'set', field: 'name', value: 'Other papers' }])).status).toBe(200);
  await way.server.ok('setShelfItem', { params: { shelfId: kit.id }, body: { locks: [], lastIn: null } });
});

test('the same kit used twice at once on a deal makes one packet, and the other is told', async () => {
  const deal = await way.server.deal('7 Mill Cut', people(2));
  const { uses } = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kit.id }, body: {} });
  const both = await Promise.all([use(deal.id, { uses }), use(deal.id, { uses })]);
  expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
  expect(both.find((r) => r.status === 409)?.problem.type).toBe('/problems/changed-meanwhile');
  // However slow the second one is: what it has seen is no longer so.
  expect((await use(deal.id, { uses })).status).toBe(409);
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).packets).toHaveLength(1);
});

test('what is locked holds when the packet is under way, and in a new version of it', async () => {
  const deal = await way.server.deal('8 Mill Cut', people(2));
  await way.server.ok('setShelfItem', { params: { shelfId: kit.id }, body: { locks: ['path', 'marks'] } });
  const sent: PacketView = (await use(deal.id, { send: true, despiteWarnings: true })).body;
  const params = { packetId: sent.id };
  const gates = sent.draft.gates.map((g) => ({ id: g.id, partyIds: [...g.partyIds].reverse() }));
  const no = await way.server.call('changePacket', { params, body: { type: 'set_path', gates } });
  expect([no.status, no.problem.type]).toEqual([403, '/problems/locked-setting']);
  const next = await way.server.ok('newVersion', { params, body: { reason: 'A new version' } });
  const edits: DraftEdit[] = [{ op: 'drop', list: 'gates', id: next.draft.gates[0]!.id }];
  expect((await way.server.call('editPacket', { params: { packetId: next.id }, body: { edits } })).status).toBe(403);
  await way.server.ok('setShelfItem', { params: { shelfId: kit.id }, body: { locks: [] } });
});

test('a form that was retired, and an edition past its last day, are told where they are used', async () => {
  const deal = await way.server.deal('4 Mill Cut', people(2));
  await way.server.ok('setShelfItem', { params: { shelfId: form.id }, body: { endsOn: '2020-01-31' } });
  const trial = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kit.id }, body: {} });
  expect(trial.findings[0]!.sentence).toContain('may be used until Fri, Jan 31, 2020, which has passed');
  expect((await use(deal.id, { send: true })).problem.type).toBe('/problems/warnings');
  // On the desk the gate check says so too, and only of the paper of that form.
  const draft: PacketView = (await use(deal.id)).body;
  expect(draft.documents.map((d) => d.formEnded)).toEqual(['2020-01-31', undefined]);
  const held = await way.server.call('sendPacket', {
    params: { packetId: draft.id },
    body: { version: draft.version },
  });
  expect(held.problem.detail).toContain('The form for “Seller disclosure” could be used until Fri, Jan 31, 2020');
  await way.server.ok('setShelfItem', { params: { shelfId: form.id }, body: { endsOn: null, retired: true } });
  expect((await use(deal.id)).problem.detail).toContain('was retired');
  const listed = async (retired: string) =>
    (await way.server.ok('shelf', { query: { what: 'form', retired } })).items.map((i) => i.name);
  expect([await listed('true'), await listed('false')]).toEqual([
    ['Seller disclosure', 'Water statement'],
    ['Lead paint disclosure'],
  ]);
  await way.server.ok('setShelfItem', { params: { shelfId: form.id }, body: { retired: false } });
  expect((await way.server.call('deleteShelfItem', { params: { shelfId: form.id } })).problem.type).toBe(
    '/problems/was-sent',
  );
});

test('a packet that went well becomes a kit: people turn into the places they stood in', async () => {
  const { packet } = await way.send(
    [
      { name: 'Wren Alder', email: 'wren@example.com' },
      { name: 'Callum Alder', email: 'callum@example.com' },
    ],
    [{ names: ['Wren'] }, { names: ['Callum'] }],
  );
  const kept = await way.server.ok('addToShelf', { body: { packetId: packet.id, name: 'As it went' } });
  expect(kept.slots.map((s) => s.name)).toEqual(['Seller 1', 'Seller 2']);
  expect(kept.gates).toHaveLength(2);
  expect(kept.forms).toEqual([expect.objectContaining({ edition: 1 })]);
  expect(JSON.stringify(kept)).not.toContain('Wren');
  await way.server.ok('putOnShelf', { params: { shelfId: kept.id }, body: { version: kept.version } });
  const deal = await way.server.deal('5 Mill Cut', people(3));
  const kits = (await way.server.ok('dealKits', { params: { dealId: deal.id } })).items;
  expect(kits.map((k) => [k.name, k.missing])).toEqual(expect.arrayContaining([['As it went', []]]));
  const made = await way.server.ok('useKit', { params: { dealId: deal.id, shelfId: kept.id }, body: {} });
  expect(made.draft.parties.map((p) => p.name)).toEqual(['Seller A', 'Seller B', 'Seller C']);
  expect(made.draft.gates.map((g) => g.partyIds.length)).toEqual([1, 2]);
  // Used once more, it says so.
  const again = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kept.id }, body: {} });
  expect([again.uses, again.findings[0]!.sentence]).toEqual([
    1,
    'This kit was used on this deal already: “As it went” is in draft.',
  ]);
  expect(
    made.draft.marks
      .filter((m) => m.kind === 'signature')
      .map((m) => m.partyId)
      .sort(),
  ).toEqual(made.draft.parties.map((p) => p.id).sort());
});

test('who may only use it sees it and makes packets of it, and changes nothing; to others it is not there', async () => {
  const { server } = way;
  const db = server.ctx.database.pool;
  const cookies: string[] = [];
  for (const name of ['Tobias Mercer', 'Ida Holm'])
    cookies.push((await server.member(name, `${name.split(' ')[0]!.toLowerCase()}@firm.example.com`)).cookie);
  const members = await listMembers(db);
  const tobias = members.find((m) => m.name === 'Tobias Mercer')!.id;
  const own = server.cookie;
  const as = async <T>(cookie: string, work: () => Promise<T>): Promise<T> => {
    server.cookie = cookie;
    try {
      return await work();
    } finally {
      server.cookie = own;
    }
  };
  const params = { shelfId: kit.id };
  await server.ok('setShelfItem', { params, body: { users: [tobias], makers: [] } });
  const deal = await server.deal('6 Mill Cut', people(2));
  const change = [
    () => server.call('editShelfItem', { params, body: { edits: [{ op: 'set', field: 'name', value: 'Mine' }] } }),
    () => server.call('setShelfItem', { params, body: { locks: [] } }),
    () => server.call('putOnShelf', { params, body: { version: 1 } }),
    () => server.call('deleteShelfItem', { params }),
    () => server.call('saveWritten', { params, body: { version: 1, text: { doc: { type: 'doc' } } } }),
  ];
  const look = [
    () => server.call('shelfItem', { params }),
    () => server.call('useKit', { params: { dealId: deal.id, ...params }, body: {} }),
    () => server.call('tryKit', { params: { dealId: deal.id, ...params }, body: {} }),
    () => server.call('copyShelfItem', { params }),
    () => server.call('shelfBundle', { params }),
  ];
  const statuses = (cookie: string, calls: (() => Promise<{ status: number }>)[]) =>
    as(cookie, async () => {
      const out: number[] = [];
      for (const c of calls) out.push((await c()).status);
      return out;
    });
  // A form is as closed as its kit: its paper too, to look at and to change.
  const secret = (await server.ok('copyShelfItem', { params: { shelfId: form.id } })).documents[0]!;
  const ofForm = { params: { shelfId: (await shelved('Seller disclosure (copy)'))! } };
  await server.ok('setShelfItem', { ...ofForm, body: { users: [], makers: [] } });
  const paper = [
    () => server.call('documentFacts', { params: { documentId: secret.id } }),
    () => server.call('documentFile', { params: { documentId: secret.id } }),
    () => server.call('documentPage', { params: { documentId: secret.id, page: 1 } }),
    () => server.call('setDocument', { params: { documentId: secret.id }, body: { name: 'Mine' } }),
  ];
  expect(await statuses(cookies[1]!, paper)).toEqual([404, 404, 404, 404]);
  expect(await statuses(own, paper)).toEqual([200, 200, 200, 200]);
  await server.call('deleteShelfItem', ofForm);
  expect(await statuses(cookies[0]!, change)).toEqual([403, 403, 403, 403, 403]);
  expect(await statuses(cookies[0]!, look)).toEqual([200, 200, 200, 200, 200]);
  expect(await statuses(cookies[1]!, [...change, ...look])).toEqual(Array(10).fill(404));
  const names = (cookie: string) =>
    as(cookie, async () => (await server.ok('shelf', { query: { what: 'kit' } })).items.map((i) => [i.name, i.own]));
  expect(await names(cookies[0]!)).toEqual(
    expect.arrayContaining([
      ['Older home', false],
      ['Older home (copy)', true],
    ]),
  );
  expect((await names(cookies[1]!)).map(([n]) => n)).not.toContain('Older home');
  const kits = await as(cookies[1]!, () => server.ok('dealKits', { params: { dealId: deal.id } }));
  expect(kits.items.map((k) => k.name)).not.toContain('Older home');
  // Handed over, it is the other's; a member who is not there cannot have it.
  const bad = await server.call('setShelfItem', { params, body: { users: ['nobody'] } });
  expect(bad.problem.type).toBe('/problems/unknown-member');
  await server.ok('setShelfItem', { params, body: { ownerId: tobias, makers: [tobias] } });
  expect(await statuses(own, change.slice(0, 1))).toEqual([404]);
  await as(cookies[0]!, () => server.ok('setShelfItem', { params, body: { users: null, makers: null } }));
});

test('a copy of a form is a form of its own, with the marks of the first', async () => {
  const copy = await way.server.ok('copyShelfItem', { params: { shelfId: form.id } });
  expect([copy.name, copy.edition, copy.draft.marks.length]).toEqual([
    'Seller disclosure (copy)',
    0,
    form.draft.marks.length,
  ]);
  expect(copy.documents[0]!.id).not.toBe(form.documents[0]!.id);
  expect(copy.draft.marks.every((m) => m.documentId === copy.documents[0]!.id)).toBe(true);
  expect((await way.server.call('deleteShelfItem', { params: { shelfId: copy.id } })).status).toBe(204);
});

test('the shelf comes in pages by name, and somebody else’s edits arrive', async () => {
  for (const name of ['a', 'B', 'c']) await way.server.ok('newKit', { body: { name, formIds: [form.id] } });
  const names: string[] = [];
  let after = '';
  do {
    const page = await way.server.ok('shelf', { query: { what: 'kit', limit: '2', ...(after ? { after } : {}) } });
    names.push(...page.items.map((i) => i.name));
    after = page.next ?? '';
  } while (after);
  // As the database compares, which differs between the two kinds.
  expect([...names].sort()).toEqual(['As it went', 'B', 'Older home', 'Older home (copy)', 'a', 'c']);
  expect(onPostgres() || names.indexOf('a') < names.indexOf('B')).toBe(true);
  const found = await way.server.ok('shelf', { query: { what: 'kit', search: 'older' } });
  expect(found.items.map((i) => [i.name, i.forms.length])[0]).toEqual(['Older home', 2]);
});
