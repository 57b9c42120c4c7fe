import { newId } from '../server/ids';
import { withFirm } from './firm';
import { median, rowOf, type Row } from './measure';

/** Opening a list of 20 deals when there are 10,000, against the same list when there are 100. */
export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const fill = async (n: number) => {
      const ids = Array.from({ length: n }, () => newId());
      await running.ctx.database.pool.query(
        `insert into deal (id, kind, address, city, time_zone, created_at)
       select id, 'listing', right(id, 4) || ' Lantern Row', 'Tern Lock', 'UTC', now() from unnest($1::text[]) as t(id)`,
        [ids],
      );
      await running.ctx.database.pool.query(
        `insert into packet (id, deal_id, name, status, draft, created_by, created_at)
       select id, id, 'Papers', 'drafting', '{"parties":[],"gates":[],"documents":[]}', (select id from member limit 1), now()
       from unnest($1::text[]) as t(id)`,
        [ids],
      );
    };
    const open = () => desk.ok('deals', { query: { limit: '20' } });
    await fill(100);
    const few = await median(open, 21);
    await fill(9_900);
    const many = await median(open, 21);
    return [rowOf('open 20 deals out of 10,000', many, 'the same out of 100', few)];
  });
}
