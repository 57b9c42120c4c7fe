/** Deals opened from a contract, against a real server. */
import type { IncomingView } from '@gatepath/contract';
import { SESSION_COOKIE } from '../firm/session';
import { signedAgreement, type AgreementTerms } from '../test/contract';
import { paper } from '../test/papers';
import { serverAtNoon, type Way } from '../test/way';
import { discardOldIncoming, MOST_INCOMING } from './service';

jest.setTimeout(120_000);

let way: Way;
serverAtNoon((started) => (way = started));

const get = (incomingId: string) => way.server.ok('incomingContract', { params: { incomingId } });

/** Adds a contract and waits until it is read. */
async function added(bytes: Uint8Array, name = 'Purchase agreement, signed.pdf'): Promise<IncomingView> {
  const answer = await way.server.post('addIncoming', {}, name, bytes);
  expect(answer.status).toBe(200);
  await way.server.ctx.jobs.idle('read');
  await way.server.ctx.jobs.idle('abstract');
  return get(answer.body.id);
}
const agreement = async (terms?: AgreementTerms) => added(await signedAgreement(terms));

/** Returns what was read of a field. */
const read = (view: IncomingView, field: string) => view.abstract!.fields.find((f) => f.field === field);
const first = (view: IncomingView, field: string) => read(view, field)?.readings[0]?.value;

const deal = { kind: 'sale', forWhom: 'seller', address: '26 Lock Hill', city: 'Tern Lock', parties: [] };
const open = (incomingId: string, more: object = {}) =>
  way.server.call('openIncoming', { params: { incomingId }, body: { ...deal, ...more } });

test('a contract is read for people, address, amounts and key dates, each with its page and words', async () => {
  const view = await agreement();
  expect(view.status).toBe('ready');
  const { abstract } = view;
  expect(abstract).toMatchObject({ kind: 'sale', kindCertain: true });
  expect(abstract!.people.map((p) => [p.side, p.name, p.certain])).toEqual([
    ['seller', 'Orla Byrne', true],
    ['seller', 'Dermot Byrne', true],
    ['buyer', 'Maren Aalto', true],
  ]);
  expect(read(view, 'fact.price')).toMatchObject({
    certain: true,
    readings: [{ value: 412_000, sources: [{ page: 2 }] }],
  });
  expect(read(view, 'fact.price')!.readings[0]!.sources[0]!.words).toContain('The purchase price is $412,000');
  expect(first(view, 'address')).toBe('26 Lock Hill');
  expect(first(view, 'city')).toBe('Tern Lock');
  expect(first(view, 'fact.earnest')).toBe(8_000);
  expect(first(view, 'fact.year_built')).toBe(1968);
  expect(first(view, 'date.closing')).toEqual({ day: '2027-01-15' });
  expect(first(view, 'date.accepted')).toEqual({ day: '2026-11-28' });
  expect(first(view, 'date.inspection')).toMatchObject({
    count: { n: 10, unit: 'days', way: 'after' },
    from: 'accepted',
  });
  expect(first(view, 'date.loan')).toMatchObject({ count: { n: 21 }, from: 'accepted' });
});

test('two days of closing contradict each other and neither is certain', async () => {
  const view = await agreement({ closingAgain: 'January 18, 2027' });
  expect(read(view, 'date.closing')).toMatchObject({
    certain: false,
    readings: [{ value: { day: '2027-01-15' } }, { value: { day: '2027-01-18' } }],
  });
});

test('there is no deal until it is opened, and then it has the people, facts, dates and their reasons', async () => {
  const before = (await way.server.ok('deals')).items.length;
  const view = await agreement();
  expect((await way.server.ok('deals')).items).toHaveLength(before);
  const opened = await open(view.id, {
    parties: [
      { side: 'seller', name: 'Orla Byrne' },
      { side: 'buyer', name: 'Maren Aalto' },
    ],
    facts: { price: 412_000 },
    dates: { accepted: '2026-11-28', inspection: '2026-12-08', closing: '2027-01-15', loan: '2026-12-20' },
  });
  expect(opened.body).toMatchObject({
    address: '26 Lock Hill',
    facts: { price: 412_000 },
    dates: { accepted: '2026-11-28', inspection: '2026-12-08', closing: '2027-01-15', loan: '2026-12-20' },
  });
  expect(opened.body.parties.map((p) => p.name)).toEqual(['Orla Byrne', 'Maren Aalto']);
  expect(opened.body.documents).toMatchObject([
    { id: view.documentId, type: 'purchase_agreement', dealId: opened.body.id },
  ]);
  const said = JSON.stringify(await way.server.ok('dealActivity', { params: { dealId: opened.body.id } }));
  expect(said).toContain('Inspection: Tue, Dec 8: 10 days after Sat, Nov 28, as in “');
  expect(said).toContain('page 4');
  // What a member typed themselves has no source in the contract.
  expect(said).not.toContain('Loan: ');
});

test('what a member has corrected or left out is not reported as a change of the deal', async () => {
  const view = await agreement();
  const { body } = await open(view.id, {
    parties: [
      { side: 'seller', name: 'Orla Byrne' },
      { side: 'buyer', name: 'Maren Aalto' },
    ],
    facts: { price: 400_000, earnest: 8_000, year_built: 1968 },
    dates: { accepted: '2026-11-28', inspection: '2026-12-09', closing: '2027-01-15' },
  });
  await way.server.ctx.jobs.idle('deal');
  expect((await way.server.ok('deal', { params: { dealId: body.id } })).stated).toEqual([]);
});

test('a signed contract is reviewed for gaps at once', async () => {
  const view = await agreement();
  const { body } = await open(view.id);
  await way.server.ctx.jobs.idle('gaps');
  const review = await way.server.ok('paperReview', { params: { documentId: view.documentId } });
  expect(review.status).toBe('ready');
  expect(review.places.filter((p) => p.kind === 'signature').length).toBeGreaterThan(0);
  expect(body.documents[0]!.id).toBe(view.documentId);
});

test('opening it twice at once opens one deal', async () => {
  const view = await agreement();
  const [a, b] = await Promise.all([open(view.id), open(view.id)]);
  expect([a.status, b.status]).toEqual([200, 200]);
  expect(a.body.id).toBe(b.body.id);
  expect((await get(view.id)).dealId).toBe(a.body.id);
  expect((await way.server.ok('incoming')).items.map((i) => i.id)).not.toContain(view.id);
});

test('people of the address book are offered for the names that were read', async () => {
  await way.server.ok('newDeal', {
    body: { ...deal, parties: [{ side: 'buyer', name: 'maren aalto', email: 'maren@example.com' }] },
  });
  const maren = (await agreement()).abstract!.people.find((p) => p.name === 'Maren Aalto')!;
  expect(maren.known.map((k) => k.email)).toContain('maren@example.com');
});

test('nobody else sees a contract before its deal is opened', async () => {
  const view = await agreement();
  const tobias = await way.server.member('Tobias Vane', 'tobias@firm.test');
  const odile = way.server.cookie;
  way.server.cookie = tobias.cookie;
  try {
    const [incomingId, documentId] = [view.id, view.documentId];
    expect((await way.server.ok('incoming')).items).toEqual([]);
    expect((await way.server.call('incomingContract', { params: { incomingId } })).status).toBe(404);
    expect((await open(view.id)).status).toBe(404);
    expect((await way.server.call('discardIncoming', { params: { incomingId } })).status).toBe(404);
    for (const route of ['documentFacts', 'documentFile'] as const)
      expect((await way.server.call(route, { params: { documentId } })).status).toBe(404);
    const page = {
      method: 'GET',
      url: `/api/documents/${documentId}/pages/1`,
      cookies: { [SESSION_COOKIE]: tobias.cookie },
    } as const;
    expect((await way.server.inject(page)).status).toBe(404);
    expect((await way.server.call('setDocument', { params: { documentId }, body: { name: 'Mine' } })).status).toBe(404);
  } finally {
    way.server.cookie = odile;
  }
});

test('a deal at the same address is named before another one is opened', async () => {
  const terms = { address: '77 Chandler Avenue, Tern Lock' };
  expect((await agreement(terms)).abstract!.atAddress).toEqual([]);
  const { id } = await way.server.ok('newDeal', { body: { ...deal, address: '77 CHANDLER Avenue' } });
  expect((await agreement(terms)).abstract!.atAddress).toEqual([{ id, address: '77 CHANDLER Avenue' }]);
});

test('a discarded contract is gone with its document', async () => {
  const view = await agreement();
  await way.server.ok('discardIncoming', { params: { incomingId: view.id } });
  expect((await way.server.call('incomingContract', { params: { incomingId: view.id } })).status).toBe(404);
  expect((await way.server.call('documentFacts', { params: { documentId: view.documentId } })).status).toBe(404);
});

test('a contract whose deal nobody opens for a month is discarded', async () => {
  const view = await agreement();
  const { pool } = way.server.ctx.database;
  await pool.query(`update incoming set created_at = created_at - interval '29 days' where id = $1`, [view.id]);
  await discardOldIncoming(way.server.ctx);
  expect((await get(view.id)).id).toBe(view.id);
  await pool.query(`update incoming set created_at = created_at - interval '2 days' where id = $1`, [view.id]);
  await discardOldIncoming(way.server.ctx);
  expect((await way.server.call('incomingContract', { params: { incomingId: view.id } })).status).toBe(404);
});

test('a paper that says nothing about a deal is read as one that says nothing', async () => {
  const view = await added(await paper({ pages: 2 }));
  expect(view).toMatchObject({ status: 'ready', abstract: { people: [], fields: [] } });
});

test('a fact of the wrong type opens nothing, and nothing is lost', async () => {
  const view = await agreement();
  const answer = await open(view.id, { facts: { price: 'much' } });
  expect(answer.problem).toMatchObject({ status: 422 });
  expect((await get(view.id)).dealId).toBeNull();
});

test(`a member has at most ${MOST_INCOMING} contracts waiting`, async () => {
  const { pool } = way.server.ctx.database;
  const view = await agreement();
  const { rows } = await pool.query<{ n: number }>('select count(*)::int as n from incoming where deal_id is null');
  for (let n = rows[0]!.n; n < MOST_INCOMING; n++) {
    await pool.query(
      `insert into incoming (id, member_id, created_at) select $2, member_id, created_at from incoming where id = $1`,
      [view.id, `more-${n}`],
    );
    await pool.query(
      `insert into document (id, incoming_id, name, file_name, original_sha256, sha256, bytes, pages, status, created_at, type, came_as, left_out)
       select $2, $2, name, file_name, original_sha256, sha256, bytes, pages, status, created_at, type, came_as, left_out from document where id = $1`,
      [view.documentId, `more-${n}`],
    );
  }
  const refused = await way.server.post('addIncoming', {}, 'one more.pdf', await paper({ pages: 1 }));
  expect(refused.problem.type).toContain('over-limits');
});
