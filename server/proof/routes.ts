import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { verifyCopy } from './verify-service';

/** Serves the verification of sealed copies, for anybody. */
export function proofRoutes(app: FastifyInstance, ctx: Context): void {
  // Open to everyone.
  serve(app, 'check', async ({ file }) => verifyCopy(ctx, await file()));
}
