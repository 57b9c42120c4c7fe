import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { insightView } from './service';

/** Serves sums over the firm's packets, for members. */
export function insightRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'insight', () => insightView(ctx));
}
