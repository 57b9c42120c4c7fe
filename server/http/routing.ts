/** Registers routes of the contract on the server: method, path, rights, schemas and answers come from there. */
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { BodySize, ParamsOf, RouteName } from '@gatepath/contract';
import {
  isFile,
  isOther,
  routes,
  type AnswerOf,
  type BodyOf,
  type FileRoute,
  type OtherAnswer,
  type QueryOf,
  type Route,
  type RouteOf,
  type Who,
} from '@gatepath/contract/routes';
import { notFound } from '../problem';
import { fileOf, type Upload } from './upload';
import { validate } from './validate';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** Maximum size of a JSON body. */
    size?: BodySize;
    beforeStep?: boolean;
  }
  interface FastifyInstance {
    /** Who may enter this area; null outside the areas. */
    letsIn: Who | null;
  }
}

/** Who asks, as the area's own hook found out (`server/api.ts`). */
interface Anyone {
  /** The member who is signed in, if one is. */
  member: FastifyRequest['member'];
}
interface OfMember {
  member: NonNullable<FastifyRequest['member']>;
}
interface OfLink {
  visit: NonNullable<FastifyRequest['visit']>;
}

/** A request whose parts are already checked against the contract. */
export type Call<N extends RouteName> = {
  request: FastifyRequest;
  reply: FastifyReply;
  params: ParamsOf<N>;
  body: BodyOf<N>;
  query: QueryOf<N>;
} & (N extends RouteOf<'member'> ? OfMember : N extends RouteOf<'link'> ? OfLink : Anyone) &
  (N extends FileRoute ? { file: () => Promise<Upload> } : unknown);

/** What a handler may return: the contract's answer, or the reply it has already sent. */
type Answered<N extends RouteName> =
  (typeof routes)[N]['answer'] extends OtherAnswer<'bytes' | 'events'> ? FastifyReply : AnswerOf<N> | FastifyReply;

/** Rate limit against guessing and flooding. */
const SLOW = { rateLimit: { max: 30, timeWindow: 60_000 } };

/**
 * Registers one route.
 *
 * @throws if its area lets in others than the contract says
 */
export function serve<N extends RouteName>(
  app: FastifyInstance,
  name: N,
  handle: (call: Call<N>) => Answered<N> | Promise<Answered<N>>,
): void {
  const route: Route = routes[name];
  if (app.letsIn !== route.who)
    throw new Error(`${name} is for ${route.who}, but is put where ${app.letsIn} is let in`);
  app.route({
    method: route.method,
    url: route.path,
    config: { ...(route.slow ? SLOW : {}), size: route.size, beforeStep: route.beforeStep },
    bodyLimit: route.size.bytes,
    handler: async (request, reply) => {
      // What each part is was checked against the schemas that the type is inferred from.
      const answer = await handle({
        request,
        reply,
        ...callerOf(route.who, request),
        ...partsOf(route, request),
      } as Call<N>);
      if (isOther(route.answer) && route.answer.kind === 'nothing') return reply.code(204).send();
      return answer;
    },
  });
}

function callerOf(who: Who, request: FastifyRequest): object {
  return who === 'link' ? { visit: request.visit } : { member: request.member };
}

function partsOf(route: Route, request: FastifyRequest): object {
  const { body } = route;
  return {
    params: paramsOf(route, request),
    query: route.query && validate(route.query, request.query ?? {}),
    ...(isFile(body)
      ? { file: () => fileOf(request, body.wanted, body.most) }
      : { body: body && validate(body, request.body ?? {}) }),
  };
}

/** Returns the parameters; an impossible id is answered like a missing one. */
function paramsOf(route: Route, request: FastifyRequest): unknown {
  try {
    return validate(route.params, request.params);
  } catch {
    throw notFound('This address');
  }
}
