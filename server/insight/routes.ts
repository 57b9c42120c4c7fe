import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { insightView } from './service';

/** Serves the reports, for members. */
export function insightRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'insight', () => insightView(ctx));
}
