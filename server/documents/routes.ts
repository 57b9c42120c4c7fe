import type { FastifyInstance, FastifyReply } from 'fastify';
import { cornersOfText } from '@gatepath/core/scan';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as bringIn from './bring-in';
import * as changes from './changes';
import { bringForward } from './scans';
import * as service from './service';
import * as signatures from './signatures';
import { sendPage, sendPdf, sendPdfBytes } from '../http/replies';

/** Serves adding documents, and what was read on them. */
export function documentRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'addDocument', async ({ params, query, file }) =>
    bringIn.addDocument(ctx, params.dealId, await file(), query.corners ? cornersOfText(query.corners) : null),
  );
  serve(app, 'setDocument', ({ params, body, member }) => service.changeDocument(ctx, params.documentId, body, member));
  serve(app, 'composeDocument', ({ params, body }) => bringIn.composeDocument(ctx, params.dealId, body));
  serve(app, 'paperSignatures', ({ params, member }) => signatures.signaturesOf(ctx, params.documentId, member));
  serve(app, 'changes', ({ params, member }) => changes.changesOf(ctx, params.documentId, params.beforeId, member));
  serve(app, 'changesFile', async ({ params, member, reply }) => {
    const { bytes, name } = await changes.changesFile(ctx, params.documentId, params.beforeId, member);
    return sendPdfBytes(reply, bytes, name);
  });
  serve(app, 'deleteDocument', async ({ params }) => {
    await service.deleteDocument(ctx, params.documentId);
  });
  serve(app, 'documentFacts', async ({ params, request, reply, member }) => {
    const row = await service.documentFor(ctx.database.pool, params.documentId, member);
    void reply.header('cache-control', 'private, max-age=86400').header('vary', 'accept-encoding');
    if (!/\bgzip\b/.test(request.headers['accept-encoding'] ?? '')) return service.packedFacts(ctx, row);
    // They are stored compressed, and sent as stored.
    return reply
      .type('application/json')
      .header('content-encoding', 'gzip')
      .send(await service.storedFacts(ctx, row));
  });
  serve(app, 'documentFile', async ({ params, reply, member }) => {
    const row = await service.documentFor(ctx.database.pool, params.documentId, member);
    const body = await ctx.files.stream(row.original_sha256);
    return row.came_as === 'pdf' ? sendPdf(reply, body, row.file_name) : sendOriginal(reply, body, row.file_name);
  });
  serve(app, 'documentPage', async ({ params, query, reply, member }) => {
    const row = await service.documentFor(ctx.database.pool, params.documentId, member);
    if (row.status !== 'reading') return sendPage(reply, await service.pageImage(ctx, row, params.page, query.dpi));
    // While its words are recognized a page may still be turned upright.
    bringForward(ctx, row.id, params.page);
    const png = await service.pageImage(ctx, row, params.page, query.dpi);
    return reply.type('image/png').header('cache-control', 'private, no-cache').send(png);
  });
}

/** Sends an original file, never to be shown by the browser itself. */
function sendOriginal(reply: FastifyReply, body: unknown, name: string): FastifyReply {
  return reply
    .type('application/octet-stream')
    .header('cache-control', 'private, no-store')
    .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
    .send(body);
}
