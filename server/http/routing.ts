import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { isId, routes, SMALL_BODY, type BodySchema, type Route, type RouteName } from '@gatepath/contract';
import type { Member } from '../firm/queries';
import { notFound, Problem } from '../problem';
import { validate } from './validate';

declare module 'fastify' {
  interface FastifyInstance {
    /** Refuses who may not call a route, before anything of the request's body is read. */
    admit: Record<Route['who'], (request: FastifyRequest) => Promise<void>>;
    /** Says a problem with what a client sent in the client's language. */
    inClientsWords: (request: FastifyRequest, problem: Problem) => Promise<Problem>;
  }
}

/** A request whose parts are already checked against the contract. */
export interface Call<B, Q> {
  request: FastifyRequest;
  reply: FastifyReply;
  params: Record<string, string>;
  body: B;
  query: Q;
  member: Member | null;
}

/** A call by a signed-in member. */
export type MemberCall<B, Q> = Call<B, Q> & { member: Member };

/** What a member has to be told who is not signed in. */
export function requireMember(request: FastifyRequest): void {
  if (!request.member)
    throw new Problem(
      401,
      'sign-in',
      'Sign in first',
      'You are not signed in, or your session has ended. Sign in and try again.',
    );
}

/** Puts a route of the contract on the server: its method, path, rights and schemas come from there. */
export function serve<B = unknown, Q = unknown>(
  app: FastifyInstance,
  name: RouteName,
  handle: (call: MemberCall<B, Q>) => unknown,
  options: { config?: Record<string, unknown> } = {},
): void {
  const route = routes[name] as Route;
  const size = route.size ?? SMALL_BODY;
  app.route({
    method: route.method,
    url: route.path,
    config: { ...options.config, size },
    bodyLimit: size.bytes,
    // Who asks is known before the body is read: nobody's time is spent on a stranger's megabytes.
    onRequest: async (request) => {
      const params = request.params as Record<string, string>;
      if (!Object.values(params).every(isId)) throw notFound('This address');
      await app.admit[route.who](request);
    },
    handler: async (request, reply) => {
      try {
        return await handle({
          request,
          reply,
          params: request.params as Record<string, string>,
          body: route.body ? validate<B>(route.body, request.body ?? {}) : (undefined as B),
          query: route.query ? validate<Q>(route.query as BodySchema, request.query ?? {}) : (undefined as Q),
          member: request.member as Member,
        });
      } catch (error) {
        throw route.who === 'pass' && error instanceof Problem ? await app.inClientsWords(request, error) : error;
      }
    },
  });
}
/** Who is behind a request: its network address, and what its device calls itself, in short. */
export function originOf(request: FastifyRequest): { ip: string | null; device: string | null } {
  return { ip: request.ip ?? null, device: deviceOf(request.headers['user-agent'] ?? '') };
}

/** "phone (Safari)", "computer (Chrome)": enough to recognise, too little to track. */
export function deviceOf(userAgent: string): string | null {
  if (!userAgent) return null;
  const kind = /iPad|Tablet/i.test(userAgent)
    ? 'tablet'
    : /Mobi|Android|iPhone/i.test(userAgent)
      ? 'phone'
      : 'computer';
  const browser = /Edg\//.test(userAgent)
    ? 'Edge'
    : /Firefox\//.test(userAgent)
      ? 'Firefox'
      : /Chrom(e|ium)\//.test(userAgent)
        ? 'Chrome'
        : /Safari\//.test(userAgent)
          ? 'Safari'
          : null;
  return browser ? `${kind} (${browser})` : kind;
}
