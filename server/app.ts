/** Puts the server together: plugins, routes, jobs, and the exported web application. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import cookie from '@fastify/cookie';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import fastifyStatic from '@fastify/static';
import Fastify, { LogController, type FastifyInstance } from 'fastify';
import '@gatepath/core/patterns';
import { openApi, SMALL_BODY } from '@gatepath/contract';
import { systemClock, type Clock } from './clock';
import type { Config } from './config';
import type { Context } from './context';
import { gathered } from './db/gather';
import { exclusively, migrate } from './db/migrate';
import { openDatabase, type Database } from './db/pool';
import { dealRoutes } from './deals/routes';
import { documentRoutes } from './documents/routes';
import { upgrade } from './db/upgrade';
import { readDocument } from './documents/service';
import { ALL_FILES, tidy } from './files/tidy';
import { FileStore } from './files/store';
import { findFirm, type Firm } from './firm/queries';
import { cookieOf, firmRoutes } from './firm/routes';
import { memberOfToken } from './firm/service';
import { addAccess } from './http/access';
import { addJsonBodies } from './http/json';
import { throttleStore } from './http/throttle';
import { asProblem } from './http/validate';
import { lookAtCalendar, sendDigest, tickPacket } from './jobs/calendar';
import { Jobs } from './jobs/jobs';
import { workInWords } from './jobs/words';
import { Live, topics } from './live/live';
import { makeMailer } from './mail/mailer';
import { makeTexter } from './mail/texter';
import { mailroomRoutes } from './mailroom/routes';
import { deliver } from './mailroom/service';
import { takeSnapshot } from './packets/log';
import { packetRoutes } from './packets/routes';
import { PacketStore } from './packets/store';
import { WorkPool } from './work/pool';
import { Problem } from './problem';
import { openSeal, type Seal } from './proof/seal-key';
import { proofRoutes } from './proof/routes';
import { sealPacket } from './proof/seal-service';
import { passesByHash } from './signing/queries';
import { signingRoutes } from './signing/routes';
import { onAfterCommitError, outsideTransactions } from './db/tx';

export interface Running {
  app: FastifyInstance;
  ctx: Context;
  close(): Promise<void>;
}

export interface BuildOptions {
  config: Config;
  clock?: Clock;
  /** An open database to use instead of the configured one; it is closed with the server. */
  database?: Database;
  logLevel?: string;
  /** Told what is being done, for a start that takes seconds. */
  progress?: (step: string) => void;
}

const WEB = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'app', 'dist');

export async function buildServer(options: BuildOptions): Promise<Running> {
  const { config } = options;
  const step = options.progress ?? (() => undefined);
  step('Opening the database');
  const database = options.database ?? (await openDatabase(config));
  try {
    await migrate(database.pool);
    return await serverOn(database, options, step);
  } catch (error) {
    await database.close();
    throw error;
  }
}

async function serverOn(database: Database, options: BuildOptions, step: (step: string) => void): Promise<Running> {
  const { config } = options;
  const app = Fastify({
    trustProxy: config.trustProxy,
    bodyLimit: SMALL_BODY.bytes,
    logController: new LogController({ disableRequestLogging: true }),
    routerOptions: { maxParamLength: 200 },
    logger: { level: options.logLevel ?? 'warn', base: null },
    // Streams of live views stay open; stopping must not wait for their clients.
    forceCloseConnections: true,
  });
  const failed = (what: string) => (error: unknown) => app.log.error({ error: String(error) }, what);
  onAfterCommitError(failed('something failed after a commit'));
  const ctx = makeContext(database, options, failed);
  if (config.sealP12) await ctx.seal();

  await addPlugins(app, ctx);
  addHooks(app, ctx);
  firmRoutes(app, ctx);
  dealRoutes(app, ctx);
  documentRoutes(app, ctx);
  packetRoutes(app, ctx);
  mailroomRoutes(app, ctx);
  signingRoutes(app, ctx);
  proofRoutes(app, ctx);
  app.get('/api/openapi.json', () => openApi('0.1.0', config.publicUrl));
  app.get('/api/health', () => ({ ok: true }));
  await addWeb(app);

  step('Starting the background work');
  await ctx.live.start();
  await exclusively(database, async () => {
    await ctx.jobs.start();
    await upgrade(ctx);
  });
  const mailer = makeMailer(config.smtpUrl, config.mailFrom);
  takeUpWork(ctx, { mailer, texter: makeTexter() });
  await ctx.jobs.queueNow('calendar', 'calendar');
  await ctx.jobs.queueNow('tidy', ALL_FILES, 3_600);
  await app.ready();
  return {
    app,
    ctx,
    async close() {
      await ctx.live.close();
      await app.close();
      await ctx.jobs.stop();
      await ctx.work.close();
      mailer.close();
      await database.close();
    },
  };
}

/** How long the firm is kept in memory; other servers tell when it changes. */
const FIRM_MS = 10_000;

function makeContext(
  database: Database,
  { config, clock = systemClock() }: BuildOptions,
  failed: (what: string) => (error: unknown) => void,
): Context {
  const shared = database.kind === 'server' ? { pool: database.pool, connect: () => database.listener()! } : null;
  const live = new Live(shared, failed('live views could not be told'));
  let seal: Promise<Seal> | null = null;
  let firm: { known: Promise<Firm | null>; until: number } | null = null;
  live.on(topics.firm(), () => (firm = null));
  const ctx: Context = {
    config,
    clock,
    database,
    files: new FileStore(path.join(config.dataDir, 'files')),
    work: new WorkPool(),
    packets: new PacketStore(() => ctx),
    passByHash: gathered((hashes) => passesByHash(database.pool, hashes)),
    live,
    jobs: new Jobs(database, live, failed('background work failed'), (name, id) =>
      workInWords(database.pool, name, id),
    ),
    firm() {
      // Refused even while it is in memory: a moment later it may not be.
      outsideTransactions('The firm');
      if (firm && firm.until > Date.now()) return firm.known;
      const known = findFirm(database.pool);
      firm = { known, until: Date.now() + FIRM_MS };
      // A firm that could not be read, or is not there yet, is asked for again.
      known.then(
        (f) => f ?? (firm = null),
        () => (firm = null),
      );
      return known;
    },
    seal() {
      outsideTransactions('The seal');
      seal ??= findFirm(database.pool).then((f) =>
        openSeal({
          sealP12: config.sealP12,
          password: config.sealP12Password,
          dataDir: config.dataDir,
          firmName: f?.name ?? 'Gate Path',
          now: clock.now(),
        }),
      );
      // One that could not be opened is tried again by whoever asks next.
      seal.catch(() => (seal = null));
      return seal;
    },
  };
  return ctx;
}

/** Says which work is done by what. */
function takeUpWork(ctx: Context, ways: Parameters<typeof deliver>[1]): void {
  const { jobs } = ctx;
  jobs.work('mail', (id) => deliver(ctx, ways, id));
  jobs.work('seal', (id) => sealPacket(ctx, id));
  jobs.work('read', (id) => readDocument(ctx, id));
  jobs.work('tick', (id) => tickPacket(ctx, id));
  jobs.work('digest', (id) => sendDigest(ctx, id));
  jobs.work('calendar', () => lookAtCalendar(ctx));
  jobs.work('snapshot', (id) => takeSnapshot(ctx.database.pool, id));
  jobs.work('tidy', (what) => tidy(ctx, what));
}

async function addPlugins(app: FastifyInstance, ctx: Context): Promise<void> {
  await app.register(cookie);
  addJsonBodies(app);
  addAccess(app, ctx);
  await app.register(rateLimit, { global: false, store: throttleStore(ctx.database.pool) });
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        // React Native's web styles are written into the page as it runs.
        styleSrc: ["'self'", "'unsafe-inline'"],
        scriptSrc: ["'self'"],
        connectSrc: ["'self'"],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: ctx.config.publicUrl.startsWith('https:') ? [] : null,
      },
    },
    // A signing link is a secret: it must not travel on in a Referer.
    referrerPolicy: { policy: 'no-referrer' },
    strictTransportSecurity: ctx.config.publicUrl.startsWith('https:'),
  });
}

function addHooks(app: FastifyInstance, ctx: Context): void {
  app.decorateRequest('member', null);
  app.addHook('onRequest', async (request) => {
    if (!request.url.startsWith('/api/')) return;
    requireSameOrigin(request);
    if (request.url.startsWith('/api/signing/')) return;
    const token = cookieOf(request);
    if (token) request.member = await memberOfToken(ctx, token);
  });
  app.addHook('onSend', async (request, reply) => {
    if (request.url.startsWith('/api/') && !reply.getHeader('cache-control'))
      void reply.header('cache-control', 'no-store');
  });
  // One line a request, by the route's pattern: no address, token or name ever gets into the log.
  app.addHook('onResponse', async (request, reply) => {
    request.log.info(
      {
        method: request.method,
        route: request.routeOptions.url ?? '(none)',
        status: reply.statusCode,
        ms: Math.round(reply.elapsedTime),
      },
      'request',
    );
  });
  app.setErrorHandler(async (error, request, reply) => {
    const problem = asProblem(error, request.routeOptions.bodyLimit);
    if (problem.status >= 500)
      request.log.error({ route: request.routeOptions.url, error: (error as Error).stack }, 'request failed');
    if (problem.retryAfter !== null) void reply.header('retry-after', problem.retryAfter);
    return reply.code(problem.status).type('application/problem+json').send(problem.toBody());
  });
}

/** A page of another site must not act for a signed-in member. */
function requireSameOrigin(request: { method: string; headers: { origin?: string; host?: string } }): void {
  const { origin, host } = request.headers;
  if (request.method === 'GET' || request.method === 'HEAD' || !origin) return;
  let from: string | null = null;
  try {
    from = new URL(origin).host;
  } catch {
    from = null;
  }
  if (from !== host) throw new Problem(403, 'other-origin', 'Not allowed', 'This request came from another site.');
}

/** Serves the exported application; every address that is no file is one of its screens. */
async function addWeb(app: FastifyInstance): Promise<void> {
  const problem404 = new Problem(404, 'not-found', 'Not found', 'There is nothing at this address.');
  const exported = existsSync(path.join(WEB, 'index.html'));
  if (exported) {
    await app.register(fastifyStatic, {
      root: WEB,
      wildcard: true,
      index: false,
      preCompressed: true,
      setHeaders(reply, file) {
        // Exported scripts and fonts carry a hash of their content in their names.
        const hashed = /[.-][0-9a-f]{16,}\.\w+$/.test(path.basename(file).replace(/\.(br|gz)$/, ''));
        void reply.header('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    });
  }
  // The bare address is a folder to the file server, which it shows to nobody.
  if (exported) app.get('/', (_request, reply) => reply.header('cache-control', 'no-cache').sendFile('index.html'));
  app.setNotFoundHandler(async (request, reply) => {
    if (
      request.url.startsWith('/api/') ||
      request.method !== 'GET' ||
      !exported ||
      /\.\w{2,5}$/.test(request.url.split('?')[0]!)
    )
      return reply.code(404).type('application/problem+json').send(problem404.toBody());
    return reply.header('cache-control', 'no-cache').sendFile('index.html');
  });
}
