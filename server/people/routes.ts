import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { find } from '../find/service';
import { serve } from '../http/routing';
import * as service from './service';

export function peopleRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'people', ({ query }) => service.listPeople(ctx, query));
  serve(app, 'person', ({ params }) => service.personView(ctx, params.personId));
  serve(app, 'setPerson', ({ params, body }) => service.setPerson(ctx, params.personId, body));
  serve(app, 'mergePerson', ({ params, body }) => service.mergePerson(ctx, params.personId, body.personId));
  serve(app, 'find', ({ query }) => find(ctx, query.q));
}
