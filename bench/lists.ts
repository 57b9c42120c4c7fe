import { newId } from '../server/ids';
import { withFirm } from './firm';
import { median, rowOf, type Row } from './measure';

/**
 * Measures opening a list of 20 deals, and a packet, when there are 60,000 packets, against the same when there are
 * 100.
 */
export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const { pool } = running.ctx.database;
    const fill = async (deals: number, each: number) => {
      for (let left = deals; left > 0; left -= 1_000) {
        const ids = Array.from({ length: Math.min(1_000, left) }, () => newId());
        await pool.query(
          `insert into deal (id, kind, address, city, time_zone, created_at)
           select id, 'listing', right(id, 4) || ' Lantern Row', 'Tern Lock', 'UTC', now() from unnest($1::text[]) as t(id)`,
          [ids],
        );
        // Drafts of a size that is kept out of the row, as real ones are.
        await pool.query(
          `with made as (
             insert into packet (id, deal_id, name, status, created_by, created_at, path, replaces_id)
             select id || '-' || n, id, 'Papers', 'drafting', (select id from member limit 1), now(), '{"parties":[],"gates":[]}',
                    case when n = 2 then id || '-1' end
             from unnest($1::text[]) as t(id), generate_series(1, $2::int) n returning id)
           insert into packet_draft (packet_id, draft)
           select id, jsonb_build_object('name', 'Papers', 'parties', '[]'::jsonb, 'gates', '[]'::jsonb, 'documents', '[]'::jsonb,
             'marks', '[]'::jsonb, 'filler', (select string_agg(md5(i::text), '') from generate_series(1, 100) i)) from made`,
          [ids, each],
        );
      }
      await pool.query('analyze');
    };
    const deal = await desk.ok('newDeal', { body: { kind: 'sale', address: '14 Lantern Row' } });
    const packet = await desk.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name: 'Papers' },
    });
    const list = () => desk.ok('deals', { query: { limit: '20' } });
    const page = () => desk.ok('packet', { params: { packetId: packet.id } });
    // Five packets a deal in both, so that the same is shown.
    await fill(20, 5);
    // A process that has just begun is slower at anything.
    for (let n = 0; n < 60; n++) await Promise.all([list(), page()]);
    const few = [await median(list, 21), await median(page, 21)] as const;
    await fill(11_980, 5);
    const many = [await median(list, 21), await median(page, 21)] as const;
    return [
      rowOf('open 20 deals among 60,000 packets', many[0], 'the same among 100', few[0]),
      rowOf('open a packet among 60,000', many[1], 'the same among 100', few[1]),
    ];
  });
}
