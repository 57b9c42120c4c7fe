import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { rememberedOf, stopOffering } from './service';

/** Serves documents seen before, for members. */
export function memoryRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'remembered', ({ params, member }) => rememberedOf(ctx, params.packetId, params.documentId, member));
  serve(app, 'stopOffering', async ({ params }) => {
    await stopOffering(ctx, params.packetId, params.documentId);
  });
}
