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
import { API, SMALL_BODY } from '@gatepath/contract';
import { systemClock, type Clock } from './clock';
import type { Config } from './config';
import type { Context } from './context';
import { gathered } from './db/gather';
import { exclusively, migrate } from './db/migrate';
import { openDatabase, type Database } from './db/pool';
import { upgrade } from './upgrade';
import { makeBinder } from './binder/service';
import { recomputeDeals } from './deals/recompute';
import { computeDealStatus } from './deals/status';
import { readDocument } from './documents/service';
import { abstractDocument } from './documents/abstract';
import { discardOldIncoming } from './incoming/service';
import { learnedOf } from './memory/learn';
import { rememberDocument, rememberEarlier } from './memory/remember';
import { findGaps } from './returned/service';
import { scanDocument } from './documents/scans';
import { ALL_FILES, tidy } from './files/tidy';
import { FileStore } from './files/store';
import { findFirm, type Firm } from './firm/queries';
import { api, NOWHERE, problemIn, answerWith } from './api';
import { throttleStore } from './throttle/throttle';
import { runCalendarJob, sendDigest, tickPacket } from './schedule/calendar';
import { Jobs } from './jobs/jobs';
import { workInWords } from './jobs/words';
import { Live, topics } from './live/live';
import { makeMailer } from './mail/mailer';
import { makeTexter } from './mail/texter';
import { runNotice } from './notices/run';
import { deliver } from './mailroom/service';
import { takeSnapshot } from './packets/log';
import { PacketStore } from './packets/store';
import { WorkPool } from './work/pool';
import { openSeal, type Seal } from './proof/seal-key';
import { sealPacket } from './sealed-copies/service';
import { linksByHash } from './links/queries';
import { slotsOfForm } from './shelf/forms';
import { onAfterCommitError, outsideTransactions } from './db/tx';
import { itemAt } from '@gatepath/core/sure';

/** A server that is running. */
export interface Running {
  app: FastifyInstance;
  ctx: Context;
  close(): Promise<void>;
}

/** How to build a server. */
export interface BuildOptions {
  config: Config;
  clock?: Clock;
  /** An open database to use instead of the configured one; it is closed with the server. */
  database?: Database;
  /** Worker processes to use instead of own ones; they are not closed with the server. */
  work?: WorkPool;
  logLevel?: string;
  /** Told what is being done, for a start that takes seconds. */
  progress?: (step: string) => void;
}

const WEB = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'app', 'dist');

/** Builds a server: opens and migrates its database, registers its routes, starts its background jobs. */
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
    // The last so many addresses of X-Forwarded-For were put there by our own proxies; what is before them anybody can write.
    trustProxy: config.trustProxy ? (_address: string, hop: number) => hop < config.trustProxy : false,
    bodyLimit: SMALL_BODY.bytes,
    logController: new LogController({ disableRequestLogging: true }),
    // Longer than any address can be: what a part of one may be is for its schema to say.
    routerOptions: { maxParamLength: 32_768 },
    logger: { level: options.logLevel ?? 'warn', base: null },
    // Streams of live views stay open; stopping must not wait for their clients.
    forceCloseConnections: true,
  });
  const failed = (what: string) => (error: unknown) => app.log.error({ error: String(error) }, what);
  onAfterCommitError(failed('something failed after a commit'));
  const ctx = makeContext(database, options, failed);
  if (config.sealP12) await ctx.seal();

  await addPlugins(app, ctx);
  addHooks(app);
  await app.register(api, { prefix: API, ctx });
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
      if (!options.work) await ctx.work.close();
      mailer.close();
      await database.close();
    },
  };
}

/** How long the firm is kept in memory; other servers tell when it changes. */
const FIRM_MS = 10_000;

function makeContext(
  database: Database,
  { config, clock = systemClock(), work = new WorkPool() }: BuildOptions,
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
    work,
    packets: new PacketStore(() => ctx),
    linkByHash: gathered((hashes) => linksByHash(database.pool, hashes)),
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
      // A firm that could not be read, or does not exist yet, is queried again.
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
      // A seal that could not be opened is tried again by the next request.
      seal.catch(() => (seal = null));
      return seal;
    },
  };
  return ctx;
}

/** Registers the handler of each kind of job. */
function takeUpWork(ctx: Context, ways: Parameters<typeof deliver>[1]): void {
  const { jobs } = ctx;
  jobs.work('mail', (id) => deliver(ctx, ways, id));
  jobs.work('seal', (id) => sealPacket(ctx, id));
  jobs.work('read', (id) => readDocument(ctx, id, learnedOf));
  jobs.work('scan', (id) => scanDocument(ctx, id));
  jobs.work('gaps', (id) => findGaps(ctx, id));
  jobs.work('tick', (id) => tickPacket(ctx, id));
  jobs.work('digest', (id) => sendDigest(ctx, id));
  jobs.work('calendar', () => runCalendarJob(ctx));
  jobs.work('snapshot', (id) => takeSnapshot(ctx.database.pool, id));
  jobs.work('deal', async (id) => void (await computeDealStatus(ctx, id)));
  jobs.work('binder', (dealId) => makeBinder(ctx, dealId));
  jobs.work('notice', (id) => runNotice(ctx, id));
  jobs.work('rules', (what) => recomputeDeals(ctx, what));
  jobs.work('form', (id) => slotsOfForm(ctx, id));
  jobs.work('remember', (id) => rememberDocument(ctx, id));
  jobs.work('memory', (after) => rememberEarlier(ctx, after));
  jobs.work('abstract', (id) => abstractDocument(ctx, id));
  jobs.work('tidy', async (what) => {
    await tidy(ctx, what);
    if (what === ALL_FILES) await discardOldIncoming(ctx);
  });
}

async function addPlugins(app: FastifyInstance, ctx: Context): Promise<void> {
  await app.register(cookie);
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

function addHooks(app: FastifyInstance): void {
  app.decorateRequest('member', null);
  app.decorateRequest('visit', null);
  app.decorate('letsIn', null);
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
  app.setErrorHandler(async (error, request, reply) => answerWith(reply, problemIn(request, error)));
}

/** Serves the exported application; every address that is no file is one of its screens. */
async function addWeb(app: FastifyInstance): Promise<void> {
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
  // The bare address is a folder to the file server, which shows no folders.
  if (exported) app.get('/', (_request, reply) => reply.header('cache-control', 'no-cache').sendFile('index.html'));
  app.setNotFoundHandler(async (request, reply) => {
    // A file that does not exist is not a screen.
    const isFile = /\.\w{2,5}$/.test(itemAt(request.url.split('?'), 0));
    if (request.method !== 'GET' || !exported || isFile) return answerWith(reply, NOWHERE);
    return reply.header('cache-control', 'no-cache').sendFile('index.html');
  });
}
