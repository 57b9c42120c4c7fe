/**
 * The three areas of the API, each with its own way in: the office for members, the ceremony for bearers of a signing link, and what
 * is open to anybody. Who may come in is asked before anything of a request's body is read.
 */
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { openApi, type Who } from '@gatepath/contract/routes';
import { UNCLEAN } from '@gatepath/contract';
import type { Context } from './context';
import { binderRoutes } from './binder/routes';
import { csvRoutes } from './csv/routes';
import { dealRoutes, ruleRoutes } from './deals/routes';
import { calendarRoutes, feedRoutes } from './feeds/routes';
import { documentRoutes } from './documents/routes';
import { firmRoutes, sessionRoutes } from './firm/routes';
import { memberOfRequest } from './firm/session';
import { mailroomRoutes } from './mailroom/routes';
import { incomingRoutes } from './incoming/routes';
import { memoryRoutes } from './memory/routes';
import { importRoutes } from './imports/routes';
import { insightRoutes } from './insight/routes';
import { ownPageRequestRoutes, ownRoutes } from './own/routes';
import { peopleRoutes } from './people/routes';
import { packetRoutes } from './packets/routes';
import { Problem } from './problem';
import { proofRoutes } from './proof/routes';
import { requireLink, wordsOfLink } from './signing/entry';
import { noticeRoutes } from './notices/routes';
import { shelfRoutes } from './shelf/routes';
import { returnedRoutes } from './returned/routes';
import { clockRoutes } from './schedule/routes';
import { setupRoutes } from './setup/routes';
import { rehearsalRoutes, signingRoutes } from './signing/routes';
import { todayRoutes } from './today/routes';
import { clientProblem, visitOf } from './signing/visit';
import { addJsonBodies } from './http/json';
import { asProblem } from './http/validate';

type Part = (app: FastifyInstance, ctx: Context) => void;

/** Registers the whole API under its prefix. */
export async function api(app: FastifyInstance, { ctx }: { ctx: Context }): Promise<void> {
  addJsonBodies(app);
  app.addHook('onRequest', async (request) => requireSameOrigin(request));
  app.addHook('onSend', async (_request, reply) => {
    if (!reply.getHeader('cache-control')) void reply.header('cache-control', 'no-store');
  });
  app.setErrorHandler(async (error, request, reply) => answerWith(reply, problemIn(request, error)));
  app.setNotFoundHandler(async (_request, reply) => answerWith(reply, NOWHERE));
  const area = (who: Who, way: (area: FastifyInstance) => void, parts: Part[]) =>
    app.register(async (inside) => {
      inside.letsIn = who;
      way(inside);
      for (const part of parts) part(inside, ctx);
    });
  await area('anybody', (inside) => anybody(inside, ctx), [
    sessionRoutes,
    setupRoutes,
    proofRoutes,
    calendarRoutes,
    ownRoutes,
    descriptionRoutes,
  ]);
  await area('member', (inside) => office(inside, ctx), [
    firmRoutes,
    clockRoutes,
    dealRoutes,
    ruleRoutes,
    binderRoutes,
    csvRoutes,
    importRoutes,
    insightRoutes,
    todayRoutes,
    feedRoutes,
    peopleRoutes,
    documentRoutes,
    returnedRoutes,
    packetRoutes,
    rehearsalRoutes,
    shelfRoutes,
    noticeRoutes,
    memoryRoutes,
    incomingRoutes,
    mailroomRoutes,
  ]);
  await area('link', (inside) => ceremony(inside, ctx), [signingRoutes, ownPageRequestRoutes]);
}

/** The answer for an unknown address. */
export const NOWHERE = new Problem('not-found', 'There is nothing at this address.');

/** Adds the member whose session it is, if any, to each request of routes that are open to everybody. */
function anybody(app: FastifyInstance, ctx: Context): void {
  app.addHook('onRequest', async (request) => {
    request.member = await memberOfRequest(ctx, request);
  });
}

/** Refuses requests that do not come from a member. */
function office(app: FastifyInstance, ctx: Context): void {
  app.addHook('onRequest', async (request) => {
    request.member = await memberOfRequest(ctx, request);
    if (!request.member)
      throw new Problem('sign-in', 'You are not signed in, or your session has ended. Sign in and try again.');
  });
}

/** Resolves the signing link of each request, and answers problems in the language of its bearer. */
function ceremony(app: FastifyInstance, ctx: Context): void {
  app.addHook('onRequest', async (request) =>
    requireLink(ctx, visitOf(request), request.routeOptions.config.beforeStep),
  );
  app.setErrorHandler(async (error, request, reply) => {
    const problem = problemIn(request, error);
    if (problem.code !== UNCLEAN && problem.code !== 'invalid') return answerWith(reply, problem);
    const key = problem.code === UNCLEAN ? 'problem.unclean' : 'problem.not_understood';
    const words = await wordsOfLink(ctx, visitOf(request));
    return answerWith(reply, clientProblem(words, problem.code, key));
  });
}

/** Serves the API's description and its health check. */
function descriptionRoutes(app: FastifyInstance, ctx: Context): void {
  // Built once: it is long, and anybody may request it.
  const description = JSON.stringify(openApi('0.1.0', ctx.config.publicUrl));
  app.get('/openapi.json', (_request, reply) => reply.type('application/json').send(description));
  app.get('/health', () => ({ ok: true }));
}

/** Returns the problem to answer a failed request with. Unexpected errors are logged. */
export function problemIn(request: FastifyRequest, error: unknown): Problem {
  const problem = asProblem(error, request.routeOptions.bodyLimit);
  if (problem.status >= 500)
    request.log.error(
      { route: request.routeOptions.url, error: error instanceof Error ? error.stack : String(error) },
      'request failed',
    );
  return problem;
}

/** Answers with a problem. */
export function answerWith(reply: FastifyReply, problem: Problem): FastifyReply {
  if (problem.more.retryAfter !== undefined) void reply.header('retry-after', problem.more.retryAfter);
  if (problem.more.language) void reply.header('content-language', problem.more.language);
  return reply.code(problem.status).type('application/problem+json').send(problem.toBody());
}

/** Refuses requests from pages of other sites, which must not act for a signed-in member. */
function requireSameOrigin(request: FastifyRequest): void {
  const { origin } = request.headers;
  if (request.method === 'GET' || request.method === 'HEAD' || !origin) return;
  // The address as the proxy in front says it, if one is trusted.
  const own = `${request.protocol}://${request.host}`.toLowerCase();
  if (!URL.canParse(origin) || new URL(origin).origin !== new URL(own).origin)
    throw new Problem('other-origin', 'This request came from another site.');
}
