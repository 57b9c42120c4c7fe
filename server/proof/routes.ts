import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { fileOf } from '../http/upload';
import { checkCopy } from './check-service';

export function proofRoutes(app: FastifyInstance, ctx: Context): void {
  serve(
    app,
    'check',
    async ({ request }) => checkCopy(ctx, await fileOf(request, 'a sealed PDF')),
    // Anybody may check, and checking is work: not too often from one place.
    { config: { rateLimit: { max: 30, timeWindow: 60_000 } } },
  );
}
