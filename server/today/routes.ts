import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves the first screen of a day, for members. */
export function todayRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'today', ({ member }) => service.todayView(ctx, member));
  serve(app, 'seen', ({ body, member }) => service.seen(ctx, member, body.until));
}
