import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sendPdf } from '../http/replies';
import { sendPng } from '../http/replies';
import { serve } from '../http/routing';
import * as changes from './change-service';
import * as drafts from './draft-service';
import * as later from './later';
import * as service from './service';

/** Serves packets, for members. */
export function packetRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'newPacket', async ({ params, body, member }) =>
    service.packetView(ctx, await drafts.startPacket(ctx, params.dealId, body, member)),
  );
  serve(app, 'packet', ({ params }) => service.packetView(ctx, params.packetId));
  serve(app, 'editPacket', ({ params, body, member }) => drafts.editDraft(ctx, params.packetId, body, member));
  serve(app, 'deletePacket', async ({ params }) => {
    await drafts.deleteDraft(ctx, params.packetId);
  });
  serve(app, 'sendPacket', async ({ params, body, member }) => {
    await service.sendPacket(ctx, params.packetId, body, member);
    return service.packetView(ctx, params.packetId);
  });
  serve(app, 'sendLater', async ({ params, body, member }) => {
    await later.sendLater(ctx, params.packetId, body, member);
    return service.packetView(ctx, params.packetId);
  });
  serve(app, 'sendNotLater', async ({ params }) => {
    await later.sendNotLater(ctx, params.packetId);
    return service.packetView(ctx, params.packetId);
  });
  serve(app, 'withdrawPacket', async ({ params, body, member }) => {
    await service.withdrawPacket(ctx, params.packetId, body.reason, member);
    return service.packetView(ctx, params.packetId);
  });
  serve(app, 'changePacket', async ({ params, body, member }) => {
    await changes.changePacket(ctx, params.packetId, body, member);
    return service.packetView(ctx, params.packetId);
  });
  serve(app, 'newVersion', async ({ params, body, member }) =>
    service.packetView(ctx, await changes.takeBack(ctx, params.packetId, body.reason, member)),
  );
  serve(app, 'lateRound', async ({ params, body, member }) =>
    service.packetView(ctx, await changes.startLateRound(ctx, params.packetId, body.documentIds, member)),
  );
  serve(app, 'hostParty', async ({ params, member }) => ({
    token: await changes.hostParty(ctx, params.packetId, params.partyId, member),
  }));
  serve(app, 'ownLink', async ({ params, member }) => ({
    token: await changes.ownLink(ctx, params.packetId, params.partyId, member),
  }));
  serve(app, 'chain', async ({ params, reply }) => {
    const file = await service.chainOf(ctx, params.packetId);
    return reply
      .type('application/json')
      .header('cache-control', 'private, no-store')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`)
      .send(file.text);
  });
  serve(app, 'packetPicture', async ({ params, reply }) =>
    sendPng(reply, await ctx.files.stream(await service.packetPicture(ctx, params.packetId, params.sha256))),
  );
  serve(app, 'sealedCopy', async ({ params, reply }) => {
    const file = await service.sealedFile(ctx.database.pool, params.packetId, params.documentId);
    return sendPdf(reply, await ctx.files.stream(file.sha256), file.name);
  });
}
