/** Two server processes on one PostgreSQL: what one does the other knows, nothing is done twice, and one may be killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { SMTPServer } from 'smtp-server';
import type { DealView, DocumentView, MessageSummary, PacketView, Page, SigningView } from '@gatepath/contract';
import pg from 'pg';
import { deleteDatabase, newDatabase } from './test/postgres';
import { paper } from './test/papers';
import { SERVER_PROGRAM } from './test/program';
import { markEdit } from './test/way';

jest.setTimeout(600_000);

const freePort = () =>
  new Promise<number>((resolve) => {
    const s = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = s.address() as net.AddressInfo;
      s.close(() => resolve(port));
    });
  });
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));
async function until(what: () => boolean | Promise<boolean>, seconds = 180): Promise<void> {
  for (const end = Date.now() + seconds * 1000; Date.now() < end; await pause(50)) if (await what()) return;
  throw new Error('it never came to that');
}

/** Mail as a mail server takes it, by Message-ID; slow, so that much is under way at any moment. */
class Mailbox {
  readonly ids: string[] = [];
  private readonly server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData: (stream, _session, done) => {
      let text = '';
      stream.on('data', (d: Buffer) => (text += d.toString()));
      stream.on('end', () =>
        setTimeout(() => {
          this.ids.push(/^Message-ID: (.+)$/im.exec(text)![1]!);
          done();
        }, 15),
      );
    },
  });
  port = 0;
  async start(): Promise<void> {
    this.port = await freePort();
    // A server that is killed cuts its connections.
    this.server.on('error', () => undefined);
    await new Promise<void>((r) => this.server.listen(this.port, '127.0.0.1', r));
  }
  stop = () => new Promise<void>((r) => this.server.close(r));
}

class Process {
  private child!: ChildProcess;
  private output = '';
  cookie = '';
  private constructor(readonly port: number) {}

  static async start(env: NodeJS.ProcessEnv): Promise<Process> {
    const p = new Process(await freePort());
    p.child = spawn(process.execPath, SERVER_PROGRAM, {
      env: { ...process.env, NODE_OPTIONS: '', HOST: '127.0.0.1', PORT: String(p.port), ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const s of [p.child.stdout!, p.child.stderr!]) s.on('data', (d: Buffer) => (p.output += d.toString()));
    await until(() => {
      if (p.child.exitCode !== null) throw new Error(p.output);
      return p.output.includes('Gate Path is ready');
    });
    return p;
  }

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  async call<T>(method: string, url: string, body?: unknown): Promise<{ status: number; body: T }> {
    const r = await fetch(this.url + url, {
      method,
      headers: { cookie: this.cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const cookie = r.headers.getSetCookie().find((c) => c.startsWith('gatepath_session='));
    if (cookie) this.cookie = cookie.split(';')[0]!;
    return { status: r.status, body: (await r.json().catch(() => null)) as T };
  }

  async ok<T>(method: string, url: string, body?: unknown): Promise<T> {
    const a = await this.call<T>(method, url, body);
    if (a.status >= 300) throw new Error(`${method} ${url}: ${a.status} ${JSON.stringify(a.body)}`);
    return a.body;
  }

  async upload(dealId: string, bytes: Uint8Array): Promise<DocumentView> {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(bytes)]), 'paper.pdf');
    const r = await fetch(`${this.url}/api/deals/${dealId}/documents`, {
      method: 'POST',
      headers: { cookie: this.cookie },
      body: form,
    });
    return (await r.json()) as DocumentView;
  }

  /** Hears a live view; the times at which it was told. */
  async listen(url: string): Promise<{ told: number[]; stop: () => void }> {
    const stop = new AbortController();
    const told: number[] = [];
    const r = await fetch(this.url + url, { headers: { cookie: this.cookie }, signal: stop.signal });
    const reader = r.body!.getReader();
    void (async () => {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return;
        if (Buffer.from(value).toString().includes('data:')) told.push(Date.now());
      }
    })().catch(() => undefined);
    return { told, stop: () => stop.abort() };
  }

  async end(signal: NodeJS.Signals): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return;
    const gone = new Promise((r) => this.child.once('exit', r));
    this.child.kill(signal);
    await gone;
  }
}

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-two-'));
const mailbox = new Mailbox();
let databaseUrl: string;
let db: pg.Pool;
let a: Process;
let b: Process;
let env: NodeJS.ProcessEnv;

beforeAll(async () => {
  await mailbox.start();
  // Empty: both bring it up to date at once, and one of them does.
  databaseUrl = await newDatabase(true);
  db = new pg.Pool({ connectionString: databaseUrl });
  db.on('error', () => undefined);
  env = { DATABASE_URL: databaseUrl, DATA_DIR: dir, SMTP_URL: `smtp://127.0.0.1:${mailbox.port}` };
  [a, b] = await Promise.all([Process.start(env), Process.start(env)]);
  await a.ok('POST', '/api/setup', {
    firmName: 'Towpath & Vane Realty',
    timeZone: 'America/New_York',
    name: 'Odile Farrant',
    email: 'odile@example.com',
    password: 'long enough 1',
  });
  await b.ok('POST', '/api/session', { email: 'odile@example.com', password: 'long enough 1' });
});
afterAll(async () => {
  await Promise.all([a?.end('SIGKILL'), b?.end('SIGKILL')]);
  await db.end();
  await mailbox.stop();
  await deleteDatabase(databaseUrl);
  rmSync(dir, { recursive: true, force: true });
});

/** Sends a packet with a number of sellers at one gate through one of the servers. */
async function send(through: Process, people: string[]): Promise<PacketView> {
  const deal = await through.ok<DealView>('POST', '/api/deals', {
    kind: 'sale',
    address: '14 Lantern Row',
    parties: people.map((name, i) => ({ side: 'seller', name, email: `p${i}@example.com` })),
  });
  const doc = await through.upload(deal.id, await paper({ pages: 1, title: people.join(' ') }));
  await until(async () =>
    (await through.ok<DealView>('GET', `/api/deals/${deal.id}`)).documents.every((d) => d.status === 'ready'),
  );
  const draft = await through.ok<PacketView>('POST', `/api/deals/${deal.id}/packets`, {
    name: 'Papers',
    documentIds: [doc.id],
  });
  const edits = deal.parties.map((p, i) =>
    markEdit(`s${i}`, doc.id, 1, 'signature', p.id, {
      x: 30 + (i % 8) * 70,
      y: 660 + Math.floor(i / 8) * 14,
      w: 60,
      h: 12,
    }),
  );
  const saved = await through.ok<{ version: number }>('POST', `/api/packets/${draft.id}/edits`, { edits });
  return through.ok<PacketView>('POST', `/api/packets/${draft.id}/send`, {
    version: saved.version,
    despiteWarnings: true,
  });
}

test('a client signs at one, and the coordinator’s page at the other moves within two seconds', async () => {
  const deal = await a.ok<DealView>('POST', '/api/deals', {
    kind: 'sale',
    address: '7 Weir Terrace',
    parties: [{ side: 'seller', name: 'Wren Alder', email: 'wren@example.com' }],
  });
  const doc = await b.upload(deal.id, await paper({ pages: 1, title: 'Live' }));
  await until(async () =>
    (await a.ok<DealView>('GET', `/api/deals/${deal.id}`)).documents.every((d) => d.status === 'ready'),
  );
  const draft = await b.ok<PacketView>('POST', `/api/deals/${deal.id}/packets`, {
    name: 'Live',
    documentIds: [doc.id],
  });
  const wren = { ...draft.draft.parties[0]!, act: 'desk' };
  const saved = await b.ok<{ version: number }>('POST', `/api/packets/${draft.id}/edits`, {
    edits: [
      { op: 'put', list: 'parties', item: wren },
      markEdit('s', doc.id, 1, 'signature', wren.id, { x: 60, y: 690, w: 150, h: 24 }),
    ],
  });
  await b.ok('POST', `/api/packets/${draft.id}/send`, { version: saved.version, despiteWarnings: true });
  const { token } = await b.ok<{ token: string }>('POST', `/api/packets/${draft.id}/parties/${wren.id}/host`);
  const live = await b.listen(`/api/live?topics=packet:${draft.id}`);
  const view = await a.ok<SigningView>('GET', `/api/signing/${token}`);
  const steps: [string, string, object][] = [
    ['POST', 'agreement', { agreement: view.agreementText.version }],
    ['PUT', 'hand', { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' }],
    ['PUT', 'marks/s', { actId: 'act-of-wren' }],
    ['POST', 'finish', { actId: 'finish-of-wren' }],
  ];
  for (const [method, what, body] of steps) {
    const before = live.told.length;
    const at = Date.now();
    await a.ok(method, `/api/signing/${token}/${what}`, body);
    await until(() => live.told.length > before);
    expect(live.told[live.told.length - 1]! - at).toBeLessThan(2_000);
  }
  live.stop();
  // Sealed once, whoever did it; both have the copy.
  await until(async () => !!(await b.ok<PacketView>('GET', `/api/packets/${draft.id}`)).sent!.sealed);
  const sealed = await db.query(`select 1 from packet_event where packet_id = $1 and type in ('revised', 'sealed')`, [
    draft.id,
  ]);
  expect(sealed.rows).toHaveLength(2);
  for (const server of [a, b]) {
    const r = await fetch(`${server.url}/api/packets/${draft.id}/sealed/${doc.id}`, {
      headers: { cookie: server.cookie },
    });
    expect(r.status).toBe(200);
  }
});

test('wrong passwords given to both are counted together', async () => {
  const statuses = await Promise.all(
    Array.from({ length: 20 }, async (_, i) => {
      const r = await fetch(`${(i % 2 ? a : b).url}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email: 'somebody@example.com', password: `wrong ${i}` }),
      });
      return r.status;
    }),
  );
  expect(statuses.filter((s) => s === 401)).toHaveLength(8);
  expect(statuses.filter((s) => s === 429)).toHaveLength(12);
});

test('two hundred messages go out once each, also when one of the two is killed in the middle', async () => {
  const packets = [];
  for (let i = 0; i < 5; i++)
    packets.push(
      await send(
        i % 2 ? a : b,
        Array.from({ length: 40 }, (_, k) => `Seller ${i}-${k}`),
      ),
    );
  expect(packets).toHaveLength(5);
  await until(() => mailbox.ids.length >= 40);
  await a.end('SIGKILL');
  const left = async () =>
    Number((await db.query(`select count(*) as n from message where status not in ('sent', 'kept')`)).rows[0].n);
  // What the killed one had taken is the other's once its lease is over; here it need not wait so long.
  await pause(1_000);
  await db.query(
    `update job set leased_at = now() - interval '1 day' where name = 'mail' and state = 'running' and leased_at < now() - interval '900 milliseconds'`,
  );
  await db.query(
    `update message set sending_at = null where status = 'queued' and sending_at < now() - interval '900 milliseconds'`,
  );
  await until(async () => (await left()) === 0, 300);
  const { rows } = await db.query<{ id: string }>(`select id from message where kind = 'ask'`);
  expect(rows.length).toBeGreaterThanOrEqual(200);
  const sent = new Map<string, number>();
  for (const id of mailbox.ids) sent.set(id, (sent.get(id) ?? 0) + 1);
  // Each went out; one that was with the mail server at that moment may have come twice, under one Message-ID.
  for (const { id } of rows) expect(sent.get(`<${id}@gatepath.invalid>`) ?? 0).toBeGreaterThan(0);
  expect([...sent.values()].filter((n) => n > 1).length).toBeLessThanOrEqual(8);
  const page = await b.ok<Page<MessageSummary>>('GET', '/api/mailroom?limit=100');
  expect(page.items.every((m) => m.status === 'sent')).toBe(true);
});

test('the one that is left goes on, and another takes its place', async () => {
  a = await Process.start(env);
  a.cookie = b.cookie;
  const packet = await send(a, ['Una Vane']);
  const { partyId } = packet.sent!.parties[0]!;
  await b.ok('POST', `/api/packets/${packet.id}/changes`, { type: 'renew_link', partyId });
  expect((await a.ok<PacketView>('GET', `/api/packets/${packet.id}`)).status).toBe('at_gate');
  const chain = await db.query<{ n: string; d: string }>(
    'select count(*) as n, count(distinct seq) as d from packet_event where packet_id = $1',
    [packet.id],
  );
  expect(chain.rows[0]!.n).toBe(chain.rows[0]!.d);
});
