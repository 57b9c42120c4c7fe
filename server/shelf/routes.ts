import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { packetView } from '../packets/service';
import { keepOnShelf } from './keep';
import * as service from './service';
import { kitsForDeal, tryKit, useKit } from './use';

export function shelfRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'shelf', ({ query }) => service.listShelf(ctx, query));
  serve(app, 'newForm', async ({ file, member }) => service.newForm(ctx, await file(), member));
  serve(app, 'newKit', ({ body, member }) => service.newKit(ctx, body, member));
  serve(app, 'keepOnShelf', ({ body, member }) => keepOnShelf(ctx, body, member));
  serve(app, 'shelfItem', ({ params }) => service.itemView(ctx, params.shelfId));
  serve(app, 'editShelfItem', ({ params, body }) => service.editItem(ctx, params.shelfId, body));
  serve(app, 'setShelfItem', ({ params, body, member }) => service.setItem(ctx, params.shelfId, body, member));
  serve(app, 'putOnShelf', ({ params, body, member }) => service.putOnShelf(ctx, params.shelfId, body, member));
  serve(app, 'dropShelfItem', async ({ params }) => {
    await service.dropItem(ctx, params.shelfId);
  });
  serve(app, 'dealKits', ({ params }) => kitsForDeal(ctx, params.dealId));
  serve(app, 'tryKit', ({ params, body }) => tryKit(ctx, params.dealId, params.shelfId, body));
  serve(app, 'useKit', async ({ params, body, member }) =>
    packetView(ctx, await useKit(ctx, params.dealId, params.shelfId, body, member)),
  );
}
