import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { wordsOf } from '../words';
import { colleagues, setLets } from './colleagues';
import * as members from './members';
import * as service from './service';
import * as texts from './texts';
import { cookieOf, listening, remember, SESSION_COOKIE } from './session';

/** Returns how the browser of a request names itself, shortened. */
export const agentOf = (request: FastifyRequest) => members.browserOf(request.headers['user-agent']);

/** Serves signing in and out, and what a screen needs before it is known who it is for. */
export function sessionRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'session', ({ member }) => service.sessionView(ctx, member));
  serve(app, 'signIn', async ({ body, request, reply }) => {
    const { member, token } = await service.signIn(ctx, body, request.ip, agentOf(request));
    remember(ctx, reply, token);
    return service.sessionView(ctx, member);
  });
  serve(app, 'signOut', async ({ request, reply }) => {
    const token = cookieOf(request);
    if (token) await service.signOut(ctx, token);
    void reply.clearCookie(SESSION_COOKIE, { path: '/' });
    return service.sessionView(ctx, null);
  });
  serve(app, 'invitation', ({ params }) => members.invitationOf(ctx, params.token));
  serve(app, 'join', async ({ params, body, request, reply }) => {
    const { member, token } = await members.join(ctx, params.token, body, agentOf(request));
    remember(ctx, reply, token);
    return service.sessionView(ctx, member);
  });
  serve(app, 'forgotPassword', async ({ body, member }) => {
    await members.forgotPassword(ctx, body.email);
    return service.sessionView(ctx, member);
  });
  serve(app, 'resetPassword', async ({ params, body, reply }) => {
    await members.resetPassword(ctx, params.token, body);
    void reply.clearCookie(SESSION_COOKIE, { path: '/' });
    return service.sessionView(ctx, null);
  });
  serve(app, 'words', ({ params, reply }) => {
    void reply.header('cache-control', 'no-cache');
    return wordsOf(params.language);
  });
}

/** Serves the firm, its members and their settings. */
export function firmRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'live', ({ query, request, reply, member }) => {
    ctx.live.serve(request, reply, query.topics.split(','), listening(ctx, request, member));
    return reply;
  });
  serve(app, 'messageTexts', ({ member }) => texts.messageTexts(ctx, member));
  serve(app, 'saveText', ({ body, member }) => texts.saveText(ctx, body, member));
  serve(app, 'deleteText', ({ params, member }) => texts.deleteText(ctx, params.textId, member));
  serve(app, 'firm', ({ member }) => service.firmView(ctx, member));
  serve(app, 'invite', ({ body, member }) => members.invite(ctx, body, member));
  serve(app, 'withdrawInvitation', ({ params, member }) =>
    members.withdrawInvitation(ctx, params.invitationId, member),
  );
  serve(app, 'disableMember', ({ params, body, member }) =>
    members.disableMember(ctx, params.memberId, body.toId, member),
  );
  serve(app, 'enableMember', ({ params, member }) => members.enableMember(ctx, params.memberId, member));
  serve(app, 'changePassword', async ({ body, request, member }) => {
    const session = cookieOf(request) ?? '';
    await members.changePassword(ctx, body, member, session);
    return members.sessionsOf(ctx, member, session);
  });
  serve(app, 'sessions', ({ request, member }) => members.sessionsOf(ctx, member, cookieOf(request) ?? ''));
  serve(app, 'endSession', ({ params, request, member }) =>
    members.endSession(ctx, params.sessionId, member, cookieOf(request) ?? ''),
  );
  serve(app, 'colleagues', ({ member }) => colleagues(ctx, member));
  serve(app, 'setLets', ({ body, member }) => setLets(ctx, member, body.lets));
  serve(app, 'setNotices', async ({ body, member }) =>
    service.sessionView(ctx, await service.setNotices(ctx, member, body.notices, body.digest)),
  );
  serve(app, 'setHolidays', async ({ body, member }) => {
    await service.setHolidays(ctx, body.holidays);
    return service.firmView(ctx, member);
  });
  serve(app, 'setPlaceRemembered', async ({ body, member }) => {
    await service.setPlaceRemembered(ctx, body.on);
    return service.firmView(ctx, member);
  });
  serve(app, 'tryAgain', async ({ body, member }) => {
    await service.tryAgain(ctx, body.queue, body.thing);
    return service.firmView(ctx, member);
  });
}
