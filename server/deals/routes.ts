import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

export function dealRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'deals', ({ query }) => service.listDeals(ctx, query));
  serve(app, 'newDeal', ({ body }) => service.openDeal(ctx, body));
  serve(app, 'deal', ({ params }) => service.dealView(ctx, params.dealId));
  serve(app, 'setDeal', ({ params, body }) => service.changeDeal(ctx, params.dealId, body));
  serve(app, 'addParty', ({ params, body }) => service.addPartyToDeal(ctx, params.dealId, body));
  serve(app, 'setParty', ({ params, body }) => service.correctParty(ctx, params.partyId, body));
  serve(app, 'dropParty', ({ params }) => service.dropParty(ctx, params.partyId));
}
