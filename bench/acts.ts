/** Acts of 200 clients at once over HTTP, against a bare route that inserts one row into the same kind of database. */
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import Fastify from 'fastify';
import type { SigningView } from '@gatepath/contract';
import { type Plan, emptyDraft } from '@gatepath/core/packet';
import type { PacketCommand } from '@gatepath/core/routing';
import { openDatabase } from '../server/db/pool';
import { inTransaction } from '../server/db/tx';
import { newId } from '../server/ids';
import { insertPacket } from '../server/packets/queries';
import { makeLinkSecret } from '../server/links/links';
import { withFirm } from './firm';
import { rowOf, type Row } from './measure';

const CLIENTS = 200;
const ACTS = 10;

const agent = new Agent({ keepAlive: true, maxSockets: CLIENTS + 10 });
function send(port: number, method: string, url: string, body?: unknown): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const r = request(
      {
        port,
        host: '127.0.0.1',
        method,
        path: url,
        agent,
        headers: text ? { 'content-type': 'application/json' } : {},
      },
      (answer) => {
        let all = '';
        answer.on('data', (d: Buffer) => (all += d.toString()));
        answer.on('end', () =>
          answer.statusCode! < 300
            ? resolve(JSON.parse(all))
            : reject(new Error(`${answer.statusCode} ${all.slice(0, 200)}`)),
        );
      },
    );
    r.on('error', reject);
    r.end(text);
  });
}

interface Load {
  ms: number;
  /** Of each act, in order of size. */
  times: number[];
}

/** Runs all clients at once; each does its acts one after another. */
async function load(act: (client: number, n: number) => Promise<unknown>): Promise<Load> {
  const times: number[] = [];
  const begin = performance.now();
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, client) => {
      for (let n = 0; n < ACTS; n++) {
        const at = performance.now();
        await act(client, n);
        times.push(performance.now() - at);
      }
    }),
  );
  return { ms: performance.now() - begin, times: times.sort((a, b) => a - b) };
}

async function bare(): Promise<Load> {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-bench-'));
  const database = await openDatabase({ databaseUrl: null, dataDir: dir });
  await database.pool.query('create table act (id bigserial primary key, body jsonb not null)');
  const app = Fastify();
  app.put('/act', async (r) => {
    await database.pool.query('insert into act (body) values ($1)', [JSON.stringify(r.body)]);
    return { ok: true };
  });
  await app.listen({ port: 0, host: '127.0.0.1' });
  const { port } = app.server.address() as AddressInfo;
  const act = (client: number, n: number) => send(port, 'PUT', '/act', { actId: `act-${client}-${n}`, text: 'x' });
  await load(act);
  const done = await load(act);
  await app.close();
  await database.close();
  rmSync(dir, { recursive: true, force: true });
  return done;
}

export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const { ctx } = running;
    const deal = await desk.ok('newDeal', { body: { kind: 'sale', address: '14 Lantern Row' } });
    const { rows: members } = await ctx.database.pool.query<{ id: string }>('select id from member');
    const tokens: string[] = [];
    for (let i = 0; i < CLIENTS; i++) {
      const id = newId();
      const party = {
        id: 'wren',
        name: 'Wren Alder',
        email: '',
        phone: null,
        side: 'seller' as const,
        ordinal: 1,
        act: 'sign' as const,
        ink: 0,
      };
      const plan: Plan = {
        packetName: 'Papers',
        dealName: '14 Lantern Row',
        timeZone: 'UTC',
        subject: '',
        message: '',
        parties: [party],
        gates: [{ id: 'g', partyIds: ['wren'] }],
        documents: [
          {
            id: 'd',
            name: 'Paper',
            sha256: '0'.repeat(64),
            pages: Array.from({ length: 12 }, () => ({ width: 612, height: 792 })),
          },
        ],
        marks: Array.from({ length: ACTS * 2 + 2 }, (_, n) => ({
          id: `m${n}`,
          documentId: 'd',
          page: 1 + (n % 12),
          kind: 'initials' as const,
          partyId: 'wren',
          rect: { x: 60, y: 700, w: 54, h: 22 },
          required: true,
        })),
      };
      await inTransaction(ctx.database.pool, async (tx) => {
        await insertPacket(tx.db, {
          id,
          deal_id: deal.id,
          name: 'Papers',
          draft: { ...emptyDraft('Papers'), parties: [party] },
          created_by: members[0]!.id,
          at: new Date(),
        });
        tokens.push(await makeLinkSecret(ctx, tx, id, 'wren'));
      });
      const by = { actor: { kind: 'party' as const, id: 'wren' }, origin: null };
      const commands: PacketCommand[] = [
        { type: 'send', plan },
        { type: 'open', partyId: 'wren' },
        { type: 'agree', partyId: 'wren', agreement: 'v' },
        {
          type: 'set_hand',
          partyId: 'wren',
          hand: { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' },
        },
      ];
      for (const c of commands) await ctx.packets.run(id, c, by);
    }
    await running.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = running.app.server.address() as AddressInfo;
    const seqs = await Promise.all(
      tokens.map(async (t) => ((await send(port, 'GET', `/api/signing/${t}`)) as SigningView).seq),
    );
    const act = (round: number) => async (client: number, n: number) => {
      const answer = (await send(port, 'PUT', `/api/signing/${tokens[client]}/marks/m${round * ACTS + n}`, {
        actId: `act-${round}-${n}-client`,
        since: seqs[client],
      })) as { patch?: { seq: number } } & Partial<SigningView>;
      seqs[client] = answer.patch?.seq ?? answer.seq!;
    };
    await load(act(0));
    // Somebody opens a link all the while.
    let over = false;
    let slowest = 0;
    const opening = (async () => {
      for (let n = 0; !over; n++) {
        const at = performance.now();
        await send(port, 'GET', `/api/signing/${tokens[n % CLIENTS]}`);
        slowest = Math.max(slowest, performance.now() - at);
        await new Promise((r) => setTimeout(r, 50));
      }
    })();
    const ours = await load(act(1));
    over = true;
    await opening;
    const theirs = await bare();
    const at = (l: Load, part: number) => l.times[Math.floor(part * (l.times.length - 1))]!;
    return [
      rowOf(
        'an act, of 200 clients at once',
        ours.ms / ours.times.length,
        'a bare route that inserts one row',
        theirs.ms / theirs.times.length,
      ),
      rowOf('the slow hundredth of these acts', at(ours, 0.99), 'their median', at(ours, 0.5)),
      rowOf('the slowest opening of a link meanwhile', slowest, 'two seconds', 2_000),
    ];
  });
}
