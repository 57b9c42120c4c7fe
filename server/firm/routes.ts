import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { ClockBody, HolidaysBody, NoticesBody, SetupBody, SignInBody, TryAgainBody } from '@gatepath/contract';
import type { Context } from '../context';
import { serve } from '../http/routing';
import type { Member } from './queries';
import { forwardClock } from '../jobs/calendar';
import type { StreamOptions } from '../live/live';
import { wordsOf } from '../words';
import * as service from './service';

declare module 'fastify' {
  interface FastifyRequest {
    member: Member | null;
  }
}

export const SESSION_COOKIE = 'gatepath_session';

export function firmRoutes(app: FastifyInstance, ctx: Context): void {
  const remember = (reply: FastifyReply, token: string) =>
    reply.setCookie(SESSION_COOKIE, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'lax',
      secure: ctx.config.publicUrl.startsWith('https:'),
      maxAge: 14 * 86_400,
    });
  const slow = { config: { rateLimit: { max: 30, timeWindow: 60_000 } } };

  serve(app, 'session', ({ request }) => service.sessionView(ctx, request.member));
  serve<SetupBody>(
    app,
    'setup',
    async ({ body, reply }) => {
      const { member, token } = await service.setUpFirm(ctx, body);
      remember(reply, token);
      return service.sessionView(ctx, member);
    },
    slow,
  );
  serve<SignInBody>(
    app,
    'signIn',
    async ({ body, request, reply }) => {
      const { member, token } = await service.signIn(ctx, body, request.ip);
      remember(reply, token);
      return service.sessionView(ctx, member);
    },
    slow,
  );
  serve(app, 'signOut', async ({ request, reply }) => {
    const token = cookieOf(request);
    if (token) await service.signOut(ctx, token);
    reply.clearCookie(SESSION_COOKIE, { path: '/' });
    return service.sessionView(ctx, null);
  });
  serve(app, 'firm', () => service.firmView(ctx));
  serve(app, 'words', ({ params, reply }) => {
    const words = wordsOf(params.language);
    void reply.header('cache-control', 'no-cache');
    return words;
  });
  serve<NoticesBody>(app, 'setNotices', async ({ body, member }) =>
    service.sessionView(ctx, await service.setNotices(ctx, member, body.notices, body.digest)),
  );
  serve<HolidaysBody>(app, 'setHolidays', async ({ body }) => {
    await service.setHolidays(ctx, body.holidays);
    return service.firmView(ctx);
  });
  serve<TryAgainBody>(app, 'tryAgain', async ({ body }) => {
    await service.tryAgain(ctx, body.queue, body.thing);
    return service.firmView(ctx);
  });
  serve<ClockBody>(app, 'forwardClock', async ({ body, member }) => {
    await forwardClock(ctx, body.hours);
    return service.sessionView(ctx, member);
  });
}

/** A member's live view: it ends with the session. */
export function listening(ctx: Context, request: FastifyRequest): StreamOptions {
  const token = cookieOf(request)!;
  return {
    owner: `member:${request.member!.id}`,
    most: 60,
    mayHear: async () => (await service.memberOfToken(ctx, token)) !== null,
  };
}

export function cookieOf(request: FastifyRequest): string | undefined {
  return request.cookies[SESSION_COOKIE];
}
