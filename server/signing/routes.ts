import type { FastifyInstance } from 'fastify';
import {
  MAX_PICTURE,
  type DeclineBody,
  type FillBody,
  type HandBody,
  type HandOverBody,
  type PageQuery,
  type QuestionBody,
} from '@gatepath/contract';
import type { Context } from '../context';
import { sendPage, sendPdf, sendPdfBytes, sendPng } from '../documents/routes';
import { serve } from '../http/routing';
import { fileOf } from '../http/upload';
import { topics } from '../live/live';
import * as entry from './entry';
import * as hands from './hands';
import * as service from './service';
import * as talk from './talk';
import { visitOf } from './visit';

export function signingRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'signing', ({ request }) => service.openPass(ctx, visitOf(request)));
  serve(app, 'signingLive', async ({ request, reply }) => {
    const visit = visitOf(request);
    const { packetId, passId } = await entry.packetOfVisit(ctx, visit);
    ctx.live.serve(request, reply, [topics.packet(packetId)], {
      owner: passId,
      most: 6,
      // A link that was ended hears no more; so does one whose packet was withdrawn.
      mayHear: () =>
        // Looked up anew each time: the pass that let it in may have ended since.
        entry.enter(ctx, { ...visit, pass: undefined }).then(
          () => true,
          () => false,
        ),
    });
    return reply;
  });
  serve<unknown, PageQuery>(app, 'signingPage', async ({ params, query, request, reply }) =>
    sendPage(reply, await service.page(ctx, visitOf(request), params.documentId!, Number(params.page), query.dpi)),
  );
  serve(app, 'signingFile', async ({ params, request, reply }) => {
    const file = await service.file(ctx, visitOf(request), params.documentId!);
    return 'bytes' in file
      ? sendPdfBytes(reply, file.bytes, file.name)
      : sendPdf(reply, await ctx.files.stream(file.sha256), file.name);
  });
  serve(app, 'signingPicture', async ({ params, request, reply }) =>
    sendPng(reply, await ctx.files.stream(await service.picture(ctx, visitOf(request), params.sha256!))),
  );
  serve(app, 'addPicture', async ({ request }) =>
    hands.addPicture(ctx, visitOf(request), await fileOf(request, 'a photo', MAX_PICTURE + 1)),
  );
  serve(
    app,
    'sendCode',
    async ({ request }) => {
      await entry.sendCode(ctx, visitOf(request));
      return service.openPass(ctx, visitOf(request));
    },
    slow,
  );
  serve<{ code: string }>(
    app,
    'giveCode',
    async ({ body, request, reply }) => {
      const visit = visitOf(request);
      const proof = await entry.giveCode(ctx, visit, body.code);
      reply.setCookie(proof.name, proof.secret, {
        path: '/api/signing',
        httpOnly: true,
        sameSite: 'lax',
        secure: ctx.config.publicUrl.startsWith('https:'),
        maxAge: 30 * 86_400,
      });
      return service.openPass(ctx, { ...visit, cookies: { ...visit.cookies, [proof.name]: proof.secret } });
    },
    slow,
  );
  serve<{ language: string }>(app, 'setLanguage', ({ body, request }) =>
    talk.setLanguage(ctx, visitOf(request), body.language),
  );
  serve<{ agreement: string; actId?: string }>(app, 'agree', ({ body, request }) =>
    service.agree(ctx, visitOf(request), body),
  );
  serve(
    app,
    'agreementCopy',
    async ({ request, reply }) => {
      await talk.sendAgreement(ctx, visitOf(request));
      return reply.code(204).send();
    },
    slow,
  );
  serve<HandBody>(app, 'setHand', ({ body, request }) => service.setHand(ctx, visitOf(request), body));
  serve<unknown, { actId: string }>(app, 'addFile', async ({ params, query, request }) => {
    const upload = await fileOf(request, 'a photo or a PDF');
    return service.addFile(ctx, visitOf(request), params.markId!, { ...upload, actId: query.actId });
  });
  serve<FillBody>(app, 'fill', ({ params, body, request }) =>
    service.fill(ctx, visitOf(request), params.markId!, body),
  );
  serve<{ actId: string }>(app, 'finish', ({ body, request }) => service.finish(ctx, visitOf(request), body.actId));
  serve<DeclineBody>(app, 'decline', ({ body, request }) => service.decline(ctx, visitOf(request), body.reason));
  serve<QuestionBody>(app, 'askQuestion', ({ body, request }) => talk.askQuestion(ctx, visitOf(request), body));
  serve<HandOverBody>(app, 'handOver', async ({ body, request, reply }) => {
    await talk.handOver(ctx, visitOf(request), body);
    return reply.code(204).send();
  });
}

/** Guessing and flooding are slow whatever link they come through. */
const slow = { config: { rateLimit: { max: 30, timeWindow: 60_000 } } };
