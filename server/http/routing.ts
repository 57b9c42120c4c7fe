import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { routes, type BodySchema, type Route, type RouteName } from '@gatepath/contract';
import type { Member } from '../firm/queries';
import { Problem } from '../problem';
import { validate } from './validate';

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

/** Puts a route of the contract on the server: its method, path, rights and schemas come from there. */
export function serve<B = unknown, Q = unknown>(
  app: FastifyInstance,
  name: RouteName,
  handle: (call: MemberCall<B, Q>) => unknown,
  options: { config?: Record<string, unknown> } = {},
): void {
  const route = routes[name] as Route;
  app.route({
    method: route.method,
    url: route.path,
    config: options.config,
    handler: async (request, reply) => {
      const member = request.member;
      if (route.who === 'member' && !member)
        throw new Problem(
          401,
          'sign-in',
          'Sign in first',
          'You are not signed in, or your session has ended. Sign in and try again.',
        );
      return handle({
        request,
        reply,
        params: request.params as Record<string, string>,
        body: route.body ? validate<B>(route.body, request.body ?? {}) : (undefined as B),
        query: route.query ? validate<Q>(route.query as BodySchema, request.query ?? {}) : (undefined as Q),
        member: member as Member,
      });
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
