import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves the binder, which is one file per deal. */
export function binderRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'binder', ({ params }) => service.binderView(ctx, params.dealId));
  serve(app, 'makeBinder', ({ params }) => service.askForBinder(ctx, params.dealId));
  serve(app, 'binderFile', async ({ params, reply }) => {
    const { name, sha256 } = await service.binderFile(ctx, params.dealId);
    return reply
      .type('application/zip')
      .header('cache-control', 'private, no-store')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .send(await ctx.files.stream(sha256));
  });
}
