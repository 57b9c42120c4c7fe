import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { checkCopy } from './check-service';

export function proofRoutes(app: FastifyInstance, ctx: Context): void {
  // Anybody may check.
  serve(app, 'check', async ({ file }) => checkCopy(ctx, await file()));
}
