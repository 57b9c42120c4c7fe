import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sendPdf } from '../http/replies';
import { serve } from '../http/routing';
import * as own from './service';

/** Serves a person's own page, for whoever has its address and enters the code. */
export function ownRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'ownPage', ({ params, query, request }) =>
    own.ownPage(ctx, own.ownVisitOf(request, params.token), query.after),
  );
  serve(app, 'sendOwnCode', ({ params, request }) => own.sendOwnCode(ctx, own.ownVisitOf(request, params.token)));
  serve(app, 'giveOwnCode', async ({ params, body, request, reply }) => {
    const { name, secret, view } = await own.giveOwnCode(ctx, own.ownVisitOf(request, params.token), body.code);
    reply.setCookie(name, secret, {
      path: '/api/mine',
      httpOnly: true,
      sameSite: 'lax',
      secure: ctx.config.publicUrl.startsWith('https:'),
      maxAge: own.PROOF_SECONDS,
    });
    return view;
  });
  serve(app, 'setOwnLanguage', ({ params, body, request }) =>
    own.setOwnLanguage(ctx, own.ownVisitOf(request, params.token), body.language),
  );
  serve(app, 'openOwn', ({ params, request }) =>
    own.openOwn(ctx, own.ownVisitOf(request, params.token), params.packetId),
  );
  serve(app, 'ownFile', async ({ params, query, request, reply }) => {
    const visit = own.ownVisitOf(request, params.token);
    const file = await own.ownFile(ctx, visit, params.packetId, params.documentId, query.as);
    return sendPdf(reply, await ctx.files.stream(file.sha256), file.name);
  });
}

/** Serves asking for one's own page, from within a signing link. */
export function ownPageRequestRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'askForPage', ({ visit }) => own.askForPage(ctx, visit));
}
