import type { FastifyInstance } from 'fastify';
import type { DeclineBody, FillBody, HandBody } from '@gatepath/contract';
import type { Context } from '../context';
import { dpiOf, sendPage, sendPdf } from '../documents/routes';
import { originOf, serve } from '../http/routing';
import { topics } from '../live/live';
import { unusable } from '../problem';
import * as service from './service';

export function signingRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'signing', ({ params, request }) => service.openPass(ctx, params.token!, originOf(request)));
  serve(app, 'signingLive', async ({ params, request, reply }) => {
    const packetId = await service.packetOfToken(ctx, params.token!);
    ctx.live.serve(request, reply, [topics.packet(packetId)]);
    return reply;
  });
  serve(app, 'signingPage', async ({ params, request, reply }) =>
    sendPage(
      reply,
      await service.page(ctx, params.token!, params.documentId!, Number(params.page), dpiOf(request.query)),
    ),
  );
  serve(app, 'signingFile', async ({ params, reply }) => {
    const file = await service.file(ctx, params.token!, params.documentId!);
    return sendPdf(reply, ctx.files.stream(file.sha256), file.name);
  });
  serve<{ agreement: string }>(app, 'agree', ({ params, body, request }) =>
    service.agree(ctx, params.token!, body.agreement, originOf(request)),
  );
  serve<HandBody>(app, 'setHand', ({ params, body, request }) =>
    service.setHand(ctx, params.token!, body, originOf(request)),
  );
  serve(app, 'addFile', async ({ params, request }) => {
    const part = await request.file();
    if (!part) throw unusable('no-file', 'No file came with the request. Choose a photo or a PDF and try again.');
    const actId = String((request.query as { actId?: string }).actId ?? '').slice(0, 120);
    if (!/^[\w-]{8,}$/.test(actId)) throw unusable('no-act', 'Load the page again and add the file once more.');
    return service.addFile(
      ctx,
      params.token!,
      params.markId!,
      { name: part.filename.slice(0, 200), actId, stream: part.file },
      originOf(request),
    );
  });
  serve<FillBody>(app, 'fill', ({ params, body, request }) =>
    service.fill(ctx, params.token!, params.markId!, body, originOf(request)),
  );
  serve<{ actId: string }>(app, 'finish', ({ params, body, request }) =>
    service.finish(ctx, params.token!, body.actId, originOf(request)),
  );
  serve<DeclineBody>(app, 'decline', ({ params, body, request }) =>
    service.decline(ctx, params.token!, body.reason, originOf(request)),
  );
}
