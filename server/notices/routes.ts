import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { sendPdfBytes } from '../http/replies';
import { serve } from '../http/routing';
import * as papers from './papers';
import { rulesView, setRules } from './rules';
import * as service from './service';
import * as views from './views';

/** Serves notices to many households. */
export function noticeRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'notices', ({ query }) => views.listNotices(ctx, query));
  serve(app, 'newNotice', ({ body, member }) => service.newNotice(ctx, body, member));
  serve(app, 'notice', ({ params }) => views.noticeView(ctx, params.noticeId));
  serve(app, 'setNotice', ({ params, body }) => service.setNotice(ctx, params.noticeId, body));
  serve(app, 'deleteNotice', async ({ params }) => {
    await service.deleteNotice(ctx, params.noticeId);
  });
  serve(app, 'noticeRows', ({ params, query }) => views.listRows(ctx, params.noticeId, query));
  serve(app, 'addHomes', ({ params, body }) => service.addHomes(ctx, params.noticeId, body));
  serve(app, 'homeTable', async ({ params, query, file }) =>
    service.takeTable(ctx, params.noticeId, query, await file()),
  );
  serve(app, 'setNoticeRow', ({ params, body }) => service.setRow(ctx, params.noticeId, params.rowId, body));
  serve(app, 'noticePaper', async ({ params, member, reply }) => {
    const { name, bytes } = await papers.paperOfRow(ctx, params.noticeId, params.rowId, member);
    return sendPdfBytes(reply, bytes, name);
  });
  serve(app, 'goNotice', ({ params }) => service.go(ctx, params.noticeId));
  serve(app, 'stopNotice', ({ params }) => service.stop(ctx, params.noticeId));
  serve(app, 'noticeLetters', async ({ params, reply }) => {
    const { name, bytes } = await papers.lettersOf(ctx, params.noticeId);
    return sendPdfBytes(reply, bytes, name);
  });
  serve(app, 'lettersWent', ({ params, body, member }) => service.lettersWent(ctx, params.noticeId, body, member));
  serve(app, 'noticeRules', () => rulesView(ctx));
  serve(app, 'setNoticeRules', ({ body }) => setRules(ctx, body));
}
