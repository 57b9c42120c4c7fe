import type { FastifyInstance } from 'fastify';
import type { DealBody, DealPatch, ListQuery, PartyBody } from '@gatepath/contract';
import type { Context } from '../context';
import { listening } from '../firm/routes';
import { serve } from '../http/routing';
import { topics } from '../live/live';
import * as service from './service';

export function dealRoutes(app: FastifyInstance, ctx: Context): void {
  serve<unknown, ListQuery>(app, 'deals', ({ query }) => service.listDeals(ctx, query));
  serve<DealBody>(app, 'newDeal', ({ body }) => service.openDeal(ctx, body));
  serve(app, 'deal', ({ params }) => service.dealView(ctx, params.dealId!));
  serve(app, 'dealLive', async ({ params, request, reply }) => {
    await service.dealOr404(ctx.database.pool, params.dealId!);
    ctx.live.serve(request, reply, [topics.deal(params.dealId!)], listening(ctx, request));
    return reply;
  });
  serve<DealPatch>(app, 'setDeal', ({ params, body }) => service.changeDeal(ctx, params.dealId!, body));
  serve<PartyBody>(app, 'addParty', ({ params, body }) => service.addPartyToDeal(ctx, params.dealId!, body));
  serve<PartyBody>(app, 'setParty', ({ params, body }) => service.correctParty(ctx, params.partyId!, body));
  serve(app, 'dropParty', ({ params }) => service.dropParty(ctx, params.partyId!));
}
