import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { unusable } from '../problem';
import { checkCopy } from './check-service';

export function proofRoutes(app: FastifyInstance, ctx: Context): void {
  serve(
    app,
    'check',
    async ({ request }) => {
      const part = await request.file();
      if (!part) throw unusable('no-file', 'No file came with the request. Choose a sealed PDF and try again.');
      const bytes = await part.toBuffer();
      if (part.file.truncated)
        throw unusable('too-large', 'This file is larger than 50 MB. It cannot be checked here.');
      return checkCopy(ctx, part.filename.slice(0, 200), bytes);
    },
    // Anybody may check, and checking is work: not too often from one place.
    { config: { rateLimit: { max: 30, timeWindow: 60_000 } } },
  );
}
