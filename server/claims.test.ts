/** Tests who counts as having signed and what the rules require, with inputs that once gave a wrong answer. */
import type { DealView } from '@gatepath/contract';
import type { TestServer } from './test/harness';
import { paper } from './test/papers';
import { markEdit, serverAtNoon, type Way } from './test/way';

jest.setTimeout(180_000);

let way: Way;
let server: TestServer;
serverAtNoon((started) => {
  way = started;
  server = started.server;
});

const requirement = async (dealId: string, ruleId: string) => {
  await server.ctx.jobs.idle('deal');
  const deal = await server.ok('deal', { params: { dealId } });
  return deal.requirements.find((r) => r.ruleId === ruleId);
};
/** Returns a rule of its own, of which nothing else in the firm knows. */
async function ruleFor(title: string, more: object = {}): Promise<string> {
  const body = {
    kinds: ['sale'],
    when: null,
    paper: 'water',
    title,
    signers: ['seller'],
    due: null,
    reason: 'asked for',
    ...more,
  };
  const { rules } = await server.ok('newRule', { body });
  return rules.find((r) => r.title === title)!.id;
}

describe('who has signed', () => {
  test('of two people of one name only the one who signed has', async () => {
    const ruleId = await ruleFor('Water test');
    const sent = await way.send([{ name: 'John Smith', email: 'sr@example.com' }], [{ names: ['John'] }]);
    const documentId = sent.packet.sent!.plan.documents[0]!.id;
    await server.ok('setDocument', { params: { documentId }, body: { type: 'water' } });
    const params = { dealId: sent.deal.id };
    await server.ok('addParty', { params, body: { side: 'seller', name: 'John Smith', email: 'jr@example.com' } });
    await way.signAll(await server.tokenFor(sent.packet.id, 'John Smith'), 'John Smith');
    expect(await requirement(sent.deal.id, ruleId)).toMatchObject({ state: 'open', words: 'executed without John' });
  });

  test('a late round adds to the first: both count, and the firm’s own broker for their side', async () => {
    const ruleId = await ruleFor('Water and broker', { signers: ['seller', 'listing_broker'] });
    const deal = await server.deal('15 Lantern Row', ['Ann Vale', 'Bea Vale']);
    const doc = await server.uploadReady(deal.id, 'water.pdf', await paper({ pages: 1 }));
    await server.ok('setDocument', { params: { documentId: doc.id }, body: { type: 'water' } });
    const [ann, bea] = deal.parties;
    const draftFor = async (name: string, documentId: string, party: DealView['parties'][number]) => {
      const draft = await server.ok('newPacket', {
        params: { dealId: deal.id },
        body: { name, documentIds: [documentId] },
      });
      await onlyFor(draft.id, draft.draft, documentId, party);
      return server.send(draft.id);
    };
    const onlyFor = async (
      packetId: string,
      draft: { parties: { id: string }[]; gates: { id: string }[] },
      documentId: string,
      party: DealView['parties'][number],
    ) => {
      const broker = { id: 'own-broker', name: 'Odile Farrant', email: 'odile@example.com', phone: null, ordinal: 1 };
      const item = { ...broker, side: 'listing_broker' as const, act: 'sign' as const, ink: 3 };
      const person = { ...party, act: 'sign' as const, ink: 1, phone: null };
      const { id, name, email, side, ordinal } = person;
      await server.edit(packetId, [
        ...draft.gates.map((g) => ({ op: 'drop' as const, list: 'gates' as const, id: g.id })),
        ...draft.parties.map((p) => ({ op: 'drop' as const, list: 'parties' as const, id: p.id })),
        { op: 'put', list: 'parties', item: { id, name, email, side, ordinal, phone: null, act: 'sign', ink: 1 } },
        ...(side === 'seller' && name.startsWith('Ann')
          ? [{ op: 'put' as const, list: 'parties' as const, item }]
          : []),
        {
          op: 'put',
          list: 'gates',
          item: { id: 'g', partyIds: name.startsWith('Ann') ? [id, 'own-broker'] : [id] },
        },
        markEdit('s', documentId, 1, 'signature', id, { x: 72, y: name.startsWith('Ann') ? 640 : 600, w: 160, h: 26 }),
        ...(name.startsWith('Ann')
          ? [markEdit('b', documentId, 1, 'signature', 'own-broker', { x: 300, y: 640, w: 160, h: 26 })]
          : []),
      ]);
    };
    const first = await draftFor('First round', doc.id, ann!);
    await way.signAll(await server.tokenFor(first.id, 'Ann Vale'), 'Ann Vale');
    await way.signAll(await server.tokenFor(first.id, 'Odile Farrant'), 'Odile Farrant');
    await way.sealed(first.id);
    expect(await requirement(deal.id, ruleId)).toMatchObject({ words: 'executed without Bea' });
    const late = await server.ok('lateRound', { params: { packetId: first.id }, body: { documentIds: [doc.id] } });
    const copy = late.draft.documents[0]!.id;
    await server.ready(deal.id, copy);
    await server.ok('setDocument', { params: { documentId: copy }, body: { type: 'water' } });
    // What the first round put on the page is ink there, and its record pages ask for nothing.
    const facts = await server.ok('documentFacts', { params: { documentId: copy } });
    expect([facts.ownPages, facts.pages.length > 1]).toEqual([1, true]);
    await onlyFor(late.id, late.draft, copy, bea!);
    const sentLate = await server.send(late.id);
    await way.signAll(await server.tokenFor(sentLate.id, 'Bea Vale'), 'Bea Vale');
    await way.sealed(sentLate.id);
    expect(await requirement(deal.id, ruleId)).toMatchObject({ state: 'met' });
  });
});

describe('rules and what hangs on them', () => {
  test('a waiver ends when its rule asks for something else', async () => {
    const ruleId = await ruleFor('Lead paint disclosure', { paper: 'lead_paint' });
    const deal = await server.deal('16 Lantern Row', ['Wren Alder']);
    await server.ok('waive', { params: { dealId: deal.id, ruleId }, body: { reason: 'built 2005' } });
    expect(await requirement(deal.id, ruleId)).toMatchObject({ state: 'waived' });
    const { rules } = await server.ok('rules');
    const { id: _id, sample: _sample, ...rule } = rules.find((r) => r.id === ruleId)!;
    await server.ok('setRule', { params: { ruleId }, body: { ...rule, title: 'Flood zone notice', paper: 'flood' } });
    await server.ctx.jobs.idle('rules');
    expect(await requirement(deal.id, ruleId)).toMatchObject({
      state: 'open',
      words: 'needed; waived by Odile Farrant before the rule changed',
    });
  });

  test('a fact keeps its type while a rule asks about it', async () => {
    const fact = { key: 'own.floors', label: 'Floors', type: 'number' as const, kinds: ['sale' as const] };
    await server.ok('setOwnFacts', { body: { facts: [fact] } });
    await ruleFor('Stairs', { when: { fact: 'own.floors', compare: 'at_least', value: 3 } });
    const refused = await server.call('setOwnFacts', { body: { facts: [{ ...fact, type: 'text' }] } });
    expect([refused.status, refused.problem.type]).toEqual([409, '/problems/in-rule']);
    expect((await server.call('setOwnFacts', { body: { facts: [{ ...fact, label: 'Storeys' }] } })).status).toBe(200);
  });

  test('a far day is refused, and one that is kept from before stops nothing', async () => {
    const deal = await server.deal('17 Lantern Row', ['Wren Alder']);
    const params = { dealId: deal.id };
    for (const accepted of ['9999-12-31', '0000-01-01', '1899-12-31', '2201-01-01'])
      expect((await server.call('setDeal', { params, body: { dates: { accepted } } })).status).toBe(422);
    const dates = JSON.stringify({ accepted: '9999-12-31', closing: '0000-01-01' });
    await server.ctx.database.pool.query('update deal set dates = $2 where id = $1', [deal.id, dates]);
    const changed = await server.call('setDeal', { params, body: { address: '18 Lantern Row' } });
    expect([changed.status, changed.raw.toString()]).toEqual([200, expect.stringContaining('18 Lantern Row')]);
    await server.ctx.jobs.idle('deal');
    expect((await server.ok('firm')).failures.filter((f) => f.thing === deal.id)).toEqual([]);
  });

  test('papers cannot replace each other, also not two at once or through a third', async () => {
    const deal = await server.deal('19 Lantern Row');
    const [a, b, c] = await Promise.all(
      ['a', 'b', 'c'].map(async (n) => server.uploadReady(deal.id, `${n}.pdf`, await paper({ pages: 1, title: n }))),
    );
    const by = (x: typeof a, y: typeof a) =>
      server.call('setDocument', { params: { documentId: x!.id }, body: { replacedBy: y!.id } });
    const both = await Promise.all([by(a, b), by(b, a)]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    const [first, last] = both[0]!.status === 200 ? [a, b] : [b, a];
    expect((await by(last, c)).status).toBe(200);
    const ring = await by(c, first);
    expect([ring.status, ring.problem.type]).toEqual([409, '/problems/replaced-already']);
    const { documents } = await server.ok('deal', { params: { dealId: deal.id } });
    expect(documents.filter((d) => !d.replacedBy).map((d) => d.id)).toEqual([c!.id]);
  });

  test('a page is made in place of papers of the same deal only', async () => {
    const [one, two] = [await server.deal('20 Lantern Row'), await server.deal('21 Lantern Row')];
    const own = await server.uploadReady(one.id, 'own.pdf', await paper({ pages: 1 }));
    const foreign = await server.uploadReady(two.id, 'foreign.pdf', await paper({ pages: 1, title: 'Foreign' }));
    const body = { name: 'Made', parts: [{ documentId: own.id, page: 1 }], replaces: [foreign.id] };
    expect((await server.call('composeDocument', { params: { dealId: one.id }, body })).status).toBe(404);
  });

  test('a corrected side reaches the drafts that hold the person', async () => {
    const deal = await server.deal('22 Lantern Row', ['Wren Alder']);
    const params = { dealId: deal.id };
    const draft = await server.ok('newPacket', { params, body: { name: 'Papers' } });
    const [wren] = deal.parties;
    const body = { side: 'buyer' as const, name: 'Wren A. Alder', email: 'wren.new@example.com' };
    await server.ok('setParty', { params: { partyId: wren!.id }, body });
    const now = await server.ok('packet', { params: { packetId: draft.id } });
    expect(now.draft.parties).toEqual([expect.objectContaining({ ...body, ordinal: 1, act: 'sign' })]);
    expect(now.version).toBeGreaterThan(draft.version);
  });
});
