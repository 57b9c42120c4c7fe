/** A visit through a signing link: its browser and its language. */
import type { FastifyRequest } from 'fastify';
import type { ProblemCode } from '@gatepath/contract';
import type { PacketParty } from '@gatepath/core/packet';
import type { Origin, PacketState } from '@gatepath/core/routing';
import { say, type WordKey, type WordParams, type Words } from '@gatepath/core/words';
import { originOf } from '../http/origin';
import { Problem } from '../problem';
import { wordsFor } from '../words';
import type { LinkRow } from '../links/queries';

declare module 'fastify' {
  interface FastifyRequest {
    /** Set in the area of signing links; null elsewhere. */
    visit: Visit | null;
  }
}

/** A request through a signing link. */
export interface Visit {
  token: string;
  origin: Origin;
  /** The browser's language: for what is said before the party is known. */
  words: Words;
  cookies: Record<string, string | undefined>;
  /** The link of the token, once it was looked up. */
  link?: Promise<LinkRow | null>;
  /** The entry found before the body was read, and when (ms of this process). */
  door?: { entry: Entry; at: number };
}

/** The link, packet and party of a visit. */
export interface Entry {
  link: LinkRow;
  state: PacketState;
  party: PacketParty;
  words: Words;
  /** Whether this browser has passed the second step, if there is one. */
  proved: boolean;
}

/** Returns the visit of a request: made once, by the hook of the area. */
export function visitOf(request: FastifyRequest): Visit {
  request.visit ??= {
    token: (request.params as { token: string }).token,
    origin: originOf(request),
    words: wordsFor(request.headers['accept-language']),
    cookies: request.cookies,
  };
  return request.visit;
}

/** Returns a problem in a client's language. */
export function clientProblem(words: Words, code: ProblemCode, key: WordKey, params: WordParams = {}): Problem {
  return new Problem(code, say(words, key, params), { language: words.language });
}
