/** Who comes through a signing link: what their browser says, and in which language to answer. */
import type { FastifyRequest } from 'fastify';
import type { Origin } from '@gatepath/core/routing';
import { say, type WordKey, type WordParams, type Words } from '@gatepath/core/words';
import { originOf } from '../http/routing';
import { Problem } from '../problem';
import { wordsFor } from '../words';

export interface Visit {
  token: string;
  origin: Origin;
  /** The browser's own language: for what is said before it is known who comes. */
  words: Words;
  cookies: Record<string, string | undefined>;
}

export function visitOf(request: FastifyRequest): Visit {
  return {
    token: (request.params as { token: string }).token,
    origin: originOf(request),
    words: wordsFor(request.headers['accept-language']),
    cookies: request.cookies,
  };
}

/** A problem told to a client in a language. */
export function told(
  words: Words,
  status: number,
  code: string,
  title: string,
  key: WordKey,
  params: WordParams = {},
): Problem {
  return new Problem(status, code, title, say(words, key, params));
}
