/** SQL of the list of deals: filters, order, and paging by key. */
import type { DealKind, DealStatus, ForWhom } from '@gatepath/core/deal';
import type { Side } from '@gatepath/core/text';
import type { Db } from '../db/pool';
import { COLUMNS, type DealListRow } from '../deal-records/queries';

/** Returns deals newest first, with ids below `after`. */
export async function listDeals(
  db: Db,
  o: { after: string | null; search: string | null; limit: number } & Partial<DealFilters>,
): Promise<DealListRow[]> {
  const values: unknown[] = [o.after, o.search, o.limit];
  /** Adds a condition with its value; nothing if there is no value. */
  const when = <T>(value: T | null | undefined, sql: (at: string) => string): string => {
    if (value === null || value === undefined) return '';
    values.push(value);
    return ` and ${sql(`$${values.length}`)}`;
  };
  const order = ORDERS[o.order ?? 'opened'];
  const r = await db.query<DealListRow>(
    `select ${COLUMNS}, figures from deal d
     where ($1::text is null or ${order.after})
       and ($2::text is null or d.address ilike $2 or d.city ilike $2)
       ${when(o.kind, (x) => `d.kind = ${x}`)}
       ${when(o.forWhom, (x) => `d.for_whom = ${x}`)}
       ${when(o.statuses, (x) => `d.status = any(${x}::text[])`)}
       ${when(o.tag, (x) => `d.tags ? ${x}`)}
       ${when(o.memberId, (x) => `exists (select 1 from deal_member m where m.deal_id = d.id and m.member_id = ${x})`)}
       ${when(o.dueBefore, (x) => `d.id in (select i.deal_id from deal_item i where i.list = 'due' and i.day < ${x}::date)`)}
       ${o.waits ? ` and d.id in (select p.deal_id from packet p where p.status = 'at_gate')` : ''}
       ${when(o.gate, (x) => `d.id in (select p.deal_id from packet p where p.status = 'at_gate' and p.gate = ${x})`)}
       ${when(
         o.holdUp,
         (
           x,
         ) => `d.id in (select p.deal_id from packet p join packet_party pp on pp.packet_id = p.id and pp.gate <= p.gate
           where p.status = 'at_gate' and pp.status in ('asked', 'opened', 'in_progress') and pp.act <> 'copy' and pp.side = ${x})`,
       )}
       ${o.archived === undefined ? '' : ` and d.archived_at is ${o.archived ? 'not' : ''} null`}
     order by ${order.by} limit $3`,
    values,
  );
  return r.rows;
}

/** Filters of the list of deals. */
export interface DealFilters {
  kind: DealKind;
  forWhom: ForWhom;
  statuses: DealStatus[];
  tag: string;
  memberId: string;
  /** ISO day: deals with something that is due before it. */
  dueBefore: string;
  /** With a packet that is out; at the gate with this index; that waits for a person of this side. */
  waits: boolean;
  gate: number;
  holdUp: Side;
  archived: boolean;
  order: keyof typeof ORDERS;
}

/** The deal's target date; last in order if there is none. */
const GOAL_DAY = `coalesce(d.dates->>(case when d.kind = 'tenancy' then 'move_in' else 'closing' end), '9999')`;
/** How a list is ordered, and the condition for what follows the deal with a given id. */
const ORDERS = {
  opened: { by: 'd.id desc', after: 'd.id < $1' },
  address: {
    by: 'lower(d.address), d.id',
    after: '(lower(d.address), d.id) > (select lower(x.address), x.id from deal x where x.id = $1)',
  },
  goal: {
    by: `${GOAL_DAY}, d.id`,
    after: `(${GOAL_DAY}, d.id) > (select ${GOAL_DAY.replace(/\bd\./g, 'x.')}, x.id from deal x where x.id = $1)`,
  },
} as const;

/** Maximum number of tags to choose from. */
const MOST_TAGS = 200;

/** Returns the tags in use, those of most deals first. */
export async function tagsInUse(db: Db): Promise<string[]> {
  const r = await db.query<{ tag: string }>(
    `select tag from deal, jsonb_array_elements_text(tags) as tag where tags <> '[]'
     group by tag order by count(*) desc, tag limit $1`,
    [MOST_TAGS],
  );
  return r.rows.map((t) => t.tag);
}
