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
import { migrate } from './db/migrate';
import { openDatabase, type Database } from './db/pool';
import { dealRoutes } from './deals/routes';
import { documentRoutes } from './documents/routes';
import { readingDone, resumeReading } from './documents/service';
import { FileStore } from './files/store';
import { findFirm } from './firm/queries';
import { cookieOf, firmRoutes } from './firm/routes';
import { memberOfToken } from './firm/service';
import { addAccess } from './http/access';
import { addJsonBodies } from './http/json';
import { asProblem } from './http/validate';
import { Jobs } from './jobs/jobs';
import { Live } from './live/live';
import { keepCalendar } from './jobs/calendar';
import { makeMailer } from './mail/mailer';
import { makeTexter } from './mail/texter';
import { mailroomRoutes } from './mailroom/routes';
import { queuedMessages } from './mailroom/queries';
import { deliver } from './mailroom/service';
import { unsealedPackets } from './packets/queries';
import { packetRoutes } from './packets/routes';
import { WorkPool } from './work/pool';
import { Problem } from './problem';
import { openSeal, type Seal } from './proof/seal-key';
import { proofRoutes } from './proof/routes';
import { sealPacket } from './proof/seal-service';
import { signingRoutes } from './signing/routes';
import { inTransaction } from './db/tx';

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
  await migrate(database.pool);
  const app = Fastify({
    trustProxy: config.trustProxy,
    bodyLimit: SMALL_BODY.bytes,
    logController: new LogController({ disableRequestLogging: true }),
    routerOptions: { maxParamLength: 200 },
    logger: { level: options.logLevel ?? 'warn', base: null },
    // Streams of live views stay open; stopping must not wait for their clients.
    forceCloseConnections: true,
  });
  const live = new Live();
  const jobs = new Jobs(database.pool, (error) => app.log.error({ error: String(error) }, 'background work failed'));
  const clock = options.clock ?? systemClock();
  let seal: Promise<Seal> | null = null;
  const ctx: Context = {
    config,
    clock,
    database,
    files: new FileStore(path.join(config.dataDir, 'files')),
    work: new WorkPool(),
    live,
    jobs,
    seal() {
      seal ??= findFirm(database.pool).then((firm) =>
        openSeal({
          sealP12: config.sealP12,
          password: config.sealP12Password,
          dataDir: config.dataDir,
          firmName: firm?.name ?? 'Gate Path',
          now: clock.now(),
        }),
      );
      return seal;
    },
  };
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
  await jobs.start();
  const mailer = makeMailer(config.smtpUrl, config.mailFrom);
  const ways = { mailer, texter: makeTexter() };
  await jobs.work('mail', (id) => deliver(ctx, ways, id));
  await jobs.work('seal', (id) => sealPacket(ctx, id));
  await takeUpWork(ctx);
  const stopCalendar = keepCalendar(ctx, (error) => {
    if (!jobs.stopping) app.log.error({ error: String(error) }, 'the calendar failed');
  });
  await app.ready();
  return {
    app,
    ctx,
    async close() {
      live.close();
      await stopCalendar();
      await app.close();
      await jobs.stop();
      await ctx.work.close();
      await readingDone();
      mailer.close();
      await database.close();
    },
  };
}

/** Takes up what a stop of the server may have cut off; every piece bears being done twice. */
async function takeUpWork(ctx: Context): Promise<void> {
  const mail = await queuedMessages(ctx.database.pool);
  const seals = await unsealedPackets(ctx.database.pool);
  await inTransaction(ctx.database.pool, async (tx) => {
    for (const id of mail) await ctx.jobs.queue(tx, 'mail', id);
    for (const id of seals) await ctx.jobs.queue(tx, 'seal', id);
  });
  await resumeReading(ctx);
}

async function addPlugins(app: FastifyInstance, ctx: Context): Promise<void> {
  await app.register(cookie);
  addJsonBodies(app);
  addAccess(app, ctx);
  await app.register(rateLimit, { global: false });
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
