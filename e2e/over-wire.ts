/** A member's side over the wire, by the names of the routes: to a server that may be killed meanwhile. */
import type { InjectOptions } from 'fastify';
import type { ProblemDetails } from '@gatepath/contract';
import { InProcess, type Answer } from '../server/in-process';
import { SESSION_COOKIE } from '../server/firm/session';

export class OverWire extends InProcess {
  constructor(private readonly base: () => string) {
    super(() => {
      throw new Error('this one goes over the wire');
    });
  }

  override async inject<T>(options: InjectOptions): Promise<Answer<T>> {
    const query = new URLSearchParams(options.query as Record<string, string> | undefined).toString();
    const body = options.payload;
    const r = await fetch(`${this.base()}${String(options.url)}${query ? `?${query}` : ''}`, {
      method: options.method ?? 'GET',
      headers: {
        // A connection kept from before a kill must not be used again.
        connection: 'close',
        cookie: `${SESSION_COOKIE}=${this.cookie}`,
        ...(body === undefined || Buffer.isBuffer(body) ? {} : { 'content-type': 'application/json' }),
        ...(options.headers as Record<string, string> | undefined),
      },
      ...(body === undefined ? {} : { body: Buffer.isBuffer(body) ? new Uint8Array(body) : JSON.stringify(body) }),
    });
    const raw = Buffer.from(await r.arrayBuffer());
    const json = () => JSON.parse(raw.toString('utf8')) as unknown;
    const cookie = /gatepath[^=]*=([^;]+)/.exec(r.headers.get('set-cookie') ?? '')?.[1] ?? null;
    return {
      status: r.status,
      get body() {
        return json() as T;
      },
      get problem() {
        return json() as ProblemDetails;
      },
      raw,
      cookie,
    };
  }
}
