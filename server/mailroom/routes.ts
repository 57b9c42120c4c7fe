import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

/** Serves the mailroom, for members. */
export function mailroomRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'mailroom', ({ query, member }) => service.listMessages(ctx, query, member));
  serve(app, 'message', ({ params, member }) => service.messageView(ctx, params.messageId, member));
  serve(app, 'returnMessage', ({ params, body, member }) =>
    service.returnMessage(ctx, params.messageId, member, body.why),
  );
  serve(app, 'messageFile', async ({ params, reply, member }) =>
    reply
      .type('message/rfc822')
      .header('content-disposition', `attachment; filename="message-${params.messageId}.eml"`)
      .send(await service.messageEml(ctx, params.messageId, member)),
  );
}
