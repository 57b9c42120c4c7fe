/** A real server on a copy of the template database, with helpers that act as members and clients do. */
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { InjectOptions } from 'fastify';
import { pathOf, routes, type RouteName, type DealView, type DocumentView, type PacketView, type SigningView, type MessageSummary, type Page } from '@gatepath/contract';
import type { DraftEdit } from '@gatepath/core/marks';
import { buildServer, type Running } from '../app';
import { readConfig } from '../config';
import { readingDone } from '../documents/service';
import { SESSION_COOKIE } from '../firm/routes';
import { TEMPLATE_DIR } from './template';

export interface Answer<T = unknown> {
  status: number;
  body: T;
  raw: Buffer;
  cookie: string | null;
}

export class TestServer {
  cookie = '';
  private constructor(
    readonly running: Running,
    readonly dir: string,
  ) {}

  /** Starts a server; with `setUp` the firm and its first member are there and signed in. */
  static async start(options: { setUp?: boolean; env?: NodeJS.ProcessEnv; dir?: string } = {}): Promise<TestServer> {
    const dir = options.dir ?? mkdtempSync(path.join(os.tmpdir(), 'gatepath-test-'));
    if (!existsSync(path.join(dir, 'database'))) cpSync(TEMPLATE_DIR, dir, { recursive: true });
    const config = readConfig({ DATA_DIR: dir, PORT: '0', ...options.env }, { demo: false });
    const server = new TestServer(await buildServer({ config, logLevel: 'silent' }), dir);
    if (options.setUp !== false) await server.setUp();
    return server;
  }

  async setUp(): Promise<void> {
    const a = await this.call('setup', {
      body: { firmName: 'Towpath & Vane Realty', timeZone: 'America/New_York', name: 'Odile Farrant', email: 'odile@example.com', password: 'long enough 1' },
    });
    if (a.status !== 200) throw new Error(`set-up failed: ${a.raw.toString()}`);
    this.cookie = a.cookie!;
  }

  async stop(keep = false): Promise<void> {
    await this.running.close();
    if (!keep) rmSync(this.dir, { recursive: true, force: true });
  }

  get ctx() {
    return this.running.ctx;
  }

  async inject<T = unknown>(options: InjectOptions): Promise<Answer<T>> {
    const r = await this.running.app.inject(options);
    const json = /json/.test(String(r.headers['content-type'] ?? ''));
    return {
      status: r.statusCode,
      body: (json ? r.json() : null) as T,
      raw: r.rawPayload,
      cookie: r.cookies.find((c) => c.name === SESSION_COOKIE)?.value ?? null,
    };
  }

  /** Calls a route of the contract, signed in unless `as` says otherwise. */
  call<T = unknown>(
    name: RouteName,
    o: { params?: Record<string, string | number>; body?: unknown; query?: Record<string, string>; as?: 'nobody' } = {},
  ): Promise<Answer<T>> {
    return this.inject<T>({
      method: routes[name].method,
      url: pathOf(name, o.params),
      query: o.query,
      ...(o.body === undefined ? {} : { payload: o.body as object }),
      ...(o.as === 'nobody' || !this.cookie ? {} : { cookies: { [SESSION_COOKIE]: this.cookie } }),
    });
  }

  /** Like `call`, but anything except success is an error with the server's words. */
  async ok<T>(name: RouteName, o: Parameters<TestServer['call']>[1] = {}): Promise<T> {
    const a = await this.call<T>(name, o);
    if (a.status >= 300) throw new Error(`${name}: ${a.status} ${a.raw.toString().slice(0, 400)}`);
    return a.body;
  }

  upload(dealId: string, fileName: string, bytes: Uint8Array): Promise<Answer<DocumentView>> {
    const edge = '----gatepath-test';
    const head = `--${edge}\r\nContent-Disposition: form-data; name="file"; filename="${fileName}"\r\nContent-Type: application/pdf\r\n\r\n`;
    return this.inject<DocumentView>({
      method: 'POST',
      url: pathOf('addDocument', { dealId }),
      headers: { 'content-type': `multipart/form-data; boundary=${edge}` },
      payload: Buffer.concat([Buffer.from(head), Buffer.from(bytes), Buffer.from(`\r\n--${edge}--\r\n`)].map((b) => new Uint8Array(b))),
      cookies: { [SESSION_COOKIE]: this.cookie },
    });
  }

  async uploadReady(dealId: string, fileName: string, bytes: Uint8Array): Promise<DocumentView> {
    const a = await this.upload(dealId, fileName, bytes);
    if (a.status !== 200) throw new Error(a.raw.toString());
    await readingDone();
    const deal = await this.ok<DealView>('deal', { params: { dealId } });
    return deal.documents.find((d) => d.id === a.body.id)!;
  }

  edit(packetId: string, edits: DraftEdit[]): Promise<{ version: number }> {
    return this.ok('editPacket', { params: { packetId }, body: { edits } });
  }

  async send(packetId: string): Promise<PacketView> {
    const { version } = await this.ok<PacketView>('packet', { params: { packetId } });
    return this.ok<PacketView>('sendPacket', { params: { packetId }, body: { version, despiteWarnings: true } });
  }

  /** The signing link's secret from the newest message of a kind to a person. */
  async tokenFor(packetId: string, name: string, kind = 'ask'): Promise<string> {
    const page = await this.ok<Page<MessageSummary>>('mailroom', { query: { packetId, limit: '100' } });
    const link = page.items.find((m) => m.toName === name && m.kind === kind)?.link;
    if (!link) throw new Error(`${name} has no message of kind ${kind}`);
    return link.split('/').pop()!;
  }

  /** Does everything a client has to do, one act at a time. */
  async signAll(token: string, hand: unknown): Promise<SigningView> {
    const o = (body: unknown, more: Record<string, string> = {}) => ({ params: { token, ...more }, body, as: 'nobody' as const });
    const view = await this.ok<SigningView>('signing', { params: { token }, as: 'nobody' });
    await this.ok('agree', o({ agreement: view.agreementText.version }));
    await this.ok('setHand', o(hand));
    for (const m of view.marks.filter((x) => !x.automatic))
      await this.ok('fill', o({ actId: `act-${m.id}`, ...(m.kind === 'text' ? { text: 'As agreed' } : {}) }, { markId: m.id }));
    return this.ok<SigningView>('finish', o({ actId: 'finish' }));
  }

  /** Waits until a packet satisfies a condition; fails after half a minute. */
  async until(packetId: string, what: (p: PacketView) => boolean): Promise<PacketView> {
    for (let i = 0; i < 300; i++) {
      const p = await this.ok<PacketView>('packet', { params: { packetId } });
      if (what(p)) return p;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the packet did not get there');
  }
}

export const typedHand = (name: string, initials: string) => ({ form: 'typed', face: 'caveat', signature: name, initials });
