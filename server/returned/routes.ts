import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves the review of papers that came back signed by hand. */
export function returnedRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'beginPaperReview', ({ params, body, member }) =>
    service.beginReview(ctx, params.documentId, body, member),
  );
  serve(app, 'paperReview', ({ params, member }) => service.check(ctx, params.documentId, member));
  serve(app, 'sayOfPlaces', ({ params, body, member }) => service.sayOfPlaces(ctx, params.documentId, body, member));
  serve(app, 'endReview', ({ params, body, member }) => service.endReview(ctx, params.documentId, body, member));
  serve(app, 'sendBack', ({ params, member }) => service.sendBack(ctx, params.documentId, member));
}
