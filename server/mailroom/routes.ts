import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import * as service from './service';

export function mailroomRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'mailroom', ({ query }) => service.listMessages(ctx, query));
  serve(app, 'message', ({ params }) => service.messageView(ctx, params.messageId));
  serve(app, 'returnMessage', ({ params, body }) => service.returnMessage(ctx, params.messageId, body.why));
  serve(app, 'messageFile', async ({ params, reply }) =>
    reply
      .type('message/rfc822')
      .header('content-disposition', `attachment; filename="message-${params.messageId}.eml"`)
      .send(await service.messageEml(ctx, params.messageId)),
  );
}
