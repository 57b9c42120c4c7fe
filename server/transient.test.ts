/** Tests retries after temporary problems: busy workers, a document that is still being read, a lost database. */
import pg from 'pg';
import { addDays, dayOf } from '@gatepath/core/calendar';
import { findFirm } from './firm/queries';
import { queueDueWork } from './schedule/calendar';
import type { TestServer } from './test/harness';
import { noticeKit, tenancies } from './test/notices';
import { markEdit, serverAtNoon, type Way } from './test/way';
import { busy } from './work/failure';

jest.setTimeout(180_000);

let way: Way;
let server: TestServer;
serverAtNoon((started) => {
  way = started;
  server = started.server;
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
    await server.withTask(
      ['gateCheck'],
      () => (met++, busy()),
      async () => {
        await queueDueWork(server.ctx);
        while (!met) await new Promise((r) => setTimeout(r, 20));
        await new Promise((r) => setTimeout(r, 100));
      },
    );
    const waiting = await server.ok('packet', { params });
    expect([waiting.status, waiting.later?.problem, waiting.later?.at !== null]).toEqual(['drafting', null, true]);
    await pool.query(`update job set start_after = now() where name = 'tick' and state = 'retry'`);
    await queueDueWork(server.ctx);
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
    await server.withTask(
      ['kit'],
      () => (++n % 2 ? busy() : n % 3 ? null : Object.assign(new Error('lost'), { code: '57P01' })),
      async () => {
        await server.post('homeTable', params, 'homes.csv', Buffer.from(csv), { take: 'true' });
        while (n < 8) await new Promise((r) => setTimeout(r, 20));
      },
    );
    const pool = server.ctx.database.pool;
    for (let again = 0; again < 60; again++) {
      await pool.query(`update job set start_after = now() where name = 'notice' and state = 'retry'`);
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
    const last = `update job set state = 'running', leased_at = now() - interval '2 days', tries = most_tries
       where name = 'form' and thing = 'stuck'`;
    await jobs.queueNow('form', 'stuck', 3_600);
    await database.pool.query(last);
    // Runs what otherwise runs every ten seconds: the search for expired leases.
    for (let i = 0; i < 300; i++) {
      if ((await server.ok('firm')).failures.some((f) => f.thing === 'stuck')) break;
      await new Promise((r) => setTimeout(r, 50));
    }
    expect((await server.ok('firm')).failures.find((f) => f.thing === 'stuck')).toMatchObject({ queue: 'form' });
    const { rows } = await database.pool.query(`select state from job where thing = 'stuck'`);
    expect(rows).toEqual([]);
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
  // The pool may still hold closed connections; the next queries fail on them.
  for (let n = 0; n < 20; n++) await server.ctx.database.pool.query('select 1').catch(() => undefined);
  for (const status of statuses) expect([200, 503]).toContain(status);
  // The deal's activity lists every change that the server confirmed.
  const { rows } = await server.ctx.database.pool.query<{ sentence: string }>(
    'select sentence from deal_event where deal_id = $1',
    [deal.id],
  );
  const told = new Set(rows.flatMap((r) => /tags are (\S+)\.$/.exec(r.sentence)?.[1] ?? []));
  expect(answered.length).toBeGreaterThan(5);
  expect(answered.filter((tag) => !told.has(tag))).toEqual([]);
  expect(await findFirm(server.ctx.database.pool)).not.toBeNull();
});
