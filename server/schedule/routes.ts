import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sessionView } from '../firm/service';
import { serve } from '../http/routing';
import { forwardClock } from './calendar';

/** Serves setting the demo's clock forward. */
export function clockRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'forwardClock', async ({ body, member }) => {
    await forwardClock(ctx, body.hours);
    return sessionView(ctx, member);
  });
}
