import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { importTable } from './service';

/** Serves importing tables of other programs, for members. */
export function importRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'importTable', async ({ params, query, file, member }) =>
    importTable(ctx, params.tableKind, query, await file(), member),
  );
}
