/** Acts on a server in the same process as members and clients do, through its real routes. For the demo world and the tests. */
import type { FastifyInstance, InjectOptions } from 'fastify';
import {
  paths,
  pathWith,
  type DocumentView,
  type HandBody,
  type PacketView,
  type PathValues,
  type ProblemDetails,
  type RouteName,
  type SigningView,
} from '@gatepath/contract';
import type { AnswerOf, FileRoute } from '@gatepath/contract/routes';
import type { DraftEdit } from '@gatepath/core/packet';
import { SESSION_COOKIE } from './firm/session';

/** What came back: `body` where it went well, `problem` where it did not. Asking for the other one is a mistake. */
export interface Answer<T> {
  status: number;
  readonly body: T;
  readonly problem: ProblemDetails;
  raw: Buffer;
  cookie: string | null;
}

/** What is sent with a call. */
export interface CallOptions {
  params?: Partial<PathValues>;
  /** What is sent, right or wrong. */
  body?: unknown;
  query?: Record<string, string>;
  as?: 'nobody';
  headers?: Record<string, string>;
}

/** A caller of a server in the same process, through its real routes. */
export class InProcess {
  cookie = '';
  constructor(private readonly app: () => FastifyInstance) {}

  async inject<T = unknown>(options: InjectOptions): Promise<Answer<T>> {
    const r = await this.app().inject(options);
    const type = String(r.headers['content-type'] ?? '');
    const json: unknown = type.includes('json') && !r.headers['content-encoding'] ? r.json() : null;
    const isProblem = type.startsWith('application/problem+json');
    const told = (wanted: boolean) => {
      if (isProblem !== wanted) throw new Error(`${r.statusCode} ${r.payload.slice(0, 400)}`);
      return json;
    };
    return {
      status: r.statusCode,
      get body() {
        return told(false) as T;
      },
      get problem() {
        return told(true) as ProblemDetails;
      },
      raw: r.rawPayload,
      cookie: r.cookies.find((c) => c.name === SESSION_COOKIE)?.value ?? null,
    };
  }

  /** Hears of every answer; the tests hold it against the contract. */
  protected heard(_name: RouteName, _answer: Answer<unknown>): void {
    // Nobody listens here.
  }

  /** Calls a route of the contract, signed in unless `as` says otherwise. */
  async call<N extends RouteName>(name: N, o: CallOptions = {}): Promise<Answer<AnswerOf<N>>> {
    const answer = await this.inject<AnswerOf<N>>({
      method: paths[name].method,
      url: pathWith(name, o.params ?? {}),
      query: o.query,
      headers: o.headers,
      ...(o.body === undefined ? {} : { payload: o.body as object }),
      ...(o.as === 'nobody' || !this.cookie ? {} : { cookies: { [SESSION_COOKIE]: this.cookie } }),
    });
    this.heard(name, answer);
    return answer;
  }

  /** Calls a route like `call`. @throws with the server's message unless it succeeds */
  async ok<N extends RouteName>(name: N, o: CallOptions = {}): Promise<AnswerOf<N>> {
    const a = await this.call(name, o);
    if (a.status >= 300) throw new Error(`${name}: ${a.status} ${a.raw.toString().slice(0, 400)}`);
    return a.body;
  }

  upload(dealId: string, fileName: string, bytes: Uint8Array): Promise<Answer<DocumentView>> {
    return this.post('addDocument', { dealId }, fileName, bytes);
  }

  /** Sends one file to a route that takes one. */
  async post<N extends FileRoute>(
    name: N,
    params: Partial<PathValues>,
    fileName: string,
    bytes: Uint8Array,
    query?: Record<string, string>,
  ): Promise<Answer<AnswerOf<N>>> {
    const edge = '----gatepath-part';
    const head = `--${edge}\r\nContent-Disposition: form-data; name="file"; filename="${fileName}"\r\nContent-Type: application/pdf\r\n\r\n`;
    const parts = [Buffer.from(head), Buffer.from(bytes), Buffer.from(`\r\n--${edge}--\r\n`)];
    const answer = await this.inject<AnswerOf<N>>({
      method: 'POST',
      url: pathWith(name, params),
      query,
      headers: { 'content-type': `multipart/form-data; boundary=${edge}` },
      payload: Buffer.concat(parts.map((b) => new Uint8Array(b))),
      cookies: { [SESSION_COOKIE]: this.cookie },
    });
    this.heard(name, answer);
    return answer;
  }

  /** Adds a PDF and waits until its pages are read. */
  async uploadReady(dealId: string, fileName: string, bytes: Uint8Array): Promise<DocumentView> {
    const a = await this.upload(dealId, fileName, bytes);
    if (a.status !== 200) throw new Error(a.raw.toString());
    return this.ready(dealId, a.body.id);
  }

  /** Returns a document once its pages are read. */
  async ready(dealId: string, documentId: string): Promise<DocumentView> {
    for (let n = 0; n < 3_000; n++) {
      const deal = await this.ok('deal', { params: { dealId } });
      const document = deal.documents.find((d) => d.id === documentId)!;
      if (document.status !== 'reading') return document;
      await new Promise((r) => setTimeout(r, 40));
    }
    throw new Error('the document was never read');
  }

  edit(packetId: string, edits: DraftEdit[]): Promise<{ version: number }> {
    return this.ok('editPacket', { params: { packetId }, body: { edits } });
  }

  async send(packetId: string): Promise<PacketView> {
    const { version } = await this.ok('packet', { params: { packetId } });
    return this.ok('sendPacket', { params: { packetId }, body: { version, despiteWarnings: true } });
  }

  /** Returns the secret of the signing link in the newest message of a kind to a person. */
  async tokenFor(packetId: string, name: string, kind = 'ask'): Promise<string> {
    const page = await this.ok('mailroom', { query: { packetId, limit: '100' } });
    const link = page.items.find((m) => m.toName === name && m.kind === kind)?.link;
    if (!link) throw new Error(`${name} has no message of kind ${kind}`);
    return link.split('/').pop()!;
  }

  /** Does a client's acts one by one; all of them, or the first `stopAfter`, which leaves it unfinished. */
  async sign(
    token: string,
    hand: HandBody,
    stopAfter = Infinity,
    headers?: Record<string, string>,
  ): Promise<SigningView> {
    const o = (body: unknown, more: Record<string, string> = {}): CallOptions => ({
      params: { token, ...more },
      body,
      as: 'nobody',
      headers,
    });
    const view = await this.ok('signing', { params: { token }, as: 'nobody', headers });
    await this.ok('agree', o({ agreement: view.agreementText.version }));
    let last: AnswerOf<'fill'> = await this.ok('setHand', o(hand));
    const own = view.marks.filter((x) => !x.automatic);
    for (const m of own.slice(0, stopAfter))
      last = await this.ok(
        'fill',
        o({ actId: `act-${m.id}`, ...(m.kind === 'text' ? { text: 'As agreed' } : {}) }, { markId: m.id }),
      );
    return own.length > stopAfter ? (last as SigningView) : this.ok('finish', o({ actId: 'finish' }));
  }

  /** Waits until a packet satisfies a condition; fails after half a minute. */
  async until(packetId: string, what: (p: PacketView) => boolean): Promise<PacketView> {
    for (let i = 0; i < 300; i++) {
      const p = await this.ok('packet', { params: { packetId } });
      if (what(p)) return p;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the packet did not get there');
  }
}
