import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { packetView } from '../packets/service';
import { copyItem, addToShelf } from './add-to-shelf';
import * as bundle from './bundle';
import * as forms from './forms';
import * as service from './service';
import * as views from './views';
import { kitsForDeal, tryKit, useKit } from './use';
import * as written from './written';

/** Serves the shelf, for members. */
export function shelfRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'shelf', ({ query, member }) => views.listShelf(ctx, member, query));
  serve(app, 'newForm', async ({ file, member }) => forms.newForm(ctx, await file(), member));
  serve(app, 'bringBundle', async ({ file, member }) => bundle.bringBundle(ctx, await file(), member));
  serve(app, 'shelfBundle', async ({ params, member, reply }) => {
    const { name, stream } = await bundle.bundleOf(ctx, params.shelfId, member);
    return reply
      .type('application/zip')
      .header('cache-control', 'private, no-store')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .send(stream);
  });
  serve(app, 'newWritten', ({ body, member }) => written.newWritten(ctx, body, member));
  serve(app, 'saveWritten', ({ params, body, member }) => written.saveText(ctx, params.shelfId, body, member));
  serve(app, 'newKit', ({ body, member }) => service.newKit(ctx, body, member));
  serve(app, 'addToShelf', ({ body, member }) => addToShelf(ctx, body, member));
  serve(app, 'shelfItem', ({ params, member }) => views.itemView(ctx, params.shelfId, member));
  serve(app, 'editShelfItem', ({ params, body, member }) => service.editItem(ctx, params.shelfId, body, member));
  serve(app, 'setShelfItem', ({ params, body, member }) => service.setItem(ctx, params.shelfId, body, member));
  serve(app, 'bringChanged', async ({ params, file, member }) =>
    forms.bringChanged(ctx, params.shelfId, await file(), member),
  );
  serve(app, 'findAgain', ({ params, member }) => forms.findAgain(ctx, params.shelfId, params.documentId, member));
  serve(app, 'copyShelfItem', ({ params, member }) => copyItem(ctx, params.shelfId, member));
  serve(app, 'putOnShelf', ({ params, body, member }) => service.putOnShelf(ctx, params.shelfId, body, member));
  serve(app, 'deleteShelfItem', async ({ params, member }) => {
    await service.deleteItem(ctx, params.shelfId, member);
  });
  serve(app, 'dealKits', ({ params, member }) => kitsForDeal(ctx, params.dealId, member));
  serve(app, 'tryKit', ({ params, body, member }) => tryKit(ctx, params.dealId, params.shelfId, body, member));
  serve(app, 'useKit', async ({ params, body, member }) =>
    packetView(ctx, await useKit(ctx, params.dealId, params.shelfId, body, member)),
  );
}
