/** A server that is killed in the middle of signing has every act it answered. */
import { execFileSync } from 'node:child_process';
import http from 'node:http';
import type { DealView, DocumentView, MessageSummary, PacketView, SigningView } from '@gatepath/contract';
import { PDFDocument } from '@cantoo/pdf-lib';
import { ROOT, ServerProcess } from './server';

jest.setTimeout(240_000);

let server: ServerProcess;
let cookie = '';
beforeAll(async () => {
  server = await ServerProcess.start({}, { embedded: true });
});
afterAll(() => server?.remove());

async function call<T>(method: string, path: string, body?: unknown, form?: FormData): Promise<T> {
  const r = await fetch(server.url + path, {
    method,
    // A connection kept from before a kill must not be used again.
    headers: { connection: 'close', cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    body: form ?? (body === undefined ? undefined : JSON.stringify(body)),
  });
  const set = r.headers.get('set-cookie');
  if (set) cookie = set.split(';')[0]!;
  if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`);
  return (await r.json()) as T;
}

test('the bare address shows the application, also to those who take nothing compressed', async () => {
  const answer = await new Promise<{ status?: number; type?: string }>((resolve, reject) => {
    http
      .get(server.url, (r) => {
        r.resume();
        resolve({ status: r.statusCode, type: r.headers['content-type'] });
      })
      .on('error', reject);
  });
  expect(answer).toEqual({ status: 200, type: 'text/html; charset=utf-8' });
});

test('every answered act survives SIGKILL, and the read models equal a rebuild from the events', async () => {
  await call('POST', '/api/setup', {
    firmName: 'Towpath & Vane Realty',
    timeZone: 'America/New_York',
    name: 'Odile',
    email: 'odile@example.com',
    password: 'a long password',
  });
  const deal = await call<DealView>('POST', '/api/deals', {
    kind: 'listing',
    address: '88 Orchard Lane',
    parties: [{ side: 'seller', name: 'Wren Alder', email: 'wren@example.com' }],
  });
  const doc = await PDFDocument.create();
  for (let i = 0; i < 30; i++) doc.addPage([612, 792]);
  const form = new FormData();
  form.append('file', new Blob([(await doc.save()).slice().buffer], { type: 'application/pdf' }), 'thirty.pdf');
  const { id: documentId } = await call<DocumentView>('POST', `/api/deals/${deal.id}/documents`, undefined, form);
  while ((await call<DealView>('GET', `/api/deals/${deal.id}`)).documents[0]!.status !== 'ready')
    await new Promise((r) => setTimeout(r, 100));
  const packet = await call<PacketView>('POST', `/api/deals/${deal.id}/packets`, {
    name: 'Thirty pages',
    documentIds: [documentId],
  });
  const wren = deal.parties[0]!.id;
  const { version } = await call<{ version: number }>('POST', `/api/packets/${packet.id}/edits`, {
    edits: [
      {
        op: 'put',
        list: 'rules',
        item: { id: 'r', documentId, partyIds: [wren], anchor: { fx: 0, fy: 1 }, except: [], moved: [] },
      },
      {
        op: 'put',
        list: 'marks',
        item: {
          id: 's',
          documentId,
          page: 30,
          kind: 'signature',
          partyId: wren,
          rect: { x: 100, y: 100, w: 150, h: 30 },
          required: true,
        },
      },
    ],
  });
  await call('POST', `/api/packets/${packet.id}/send`, { version });
  const mail = await call<{ items: MessageSummary[] }>('GET', '/api/mailroom');
  const sign = `/api/signing/${mail.items[0]!.link!.split('/sign/')[1]}`;
  const view = await call<SigningView>('GET', sign);
  await call('POST', `${sign}/agreement`, { agreement: view.agreementText.version });
  await call('PUT', `${sign}/hand`, { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' });

  const answered = new Set<string>();
  const places = view.marks.filter((m) => m.kind === 'initials');
  for (const kills of [7, 19]) {
    // Acts go on while the kill strikes: those whose answer never comes may or may not be there.
    let killed: Promise<void> | null = null;
    const running = (async () => {
      for (const m of places) {
        if (answered.has(m.id)) continue;
        await call('PUT', `${sign}/marks/${m.id}`, { actId: `act-${m.id}` });
        answered.add(m.id);
        if (answered.size >= kills) killed ??= server.kill();
      }
    })();
    await expect(running).rejects.toThrow();
    await killed;
    await server.up();
    const after = await call<SigningView>('GET', sign);
    const there = new Set(after.marks.filter((m) => m.done).map((m) => m.id));
    for (const id of answered) expect(there.has(id)).toBe(true);
    expect(there.size - answered.size).toBeLessThanOrEqual(1);
    for (const id of there) answered.add(id);
  }
  for (const m of view.marks.filter((x) => !answered.has(x.id)))
    await call('PUT', `${sign}/marks/${m.id}`, { actId: `act-${m.id}` });
  await call('POST', `${sign}/finish`, { actId: 'finish' });
  let last = await call<PacketView>('GET', `/api/packets/${packet.id}`);
  for (let i = 0; i < 200 && !last.sent!.sealed; i++) {
    await new Promise((r) => setTimeout(r, 150));
    last = await call<PacketView>('GET', `/api/packets/${packet.id}`);
  }
  expect(last.sent!.sealed).toHaveLength(1);
  expect(await server.stop()).toBe(0);
  const out = execFileSync(process.execPath, ['--import', 'tsx', 'server/packets/rebuild-cli.ts'], {
    cwd: ROOT,
    env: { ...process.env, NODE_OPTIONS: '', DATA_DIR: server.dir },
  });
  expect(out.toString()).toMatch(/^1 packet and \d+ files, all as they should be/m);
});
