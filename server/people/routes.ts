import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { find } from '../find/service';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves the address book and the search, for members. */
export function peopleRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'people', ({ query }) => service.listPeople(ctx, query));
  serve(app, 'person', ({ params, member }) => service.personView(ctx, params.personId, member));
  serve(app, 'setPerson', ({ params, body, member }) => service.setPerson(ctx, params.personId, body, member));
  serve(app, 'mergePerson', ({ params, body, member }) =>
    service.mergePerson(ctx, params.personId, body.personId, member),
  );
  serve(app, 'find', ({ query }) => find(ctx, query.q));
}
