import { newId } from '../server/ids';
import { withFirm } from './firm';
import { median, rowOf, type Row } from './measure';

const STREETS = [
  'Lantern Row',
  'Weir Terrace',
  'Mill Cut',
  'Basin Street',
  'Orchard Lane',
  'Tow Lane',
  'Reed End',
  'Lock Hill',
];

/**
 * Measures what a coordinator opens every day in a firm of ten years (10,000 deals, 60,000 packets, 100,000 people)
 * against a firm with 100 deals. She has forty deals in both; of the other deals of the large firm up to two percent are
 * open too, and belong to her colleagues.
 */
export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const { pool } = running.ctx.database;
    /** Returns deals with six packets and ten people each; every so-many-th is open, and somebody's. */
    const fill = async (deals: number, open: number, whose: string) => {
      for (let left = deals; left > 0; left -= 500) {
        const ids = Array.from({ length: Math.min(500, left) }, () => newId());
        await pool.query(
          `insert into deal (id, kind, address, city, time_zone, created_at, status, computed, figures)
           select id, 'sale', n || ' ' || ($2::text[])[1 + n % 8], 'Tern Lock', 'UTC', now(),
             case when n % $3::int = 0 then 'active' else 'closed' end, d.computed, d.figures
           from unnest($1::text[]) with ordinality as t(id, n), (select computed, figures from deal order by id limit 1) d`,
          [ids, STREETS, open],
        );
        await pool.query(
          `insert into person (id, name, email, created_at)
           select id || '-' || k, 'Person ' || right(id, 12) || ' ' || k, right(id, 12) || k || '@example.com', now()
           from unnest($1::text[]) as t(id), generate_series(1, 10) k`,
          [ids],
        );
        await pool.query(
          `insert into party (id, deal_id, side, ordinal, name, email, created_at, person_id)
           select id || '-' || k, id, 'seller', k, 'Person ' || right(id, 12) || ' ' || k, right(id, 12) || k || '@example.com',
             now(), id || '-' || k
           from unnest($1::text[]) as t(id), generate_series(1, 10) k`,
          [ids],
        );
        await pool.query(
          `insert into packet (id, deal_id, name, status, created_by, created_at, path, ended_at)
           select id || '-' || k, id, 'Purchase papers ' || k, 'executed', (select id from member limit 1), now(),
             '{"parties":[],"gates":[]}', now() - interval '40 days'
           from unnest($1::text[]) as t(id), generate_series(1, 6) k`,
          [ids],
        );
        await pool.query(
          `insert into find_entry (kind, id, deal_id, title, detail, folded, is_open, words)
           select kind, id, deal_id, title, detail, lower(title || ' ' || detail),
             coalesce((select status = 'active' from deal where deal.id = x.deal_id), true),
             to_tsvector('simple', title || ' ' || detail) from (
             select 'deal' as kind, id, id as deal_id, address as title, 'Sale, Tern Lock' as detail from deal where id = any($1::text[])
             union all select 'packet', p.id, p.deal_id, p.name, d.address from packet p join deal d on d.id = p.deal_id
               where d.id = any($1::text[])
             union all select 'person', p.id, null, p.name, p.email from person p where split_part(p.id, '-', 6) <> ''
               and left(p.id, 36) = any($1::text[])) x`,
          [ids],
        );
        await pool.query(
          `insert into deal_item (deal_id, member_id, list, ref, day, item)
           select i.id, $2, l.list, l.ref, l.day, l.item from unnest($1::text[]) with ordinality as i(id, n),
             (select list, ref, day, item from deal_item where deal_id = (select id from deal order by id limit 1)) l
           where n % $3::int = 0`,
          [ids, whose, open],
        );
      }
      await pool.query('analyze');
    };
    const people = Array.from({ length: 4 }, (_, i) => ({
      side: i % 2 ? ('buyer' as const) : ('seller' as const),
      name: `Wren Alder ${i}`,
      email: `wren${i}@example.com`,
    }));
    const deal = await desk.ok('newDeal', { body: { kind: 'sale', address: '14 Lantern Row', parties: people } });
    const day = (await desk.ok('today')).today;
    await desk.ok('setDeal', {
      params: { dealId: deal.id },
      body: { facts: { year_built: 1962 }, dates: { accepted: day, closing: day } },
    });
    const packet = await desk.ok('newPacket', { params: { dealId: deal.id }, body: { name: 'Papers' } });
    await running.ctx.jobs.idle('deal');
    const asked = {
      'a page of deals': () => desk.ok('deals', { query: { limit: '20' } }),
      'a search': () => desk.ok('find', { query: { q: 'lantern' } }),
      Today: () => desk.ok('today'),
      'a deal': () => desk.ok('deal', { params: { dealId: deal.id } }),
      'a packet': () => desk.ok('packet', { params: { packetId: packet.id } }),
      'a page of people': () => desk.ok('people', { query: { limit: '20' } }),
    };
    const letters = ['w', 'we', 'wei', 'weir', 'weir t', 'weir te', 'lantren row', '12 mill'];
    const typing = async () => {
      for (const q of letters) await desk.ok('find', { query: { q } });
    };
    const times = async () => {
      const out: number[] = [];
      for (const ask of Object.values(asked)) out.push(await median(ask, 15));
      return out;
    };
    // Two open of every five: forty.
    await fill(60, 3, '');
    await fill(39, 2, '');
    // A process that has just begun is slower at anything.
    for (let n = 0; n < 20; n++) for (const ask of Object.values(asked)) await ask();
    const few = await times();
    await fill(9_900, 50, 'a colleague');
    const many = await times();
    const letter = (await median(typing, 9)) / letters.length;
    return [
      ...Object.keys(asked).map((name, i) =>
        rowOf(`${name} among 10,000 deals`, many[i] ?? 0, 'the same among 100', few[i] ?? 0),
      ),
      rowOf('an answer while typing, ms', letter, 'what is wanted, ms', 150),
    ];
  });
}
