import { EventEmitter } from 'node:events';
import type pg from 'pg';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { newId } from '../ids';
import { Problem } from '../problem';

const CHANNEL = 'gatepath_live';
/** Topics told to other servers in one go; a notice of PostgreSQL holds 8,000 bytes. */
const A_NOTICE = 40;
const AGAIN_MS = 1_000;

/** A topic that changed, and for packets how far their log goes now. */
export interface Told {
  topic: string;
  seq?: number;
}

/** How a stream of a client is bounded and ended. */
export interface StreamOptions {
  /** Whose streams are counted together. */
  owner: string;
  /** Whether it may still be told; asked with every telling. */
  mayHear: () => Promise<boolean>;
  /** How many the owner may have open; further ones are refused, so that a browser does not come again and again. */
  most: number;
}

/**
 * Tells open screens that something changed, also those at other servers of the same database. The
 * message carries no data but the topic: the screen asks again through the ordinary routes, with
 * the ordinary rights.
 */
export class Live {
  private readonly emitter = new EventEmitter().setMaxListeners(0);
  private readonly id = newId();
  private readonly streams = new Map<string, (() => void)[]>();
  private waiting: Told[] = [];
  private listener: pg.Client | null = null;
  private closed = false;
  private again: NodeJS.Timeout | null = null;

  /**
   * @param shared  where several servers share a database: its pool, and how a connection to listen on is made
   * @param onError told of notices that could not be sent; screens ask again by themselves after a lost connection
   */
  constructor(
    private readonly shared: { pool: pg.Pool; connect: () => pg.Client } | null = null,
    private readonly onError: (error: unknown) => void = () => undefined,
  ) {}

  /** Subscribes to the notifications of other servers. */
  async start(): Promise<void> {
    if (!this.shared || this.closed) return;
    const client = this.shared.connect();
    const lost = () => {
      if (this.listener !== client) return;
      this.listener = null;
      client.removeAllListeners();
      client.on('error', () => undefined);
      void client.end().catch(() => undefined);
      if (!this.closed) this.again = setTimeout(() => void this.start().catch(this.onError), AGAIN_MS);
    };
    this.listener = client;
    client.on('error', lost).on('end', lost);
    client.on('notification', ({ payload }) => this.hear(payload ?? ''));
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
    } catch (error) {
      lost();
      throw error;
    }
  }

  notify(topic: string, seq?: number): void {
    this.emitter.emit(topic, { topic, seq });
    if (!this.shared || this.closed) return;
    if (!this.waiting.length) setImmediate(() => this.pass());
    this.waiting.push({ topic, seq });
  }

  /** Subscribes to a topic in this process. @returns a function that unsubscribes */
  on(topic: string, hear: (told: Told) => void): () => void {
    this.emitter.on(topic, hear);
    return () => this.emitter.off(topic, hear);
  }

  /** Serves server-sent events for `topics` until the client disconnects or loses access. */
  serve(request: FastifyRequest, reply: FastifyReply, topics: string[], options: StreamOptions): void {
    const own = this.streams.get(options.owner) ?? [];
    if (own.length >= options.most)
      throw new Problem('too-many', 'This is open in too many places at once. Close one of them.');
    reply.hijack();
    const raw = reply.raw;
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
      connection: 'keep-alive',
    });
    raw.write('retry: 2000\n\n');
    const send = ({ topic, seq }: Told) => raw.write(`data: ${seq === undefined ? topic : `${topic} ${seq}`}\n\n`);
    // Queried once for all news that comes meanwhile: a busy firm has many at a time.
    let waiting: Map<string, Told> | null = null;
    const hear = (told: Told) => {
      if (waiting) return void waiting.set(told.topic, told);
      const all = (waiting = new Map([[told.topic, told]]));
      const pass = (may: boolean) => {
        waiting = null;
        // Sent once more before the end, so that the screen asks and learns why.
        if (!raw.writableEnded) for (const t of all.values()) send(t);
        if (!may) end();
      };
      options.mayHear().then(pass, () => pass(true));
    };
    const beat = setInterval(() => raw.write(': still here\n\n'), 20_000);
    for (const t of topics) this.emitter.on(t, hear);
    const { emitter } = this;
    const end = () => {
      clearInterval(beat);
      for (const t of topics) emitter.off(t, hear);
      emitter.off('close-all', end);
      own.splice(own.indexOf(end), own.includes(end) ? 1 : 0);
      if (!own.length) this.streams.delete(options.owner);
      raw.end();
    };
    emitter.on('close-all', end);
    own.push(end);
    this.streams.set(options.owner, own);
    request.raw.on('close', end);
  }

  /** Ends every stream, so that the server can stop. */
  async close(): Promise<void> {
    this.closed = true;
    if (this.again) clearTimeout(this.again);
    this.emitter.emit('close-all');
    const { listener } = this;
    this.listener = null;
    listener?.removeAllListeners();
    listener?.on('error', () => undefined);
    await listener?.end().catch(() => undefined);
  }

  private hear(payload: string): void {
    try {
      const { from, told }: { from: string; told: Told[] } = JSON.parse(payload);
      if (from !== this.id) for (const t of told) this.emitter.emit(t.topic, t);
    } catch {
      // Not one of ours.
    }
  }

  private pass(): void {
    const latest = [...new Map(this.waiting.map((t) => [t.topic, t])).values()];
    this.waiting = [];
    for (let i = 0; i < latest.length; i += A_NOTICE) {
      const payload = JSON.stringify({ from: this.id, told: latest.slice(i, i + A_NOTICE) });
      this.shared!.pool.query('select pg_notify($1, $2)', [CHANNEL, payload]).catch((error: unknown) => {
        if (!this.closed) this.onError(error);
      });
    }
  }
}

/** Topic names, in one place. */
export const topics = {
  packet: (id: string) => `packet:${id}`,
  deal: (id: string) => `deal:${id}`,
  shelf: (id: string) => `shelf:${id}`,
  notice: (id: string) => `notice:${id}`,
  incoming: (id: string) => `incoming:${id}`,
  mailroom: () => 'mailroom',
  deals: () => 'deals',
  /** What stands on first screens. */
  today: () => 'today:firm',
  firm: () => 'firm',
  work: (queue: string) => `work:${queue}`,
};
