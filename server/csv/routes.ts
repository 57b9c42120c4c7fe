import { Readable } from 'node:stream';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { stringify } from 'csv-stringify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { cardOf, cardsOfAll } from './cards';
import { writtenList } from './lists';

const asFile = (reply: FastifyReply, type: string, name: string) =>
  reply
    .type(`${type}; charset=utf-8`)
    .header('cache-control', 'private, no-store')
    .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);

/** Serves lists as files that other programs read. */
export function csvRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'csv', async ({ params, reply }) => {
    const { headings, rows } = await writtenList(ctx, params.list);
    const csv = stringify({
      header: true,
      columns: headings,
      // Spreadsheets know by this mark that it is UTF-8.
      bom: true,
      record_delimiter: '\r\n',
      // A cell that begins like a formula is never one.
      escape_formulas: true,
    });
    const source = Readable.from(rows);
    source.on('error', (error) => csv.destroy(error));
    return asFile(reply, 'text/csv', `${params.list}.csv`).send(source.pipe(csv));
  });
  serve(app, 'cards', async ({ reply }) =>
    asFile(reply, 'text/vcard', 'people.vcf').send(Readable.from(cardsOfAll(ctx))),
  );
  serve(app, 'personCard', async ({ params, reply }) => {
    const { name, text } = await cardOf(ctx, params.personId);
    return asFile(reply, 'text/vcard', `${name}.vcf`).send(text);
  });
}
