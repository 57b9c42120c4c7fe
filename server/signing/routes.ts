import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sendPdf } from '../http/replies';
import { sendPdfBytes } from '../http/replies';
import { sendForVisit } from '../http/replies';
import { serve } from '../http/routing';
import { topics } from '../live/live';
import * as entry from './entry';
import * as hands from './hands';
import { rehearsalView } from './rehearsal';
import { changesSince } from './revised';
import * as service from './service';
import * as talk from './talk';

/** Serves the ceremony, for bearers of a signing link. */
// eslint-disable-next-line max-lines-per-function -- a list of routes
export function signingRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'signing', ({ visit }) => service.openLink(ctx, visit));
  serve(app, 'signingLive', async ({ request, reply, visit }) => {
    const { packetId, linkId } = await entry.packetOfVisit(ctx, visit);
    ctx.live.serve(request, reply, [topics.packet(packetId)], {
      owner: linkId,
      most: 6,
      // Nothing is sent to a link that has ended, or whose packet was withdrawn.
      mayHear: () =>
        // The link is read from the database for every message, because it may have ended meanwhile.
        entry.enterAnew(ctx, { ...visit }).then(
          () => true,
          () => false,
        ),
    });
    return reply;
  });
  serve(app, 'signingPage', async ({ params, query, visit, reply }) =>
    sendForVisit(reply, await service.page(ctx, visit, params.documentId, params.page, query.dpi)),
  );
  serve(app, 'signingChanges', ({ params, visit }) => changesSince(ctx, visit, params.documentId));
  serve(app, 'signingFile', async ({ params, visit, reply }) => {
    const file = await service.file(ctx, visit, params.documentId);
    return 'bytes' in file
      ? sendPdfBytes(reply, file.bytes, file.name)
      : sendPdf(reply, await ctx.files.stream(file.sha256), file.name);
  });
  serve(app, 'signingPicture', async ({ params, visit, reply }) =>
    sendForVisit(reply, await ctx.files.stream(await service.picture(ctx, visit, params.sha256))),
  );
  serve(app, 'addPicture', async ({ visit, file }) => hands.addPicture(ctx, visit, await file()));
  serve(app, 'sendCode', async ({ visit }) => {
    await entry.sendCode(ctx, visit);
    return service.openLink(ctx, visit);
  });
  serve(app, 'giveCode', async ({ body, reply, visit }) => {
    const proof = await entry.giveCode(ctx, visit, body.code);
    reply.setCookie(proof.name, proof.secret, {
      path: '/api/signing',
      httpOnly: true,
      sameSite: 'lax',
      secure: ctx.config.publicUrl.startsWith('https:'),
      maxAge: 30 * 86_400,
    });
    return service.openLink(ctx, { ...visit, cookies: { ...visit.cookies, [proof.name]: proof.secret } });
  });
  serve(app, 'setLanguage', ({ body, visit }) => talk.setLanguage(ctx, visit, body.language));
  serve(app, 'agree', ({ body, visit }) => service.agree(ctx, visit, body));
  serve(app, 'agreementCopy', async ({ visit }) => {
    await talk.sendAgreement(ctx, visit);
  });
  serve(app, 'setHand', ({ body, visit }) => service.setHand(ctx, visit, body));
  serve(app, 'addFile', async ({ params, query, visit, file }) => {
    return service.addFile(ctx, visit, params.markId, { ...(await file()), actId: query.actId });
  });
  serve(app, 'fill', ({ params, body, visit }) => service.fill(ctx, visit, params.markId, body));
  serve(app, 'finish', ({ body, visit }) => service.finish(ctx, visit, body.actId));
  serve(app, 'decline', ({ body, visit }) => service.decline(ctx, visit, body.reason));
  serve(app, 'askQuestion', ({ body, visit }) => talk.askQuestion(ctx, visit, body));
  serve(app, 'handOver', async ({ body, visit }) => {
    await talk.handOver(ctx, visit, body);
  });
}

/** Serves what a member sees of a packet as one of its parties would. */
export function rehearsalRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'rehearsal', ({ params, query }) => rehearsalView(ctx, params.packetId, params.partyId, query.language));
}
