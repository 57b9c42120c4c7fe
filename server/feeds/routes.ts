import type { FastifyInstance, FastifyReply } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

const send = (reply: FastifyReply, text: string) =>
  reply.type('text/calendar; charset=utf-8').header('cache-control', 'private, no-store').send(text);

/** Serves calendars of deals and members, for members. */
export function feedRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'dealFeed', ({ params }) => service.feedView(ctx, params));
  serve(app, 'renewDealFeed', ({ params }) => service.renewFeed(ctx, params));
  serve(app, 'endDealFeed', ({ params }) => service.endFeed(ctx, params));
  serve(app, 'dealCalendar', async ({ params, reply }) => {
    const { name, text } = await service.calendarOfDeal(ctx, params.dealId);
    void reply.header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
    return send(reply, text);
  });
  serve(app, 'ownFeed', ({ member }) => service.feedView(ctx, service.own(member)));
  serve(app, 'renewOwnFeed', ({ member }) => service.renewFeed(ctx, service.own(member)));
  serve(app, 'endOwnFeed', ({ member }) => service.endFeed(ctx, service.own(member)));
}

/** Serves the calendars. Calendar programs fetch them with nothing but their secret address. */
export function calendarRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'calendar', async ({ params, reply }) => send(reply, await service.calendarBehind(ctx, params.token)));
}
