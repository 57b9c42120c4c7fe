import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { agentOf } from '../firm/routes';
import { sessionView } from '../firm/service';
import { remember } from '../firm/session';
import { serve } from '../http/routing';
import { setUpFirm } from './service';

/** Serves the first set-up of the firm. */
export function setupRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'setup', async ({ body, request, reply }) => {
    const { member, token } = await setUpFirm(ctx, body, agentOf(request));
    remember(ctx, reply, token);
    return sessionView(ctx, member);
  });
}
