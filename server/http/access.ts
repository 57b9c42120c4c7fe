/** Who may call a route, asked before its body is read; and how a client's faults are told to the client. */
import type { FastifyInstance, FastifyRequest } from 'fastify';
import { UNCLEAN } from '@gatepath/contract';
import type { Context } from '../context';
import { requirePass, wordsOfPass } from '../signing/entry';
import { told, visitOf } from '../signing/visit';
import type { Problem } from '../problem';
import { requireMember } from './routing';

export function addAccess(app: FastifyInstance, ctx: Context): void {
  app.decorate('admit', {
    anybody: async () => undefined,
    member: async (request: FastifyRequest) => requireMember(request),
    pass: (request: FastifyRequest) => requirePass(ctx, visitOf(request)),
  });
  app.decorate('inClientsWords', async (request: FastifyRequest, problem: Problem) => {
    if (problem.code !== UNCLEAN && problem.code !== 'invalid') return problem;
    const words = await wordsOfPass(ctx, visitOf(request));
    const key = problem.code === UNCLEAN ? 'problem.unclean' : 'problem.not_understood';
    return told(words, problem.status, problem.code, problem.title, key);
  });
}
