/** Databases of every earlier version, with data in them, open and go on working. */
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Draft, type Plan, emptyDraft } from '@gatepath/core/packet';
import { type PacketEvent, type PacketState, decide, evolve } from '@gatepath/core/routing';
import { CHAIN_START, chainHash } from '@gatepath/core/proof';
import pg from 'pg';
import { buildServer } from '../app';
import { readConfig } from '../config';
import { hashPassword } from '../firm/password';
import { hashSecret, sha256 } from '../ids';
import { loadState, rebuild } from '../packets/log';
import { readModelOf } from '../packets/read-model-queries';
import { InProcess } from '../in-process';
import { copyInto, removeFolder } from '../test/folders';
import { deleteDatabase, newDatabase, onPostgres } from '../test/postgres';
import { paper } from '../test/papers';
import { exclusively, migrate, migrationNames } from './migrate';
import { openDatabase, type Database } from './pool';

jest.setTimeout(300_000);

const SECRET = 'a secret of at least thirty-two characters';
const TOKEN = 'token-of-wren-from-long-ago';
const WREN = { id: 'party-wren', name: 'Wren Alder', email: 'wren@example.com', phone: null };

interface Old {
  dir: string;
  url: string | null;
}

/** A folder for an old version's data, with an empty embedded database in it that is made once for all. */
let empty = '';
beforeAll(async () => {
  empty = mkdtempSync(path.join(os.tmpdir(), 'gatepath-empty-'));
  if (!onPostgres()) await (await openDatabase({ databaseUrl: null, dataDir: empty })).close();
});
afterAll(() => removeFolder(empty));

function folder(): string {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-old-'));
  copyInto(empty, dir);
  return dir;
}

async function open({ dir, url }: Old): Promise<Database> {
  return openDatabase({ databaseUrl: url, dataDir: dir });
}

/** Returns a file as the store of any version keeps it. */
function store(dir: string, bytes: Uint8Array): string {
  const hash = createHash('sha256').update(bytes).digest('hex');
  const file = path.join(dir, 'files', hash.slice(0, 2), hash);
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, bytes);
  return hash;
}

/** Fills a database of an earlier version by its own tables: a firm, a deal, a draft, a packet under way. */
async function fill(db: pg.Pool, dir: string, upTo: string): Promise<void> {
  const at = '2026-10-01T12:00:00.000Z';
  const hash = store(dir, await paper({ pages: 2 }));
  await db.query(
    `insert into firm (id, name, time_zone, created_at) values ('firm', 'Towpath & Vane', 'America/New_York', $1)`,
    [at],
  );
  await db.query(
    `insert into member (id, firm_id, name, email, password_hash, created_at) values ('odile', 'firm', 'Odile Farrant', 'odile@example.com', $1, $2)`,
    [await hashPassword('long enough 1'), at],
  );
  await db.query(
    `insert into deal (id, kind, address, city, time_zone, created_at) values ('deal', 'sale', '14 Lantern Row', 'Tern Lock', 'America/New_York', $1)`,
    [at],
  );
  // Two with the same place in their side: nothing forbade it.
  for (const id of ['party-wren', 'party-twin'])
    await db.query(
      `insert into party (id, deal_id, side, ordinal, name, email, created_at) values ($1, 'deal', 'seller', 1, 'Wren Alder', 'wren@example.com', $2)`,
      [id, at],
    );
  const sizes = JSON.stringify([
    { width: 612, height: 792 },
    { width: 612, height: 792 },
  ]);
  for (const [id, status] of [
    ['doc', 'reading'],
    ['other', 'reading'],
  ])
    await db.query(
      `insert into document (id, deal_id, name, file_name, original_sha256, sha256, bytes, pages, status, created_at)
       values ($1, 'deal', 'Disclosure', 'disclosure.pdf', $2, $2, 1000, $3, $4, $5)`,
      [id, hash, sizes, status, at],
    );
  const party = { ...WREN, side: 'seller' as const, ordinal: 1, act: 'sign' as const, ink: 0 };
  const marks: Plan['marks'] = [
    {
      id: 's',
      documentId: 'doc',
      page: 2,
      kind: 'signature',
      partyId: WREN.id,
      rect: { x: 60, y: 690, w: 150, h: 24 },
      required: true,
    },
    {
      id: 'i',
      documentId: 'doc',
      page: 1,
      kind: 'initials',
      partyId: WREN.id,
      rect: { x: 60, y: 740, w: 50, h: 20 },
      required: true,
    },
  ];
  const draft: Partial<Draft> = {
    ...emptyDraft('Papers'),
    parties: [{ ...party, secondStep: 'code', accessCode: 'heron zincwhite' }],
    documents: [{ id: 'doc' }],
    gates: [{ id: 'g', partyIds: [WREN.id] }],
    marks: marks.slice(0, 1),
  };
  // The first versions knew neither of these.
  if (upTo < '0002') for (const k of ['redlines', 'passed'] as const) delete draft[k];
  if (upTo < '0004') for (const k of ['schedule', 'handOver'] as const) delete draft[k];
  const insert = (id: string, status: string) =>
    db.query(
      `insert into packet (id, deal_id, name, status, draft, created_by, created_at) values ($1, 'deal', 'Papers', $2, $3, 'odile', $4)`,
      [id, status, JSON.stringify(draft), at],
    );
  await insert('draft', 'drafting');
  await insert('sent', 'at_gate');
  const plan: Plan = {
    packetName: 'Papers',
    dealName: '14 Lantern Row',
    timeZone: 'America/New_York',
    subject: 'Please sign',
    message: '',
    parties: [party],
    gates: draft.gates!,
    documents: [
      { id: 'doc', name: 'Disclosure', sha256: hash, pages: JSON.parse(sizes) as Plan['documents'][number]['pages'] },
    ],
    marks,
  };
  let state: PacketState | null = null;
  let prev = CHAIN_START;
  for (const command of [
    { type: 'send' as const, plan },
    { type: 'open' as const, partyId: WREN.id },
    { type: 'agree' as const, partyId: WREN.id, agreement: 'v1' },
    {
      type: 'set_hand' as const,
      partyId: WREN.id,
      hand: { form: 'typed' as const, face: 'caveat' as const, signature: 'Wren Alder', initials: 'WA' },
    },
    { type: 'fill' as const, partyId: WREN.id, markId: 'i', actId: 'act-of-long-ago' },
  ]) {
    const decision = decide(state, command);
    if (!decision.ok) throw new Error(decision.refusal.code);
    for (const body of decision.events) {
      const event: PacketEvent = {
        packetId: 'sent',
        seq: (state?.seq ?? 0) + 1,
        at,
        actor: { kind: 'system' },
        origin: null,
        body,
      };
      const own = chainHash(prev, event, sha256);
      await db.query(
        `insert into packet_event (packet_id, seq, at, type, actor, origin, body, act_id, prev_hash, hash) values ('sent', $1, $2, $3, $4, null, $5, $6, $7, $8)`,
        [
          event.seq,
          at,
          body.type,
          JSON.stringify(event.actor),
          JSON.stringify(body),
          body.type === 'mark_filled' ? `${WREN.id}:act-of-long-ago` : null,
          prev,
          own,
        ],
      );
      if (body.type === 'mark_filled')
        await db.query(
          `insert into packet_fill (packet_id, mark_id, party_id, value, at, seq) values ('sent', $1, $2, $3, $4, $5)`,
          [body.markId, body.partyId, JSON.stringify(body.value), at, event.seq],
        );
      state = evolve(state, event);
      prev = own;
    }
  }
  await db.query(
    `update packet set seq = $1, gate = 0, gate_count = 1, marks_total = 2, marks_done = 1, hold_up = 'x', sent_at = $2 where id = 'sent'`,
    [state!.seq, at],
  );
  await db.query(
    `insert into pass (id, packet_id, party_id, token_hash, created_at) values ('pass', 'sent', $1, $2, $3)`,
    [WREN.id, hashSecret(TOKEN, SECRET), at],
  );
  await db.query(
    `insert into message (id, packet_id, deal_id, party_id, kind, to_name, to_email, subject, body_text, body_html, status, created_at)
     values ('message', 'sent', 'deal', $1, 'ask', 'Wren Alder', 'wren@example.com', 'x', 'x', 'x', 'queued', $2)`,
    [WREN.id, at],
  );
}

test.each(['0001_start.sql', '0002_desk.sql', '0003_overlaps.sql', '0004_under_way.sql'])(
  'a database of %s opens, and what was under way goes on',
  async (upTo) => {
    const dir = folder();
    const old: Old = { dir, url: onPostgres() ? await newDatabase(true) : null };
    const before = await open(old);
    await migrate(before.pool, upTo);
    await fill(before.pool, dir, upTo);
    await before.close();

    const env = { DATA_DIR: dir, PORT: '0', SESSION_SECRET: SECRET, ...(old.url ? { DATABASE_URL: old.url } : {}) };
    const running = await buildServer({ config: readConfig(env, { demo: false }), logLevel: 'silent' });
    const server = new InProcess(() => running.app);
    const { pool } = running.ctx.database;
    const signIn = await server.call('signIn', { body: { email: 'odile@example.com', password: 'long enough 1' } });
    server.cookie = signIn.cookie!;
    // Read anew, sent at last, told apart.
    await server.ready('deal', 'doc');
    const draft = await server.ok('packet', { params: { packetId: 'draft' } });
    expect(draft.draft.parties[0]).toMatchObject({ secondStep: 'code', codeKept: true });
    expect(JSON.stringify(draft)).not.toContain('zincwhite');
    expect(draft.dealParties.map((p) => p.ordinal)).toEqual([1, 2]);
    for (
      let n = 0;
      (await pool.query(`select 1 from message where id = 'message' and status = 'kept'`)).rows.length === 0;
      n++
    ) {
      if (n > 600) throw new Error('the queued message was never taken up');
      await new Promise((r) => setTimeout(r, 50));
    }
    // The link of long ago opens, the act of long ago counts once, and the rest is signed.
    const call = <N extends 'signing' | 'fill' | 'finish'>(name: N, body?: unknown, more: { markId?: string } = {}) =>
      server.ok(name, { params: { token: TOKEN, ...more }, body, as: 'nobody' });
    const view = await call('signing');
    expect(view.marks.map((m) => [m.id, m.done])).toEqual([
      ['i', true],
      ['s', false],
    ]);
    await call('fill', { actId: 'act-of-long-ago' }, { markId: 'i' });
    await call('fill', { actId: 'act-of-today' }, { markId: 's' });
    await call('finish', { actId: 'finish-of-today' });
    await server.until('sent', (p) => !!p.sent!.sealed);
    // The draft of long ago can be sent, with its code.
    await server.send('draft');
    // Read models are what the events make.
    for (const id of ['sent', 'draft']) {
      const kept = JSON.stringify(await readModelOf(pool, id));
      await rebuild(pool, id);
      expect(JSON.stringify(await readModelOf(pool, id))).toBe(kept);
      expect((await loadState(pool, id)).state).not.toBeNull();
    }
    await running.close();
    // Opened again, nothing is done twice.
    const again = await open(old);
    expect(await migrate(again.pool)).toEqual([]);
    await again.close();
    if (old.url) await deleteDatabase(old.url);
    removeFolder(dir);
  },
);

test('tables and columns renamed after 0022 keep what was in them', async () => {
  const old: Old = { dir: folder(), url: onPostgres() ? await newDatabase(true) : null };
  const db = await open(old);
  await migrate(db.pool, '0022_members.sql');
  const at = '2026-10-01T12:00:00.000Z';
  const papers = [
    { documentId: 'b', standing: 'out', waits: 'waits for Priya' },
    { documentId: 'a', standing: 'executed', waits: '' },
  ];
  const insert = `insert into deal (id, kind, address, city, time_zone, created_at, standing, keep_until) values ($1, 'sale', 'x', '', 'UTC', $2, $3, '2030-01-31')`;
  await db.pool.query(insert, ['full', at, JSON.stringify({ needs: { requirements: [] }, papers, packets: [] })]);
  await db.pool.query(insert, ['none', at, JSON.stringify({ papers: [] })]);
  await db.pool.query(insert, ['fresh', at, null]);
  await migrate(db.pool);
  const { rows } = await db.pool.query<{ id: string; computed: { papers: object[] } | null; until: string }>(
    'select id, computed, retain_until::text as until from deal order by id',
  );
  expect(rows.map((r) => [r.id, r.computed?.papers ?? null, r.until])).toEqual([
    ['fresh', null, '2030-01-31'],
    ['full', papers.map(({ standing, ...p }) => ({ ...p, status: standing })), '2030-01-31'],
    ['none', [], '2030-01-31'],
  ]);
  for (const table of ['signing_link', 'link_proof', 'saved_view', 'saved_hand', 'paper_review'])
    expect((await db.pool.query(`select count(*)::int as n from ${table}`)).rows).toEqual([{ n: 0 }]);
  await db.close();
  if (old.url) await deleteDatabase(old.url);
  removeFolder(old.dir);
});

test('jobs that waited in the queues of earlier versions wait in the table of jobs', async () => {
  const old: Old = { dir: folder(), url: onPostgres() ? await newDatabase(true) : null };
  const db = await open(old);
  await migrate(db.pool, '0023_words.sql');
  // As far as the library's table mattered here.
  await db.pool.query('create schema pgboss');
  await db.pool.query(
    `create type pgboss.job_state as enum ('created', 'retry', 'active', 'completed', 'cancelled', 'failed')`,
  );
  await db.pool.query(
    `create table pgboss.job (id uuid not null default gen_random_uuid(), name text not null, data jsonb,
       state pgboss.job_state not null, retry_count integer not null default 0, retry_limit integer not null default 2,
       start_after timestamptz not null default now())`,
  );
  const insert = `insert into pgboss.job (name, data, state, retry_count, retry_limit, start_after)
     select x->>'name', x->'data', (x->>'state')::pgboss.job_state, (x->>'tries')::int, 5, '2026-12-24T12:00:00Z'
     from jsonb_array_elements($1::jsonb) x`;
  const one = (name: string, id: string | null, state: string, tries = 0) => ({ name, data: { id }, state, tries });
  const jobs = [
    one('mail', 'a', 'created'),
    one('mail', 'a', 'created'),
    one('mail', 'b', 'retry', 3),
    one('seal', 'c', 'active', 1),
    one('seal', 'd', 'completed'),
    one('seal', 'e', 'failed', 5),
    one('seal', null, 'created'),
  ];
  await db.pool.query(insert, [JSON.stringify(jobs)]);
  await migrate(db.pool);
  const { rows } = await db.pool.query(
    `select name, thing, state, tries, most_tries, start_after = '2026-12-24T12:00:00Z' as then, runner from job
     order by thing`,
  );
  const row = { most_tries: 6, then: true, runner: null };
  expect(rows).toEqual([
    { name: 'mail', thing: 'a', state: 'new', tries: 0, ...row },
    { name: 'mail', thing: 'b', state: 'retry', tries: 3, ...row },
    { name: 'seal', thing: 'c', state: 'retry', tries: 1, ...row },
  ]);
  expect((await db.pool.query(`select 1 from pg_namespace where nspname = 'pgboss'`)).rows).toEqual([]);
  await db.close();
  if (old.url) await deleteDatabase(old.url);
  removeFolder(old.dir);
});

test('several that start at once bring a database up to date once, and a changed migration is refused', async () => {
  if (!onPostgres()) {
    // The embedded database is one server's: here only the refusal.
    const dir = folder();
    const db = await open({ dir, url: null });
    await migrate(db.pool);
    await db.pool.query(`update migration set sha256 = 'x' where name = '0002_desk.sql'`);
    await expect(migrate(db.pool)).rejects.toThrow('0002_desk.sql');
    await db.close();
    removeFolder(dir);
    return;
  }
  const url = await newDatabase(true);
  const databases = await Promise.all([1, 2, 3, 4].map(() => open({ dir: '', url })));
  const ran = await Promise.all(databases.map((d) => migrate(d.pool)));
  expect(ran.filter((r) => r.length)).toEqual([await migrationNames()]);
  const order: string[] = [];
  await Promise.all(
    databases.map((d, i) =>
      exclusively(d, async () => {
        order.push(`in ${i}`);
        await new Promise((r) => setTimeout(r, 20));
        order.push(`out ${i}`);
      }),
    ),
  );
  for (let i = 0; i < order.length; i += 2) expect(order[i]!.slice(3)).toBe(order[i + 1]!.slice(4));
  await Promise.all(databases.map((d) => d.close()));
  await deleteDatabase(url);
});
