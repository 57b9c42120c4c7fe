import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves contracts that members add to open a deal. */
export function incomingRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'incoming', ({ member }) => service.listIncoming(ctx, member));
  serve(app, 'addIncoming', async ({ file, member }) => service.addIncoming(ctx, await file(), member));
  serve(app, 'incomingContract', ({ params, member }) => service.incomingView(ctx, params.incomingId, member));
  serve(app, 'openIncoming', ({ params, body, member }) => service.openIncoming(ctx, params.incomingId, body, member));
  serve(app, 'discardIncoming', async ({ params, member }) => {
    await service.discardIncoming(ctx, params.incomingId, member);
  });
}
