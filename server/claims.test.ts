/** What the product says, held to inputs that once made it untrue. */
import { request as send } from 'node:http';
import type { AddressInfo } from 'node:net';
import { statSync } from 'node:fs';
import path from 'node:path';
import { liveQuery, type DealView } from '@gatepath/contract';
import { TOPIC_KINDS } from '@gatepath/contract/limits';
import { addDays, dayOf, isHour } from '@gatepath/core/calendar';
import JSZip from 'jszip';
import pg from 'pg';
import { findFirm } from './firm/queries';
import { runCalendar } from './jobs/calendar';
import { chance, lease, scanOf } from './test/scan';
import { filledIn } from './test/filled';
import { noticeKit, tenancies } from './test/notices';
import { TestServer } from './test/harness';
import { paper } from './test/papers';
import { markEdit, Way } from './test/way';
import { busy, WorkFailure } from './work/failure';
import type { TaskName } from './work/tasks';

jest.setTimeout(180_000);

let way: Way;
let server: TestServer;
beforeAll(async () => {
  way = await Way.start();
  server = way.server;
  server.toNoon();
});
afterAll(() => way.stop());

/** Has some tasks answered in another way for a while. */
async function withTask<T>(tasks: TaskName[], answer: () => Error | null, work: () => Promise<T>): Promise<T> {
  const pool = server.ctx.work;
  const run = pool.run.bind(pool);
  pool.run = ((task: TaskName, ...rest: never[]) => {
    const error = tasks.includes(task) ? answer() : null;
    return error ? Promise.reject(error) : (run as (...all: unknown[]) => Promise<unknown>)(task, ...rest);
  }) as typeof pool.run;
  try {
    return await work();
  } finally {
    delete (pool as Partial<typeof pool>).run;
  }
}

const requirement = async (dealId: string, ruleId: string) => {
  await server.ctx.jobs.idle('deal');
  const deal = await server.ok('deal', { params: { dealId } });
  return deal.requirements.find((r) => r.ruleId === ruleId);
};
/** A rule of its own, of which nothing else in the firm knows. */
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

describe('busy is not final', () => {
  test('a sending that meets a busy server stays set, and goes once it is calm', async () => {
    const sent = await way.send([{ name: 'Ada Byron' }], [{ names: ['Ada'] }]);
    const { deal } = sent;
    const draft = await server.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name: 'Papers', documentIds: [sent.packet.sent!.plan.documents[0]!.id] },
    });
    const rect = { x: 72, y: 600, w: 160, h: 26 };
    const documentId = draft.draft.documents[0]!.id;
    await server.edit(draft.id, [markEdit('s', documentId, 1, 'signature', deal.parties[0]!.id, rect)]);
    const packet = await server.ok('packet', { params: { packetId: draft.id } });
    const day = addDays(dayOf(server.ctx.clock.now().toISOString(), 'America/New_York'), 1);
    const params = { packetId: draft.id };
    await server.ok('sendLater', { params, body: { version: packet.version, day, hour: 8, despiteWarnings: true } });
    server.ctx.clock.forward(24 * 3_600_000);
    const pool = server.ctx.database.pool;
    let met = 0;
    await withTask(
      ['gateCheck'],
      () => (met++, busy()),
      async () => {
        await runCalendar(server.ctx);
        while (!met) await new Promise((r) => setTimeout(r, 20));
        await new Promise((r) => setTimeout(r, 100));
      },
    );
    const waiting = await server.ok('packet', { params });
    expect([waiting.status, waiting.later?.problem, waiting.later?.at !== null]).toEqual(['drafting', null, true]);
    await pool.query(`update pgboss.job set start_after = now() where name = 'tick' and state = 'retry'`);
    await runCalendar(server.ctx);
    await server.ctx.jobs.idle('tick');
    expect((await server.ok('packet', { params })).status).toBe('at_gate');
  });

  test('rows of a notice that meet a busy server, or a lost connection, are worked out later and none is wrong', async () => {
    const kit = await noticeKit(server, 'receive', 'Change of rent, busy');
    const homes = await tenancies(server, 6);
    const notice = await server.ok('newNotice', { body: { kitId: kit.id, name: 'Busy' } });
    const from = addDays(server.ctx.clock.now().toISOString().slice(0, 10), 90);
    const csv = ['Unit,New rent,From', ...homes.map((h, i) => `"${h}",${1300 + i},${from}`)].join('\n');
    const params = { noticeId: notice.id };
    let n = 0;
    await withTask(
      ['kit'],
      () => (++n % 2 ? busy() : n % 3 ? null : Object.assign(new Error('lost'), { code: '57P01' })),
      async () => {
        await server.post('homeTable', params, 'homes.csv', Buffer.from(csv), { take: 'true' });
        while (n < 8) await new Promise((r) => setTimeout(r, 20));
      },
    );
    const pool = server.ctx.database.pool;
    for (let again = 0; again < 60; again++) {
      await pool.query(`update pgboss.job set start_after = now() where name = 'notice' and state = 'retry'`);
      await server.ctx.jobs.queueNow('notice', notice.id);
      await server.ctx.jobs.idle('notice');
      const { counts } = await server.ok('notice', { params });
      if (!counts.fresh) break;
    }
    const page = await server.ok('noticeRows', { params, query: { limit: '100' } });
    expect(page.items.map((r) => [r.state, r.problems])).toEqual(homes.map(() => ['ready', []]));
  });

  test('a job that does not end, and one that ends its process, come to an end all the same', async () => {
    const { jobs, database } = server.ctx;
    const last = `update pgboss.job set state = 'active', started_on = now() - interval '2 days', retry_count = retry_limit
       where name = 'form' and data->>'id' = 'stuck'`;
    await jobs.queueNow('form', 'stuck', 3_600);
    await database.pool.query(last);
    // What looks for leases that ran out every ten seconds.
    for (let i = 0; i < 300; i++) {
      if ((await server.ok('firm')).failures.some((f) => f.thing === 'stuck')) break;
      await new Promise((r) => setTimeout(r, 50));
    }
    expect((await server.ok('firm')).failures.find((f) => f.thing === 'stuck')).toMatchObject({ queue: 'form' });
    const { rows } = await database.pool.query(`select state from pgboss.job where data->>'id' = 'stuck'`);
    expect(rows).toEqual([{ state: 'failed' }]);
  });
});

describe('papers that came back, and scans', () => {
  const PEOPLE = [
    { side: 'landlord' as const, name: 'Wren Alder', email: 'wren@example.com' },
    { side: 'tenant' as const, name: 'Callum Alder', email: 'callum@example.com' },
  ];
  test('a paper that was sent back is not checked anew; what was said of its places stays said', async () => {
    const deal = await server.deal('1 Weir Row', PEOPLE);
    const bytes = await lease({ initials: true });
    const blank = await server.uploadReady(deal.id, 'Lease.pdf', bytes);
    const { places } = await server.ok('documentFacts', { params: { documentId: blank.id } });
    const full = places.filter((p) => p.kind !== 'initials');
    const scan = await scanOf(await filledIn(bytes, full, chance(9)));
    const back = await server.uploadReady(deal.id, 'Signed.pdf', scan.bytes);
    const params = { documentId: back.id };
    const check = async () => {
      const answer = await server.call('checkPaper', { params, body: { blankId: blank.id } });
      await server.ctx.jobs.idle('gaps');
      return answer;
    };
    await check();
    const first = await server.ok('paperCheck', { params });
    const gaps = first.places.filter((p) => p.filled !== 'yes');
    expect(gaps.length).toBeGreaterThan(1);
    await server.ok('sayOfPlaces', { params, body: { places: [{ id: gaps[0]!.id, said: 'yes' }] } });
    await check();
    const second = await server.ok('paperCheck', { params });
    expect(second.places.filter((p) => p.said === 'yes')).toHaveLength(1);
    const sent = await server.ok('sendBack', { params });
    const again = await check();
    expect([again.status, again.problem.type]).toEqual([409, '/problems/sent-back']);
    expect(await server.ok('paperCheck', { params })).toMatchObject({ ended: 'sent_back', packetId: sent.packetId });
    expect((await server.ok('sendBack', { params })).packetId).toBe(sent.packetId);
    await server.ok('dropPacket', { params: { packetId: sent.packetId! } });
    expect((await check()).status).toBe(200);
  });

  test('a scan whose words cannot be laid is read without them', async () => {
    const deal = await server.deal('2 Weir Row', PEOPLE);
    const scan = await scanOf(await lease());
    const doc = await withTask(
      ['layWords'],
      () => new WorkFailure('time', 'layWords', null, 1),
      () => server.uploadReady(deal.id, 'Scan.pdf', scan.bytes),
    );
    expect([doc.status, doc.leftOut]).toEqual(['ready', [{ what: 'words', n: 1 }]]);
  });
});

describe('requests', () => {
  const timed = async (work: () => Promise<{ status: number }>) => {
    const start = performance.now();
    const { status } = await work();
    return { status, ms: performance.now() - start };
  };
  test('a list that is too long is refused before its items are looked at, and faults do not add up', async () => {
    const deal = await server.deal('23 Lantern Row');
    const draft = await server.ok('newPacket', { params: { dealId: deal.id }, body: { name: 'Papers' } });
    const params = { packetId: draft.id };
    const bodies = [
      { edits: Array.from({ length: 30_000 }, () => ({})) },
      { edits: Array.from({ length: 400 }, () => ({ op: 'put', list: 'marks', item: { texts: 1 } })) },
    ];
    for (const body of bodies) {
      const { status, ms } = await timed(() => server.call('editPacket', { params, body }));
      expect([422, 413]).toContain(status);
      // A quarter of a minute and more, once.
      expect(ms).toBeLessThan(3_000);
    }
    const facts = Array.from({ length: 8_000 }, () => null);
    const { status, ms } = await timed(() => server.call('setOwnFacts', { body: { facts } }));
    expect([[422, 413].includes(status), ms < 3_000]).toEqual([true, true]);
  });

  test('keys that every object has, and texts that are objects, are refused and not stumbled over', async () => {
    const odd: unknown[] = [
      { email: { toString: 1 }, password: 'x' },
      { email: { valueOf: 1, length: 3 }, password: 'x' },
      { toString: 1 },
      { email: 'a@example.com', password: 'x', constructor: 1 },
      { email: 'a@example.com', password: 'x', hasOwnProperty: {} },
      { email: { match: 'x' }, password: { trim: 1 } },
      { email: [], password: [[]] },
    ];
    for (const body of odd)
      expect([JSON.stringify(body), (await server.call('signIn', { body, as: 'nobody' })).status]).toEqual([
        JSON.stringify(body),
        422,
      ]);
    const raw = await server.running.app.inject({
      method: 'POST',
      url: '/api/session',
      headers: { 'content-type': 'application/json' },
      payload: '{"email":{"toString":null,"isMember":1},"password":"x"}',
    });
    expect(raw.statusCode).toBe(422);
  });

  test('a form that is never closed is told so', async () => {
    await server.running.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = server.running.app.server.address() as AddressInfo;
    const head = '--x\r\nContent-Disposition: form-data; name="file"; filename="a.pdf"\r\n\r\n%PDF-1.4';
    const status = await new Promise<number>((resolve, reject) => {
      const headers = { 'content-type': 'multipart/form-data; boundary=x' };
      const r = send({ port, host: '127.0.0.1', path: '/api/check', method: 'POST', headers }, (answer) => {
        answer.resume();
        resolve(answer.statusCode ?? 0);
      });
      r.on('error', reject);
      r.end(head);
    });
    expect([status >= 400, status < 500]).toEqual([true, true]);
  });

  test('an address before those our own proxies put there is not believed', async () => {
    const open = await TestServer.start({ env: { TRUST_PROXY: '1' } });
    try {
      const tries = async (n: number, forwarded: (i: number) => string) => {
        const out: number[] = [];
        for (let i = 0; i < n; i++)
          out.push(
            (
              await open.call('signIn', {
                body: { email: 'odile@example.com', password: 'wrong' },
                headers: { 'x-forwarded-for': forwarded(i) },
                as: 'nobody',
              })
            ).status,
          );
        return out;
      };
      const answers = await tries(10, (i) => `8.8.8.${i}, 203.0.113.7`);
      expect(answers.slice(0, 8)).toEqual(Array.from({ length: 8 }, () => 401));
      expect(answers.slice(8)).toEqual([429, 429]);
    } finally {
      await open.stop();
    }
  });

  test('a page of the same host under another scheme is another site', async () => {
    const post = (origin: string) =>
      server.call('signIn', {
        body: { email: 'odile@example.com', password: 'long enough 1' },
        headers: { origin, host: 'gate.example.com' },
        as: 'nobody',
      });
    expect((await post('http://gate.example.com')).status).toBe(200);
    expect((await post('https://gate.example.com')).status).toBe(403);
    expect((await post('null')).status).toBe(403);
  });

  test('every topic that a screen hears of can be heard', async () => {
    // A screen can name no other: its topics have this type.
    const heard = TOPIC_KINDS.map((kind) => `${kind}:a`);
    for (const topics of [...heard, heard.join(',')]) {
      const answer = await server.call('live', { query: { topics: `${topics},` } });
      expect([topics, answer.status]).toEqual([topics, 422]);
    }
    for (const topics of [...heard, heard.join(',')]) expect(liveQuery.isValidSync({ topics })).toBe(true);
  });

  test('an hour that the clocks leave out is no hour to send at', async () => {
    expect(isHour('2027-03-14', 2, 'America/New_York')).toBe(false);
    expect(isHour('2027-03-14', 3, 'America/New_York')).toBe(true);
    expect(isHour('2027-11-07', 1, 'America/New_York')).toBe(true);
  });

  test('pictures of a ceremony stay in no browser; nor can anybody else on this machine read what is stored', async () => {
    const sent = await way.send([{ name: 'Ada Byron' }], [{ names: ['Ada'] }]);
    const token = await server.tokenFor(sent.packet.id, 'Ada Byron');
    const documentId = sent.packet.sent!.plan.documents[0]!.id;
    const page = await server.running.app.inject({ url: `/api/signing/${token}/documents/${documentId}/pages/1` });
    expect([page.statusCode, page.headers['cache-control']]).toEqual([200, 'private, no-store']);
    const mode = (file: string) => statSync(file).mode & 0o777;
    expect(mode(server.dir)).toBe(0o700);
    for await (const sha256 of server.ctx.files.all()) {
      const file = server.ctx.files.fileOf(sha256);
      expect([mode(file), mode(path.dirname(file))]).toEqual([0o600, 0o700]);
    }
  });

  test('a sheet of two kilobytes that names a row no sheet has is refused at once', async () => {
    const deal = await server.deal('24 Lantern Row');
    const sheetOf = async (xml: string) => {
      const zip = new JSZip();
      const ns = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
      const rel = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
      const pkg = 'http://schemas.openxmlformats.org/package/2006';
      const type = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
      zip.file(
        '[Content_Types].xml',
        `<Types xmlns="${pkg}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="${type}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${type}.worksheet+xml"/></Types>`,
      );
      zip.file(
        '_rels/.rels',
        `<Relationships xmlns="${pkg}/relationships"><Relationship Id="r1" Type="${rel}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
      );
      zip.file(
        'xl/workbook.xml',
        `<workbook ${ns} xmlns:r="${rel}"><sheets><sheet name="A" sheetId="1" r:id="r1"/></sheets></workbook>`,
      );
      zip.file(
        'xl/_rels/workbook.xml.rels',
        `<Relationships xmlns="${pkg}/relationships"><Relationship Id="r1" Type="${rel}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
      );
      zip.file('xl/worksheets/sheet1.xml', `<worksheet ${ns}>${xml}</worksheet>`);
      return zip.generateAsync({ type: 'uint8array' });
    };
    const cell = (row: string, ref: string) =>
      `<sheetData><row r="${row}"><c r="${ref}"><v>1</v></c></row></sheetData>`;
    for (const xml of [
      cell('999999999', 'A999999999'),
      cell('1', 'A999999999'),
      `<cols><col min="1" max="1000000000" width="9"/></cols>${cell('1', 'A1')}`,
      cell('1', 'ZZZZZ1'),
    ]) {
      const { status, ms } = await timed(async () => server.upload(deal.id, 'rents.xlsx', await sheetOf(xml)));
      expect([xml.slice(0, 40), status, ms < 20_000]).toEqual([xml.slice(0, 40), 422, true]);
    }
    const fine = await server.upload(deal.id, 'rents.xlsx', await sheetOf(cell('2', 'B2')));
    expect(fine.status).toBe(200);
  });
});

test('lost connections end nothing, lose nothing, and are told as a moment', async () => {
  const people = Array.from({ length: 12 }, (_, i) => ({ name: `P${i} Poe`, email: `p${i}@example.com` }));
  const deal = await server.deal(
    '25 Lantern Row',
    people.map((p) => ({ ...p, side: 'buyer' as const })),
  );
  const url = (server.ctx.database.pool as pg.Pool & { options: { connectionString: string } }).options
    .connectionString;
  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  const end = () =>
    admin.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
  const answered: string[] = [];
  const statuses = new Set<number>();
  let over = false;
  const write = async (n: number) => {
    for (let i = 0; !over; i++) {
      const body = { tags: [`w${n}-${i}`] };
      const answer = await server.call('setDeal', { params: { dealId: deal.id }, body });
      statuses.add(answer.status);
      if (answer.status === 200) answered.push(body.tags[0]!);
      else expect(answer.problem.type).toBe('/problems/busy');
    }
  };
  const writers = [0, 1, 2, 3].map(write);
  for (let n = 0; n < 10; n++) {
    await new Promise((r) => setTimeout(r, 150));
    await end();
  }
  await new Promise((r) => setTimeout(r, 300));
  over = true;
  await Promise.all(writers);
  await admin.end();
  // Connections that were ended a moment ago may still lie in the pool: whoever gets one hears of it.
  for (let n = 0; n < 20; n++) await server.ctx.database.pool.query('select 1').catch(() => undefined);
  for (const status of statuses) expect([200, 503]).toContain(status);
  // Every change that was answered is in the deal's activity.
  const { rows } = await server.ctx.database.pool.query<{ sentence: string }>(
    'select sentence from deal_event where deal_id = $1',
    [deal.id],
  );
  const told = new Set(rows.flatMap((r) => /tags are (\S+)\.$/.exec(r.sentence)?.[1] ?? []));
  expect(answered.length).toBeGreaterThan(5);
  expect(answered.filter((tag) => !told.has(tag))).toEqual([]);
  expect(await findFirm(server.ctx.database.pool)).not.toBeNull();
});
