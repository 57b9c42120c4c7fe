/** Whole lists as tables: headings, and rows asked for part by part, so that memory stays the same however long they are. */
import { factsByKey, factWords, KIND_WORDS, STATUS_WORDS, type FactDef, type FactValue } from '@gatepath/core/deal';
import { intakeFields, type IntakeField } from '@gatepath/core/intake';
import { SIDE_WORDS } from '@gatepath/core/text';
import type { ListName } from '@gatepath/contract';
import type { Context } from '../context';
import { listDeals } from '../deals/list-queries';
import { partiesOfDeals, type PartyRow } from '../deal-records/party-queries';
import { ownFacts, type DealListRow } from '../deal-records/queries';
import { insightView } from '../insight/service';
import * as q from './queries';

type Cell = string | number;
/** A list as CSV, in parts. */
export interface WrittenList {
  headings: string[];
  rows: AsyncIterable<Cell[]> | Cell[][];
}

const A_PART = 500;

/** Yields the rows of a list, querying one part at a time. */
async function* rowsOf<R extends { id: string }>(
  next: (after: string | null) => Promise<R[]>,
  row: (r: R) => Cell[],
): AsyncGenerator<Cell[]> {
  for (let rows = await next(null); rows.length; rows = await next(rows[rows.length - 1]?.id ?? ''))
    for (const r of rows) yield row(r);
}

const when = (at: Date | null) => at?.toISOString() ?? '';
const words = (name: string) => name.replace(/_/g, ' ');

/** Returns deals in a form that can be imported again: with a column for each field of a table of deals. */
async function deals(ctx: Context): Promise<WrittenList> {
  const db = ctx.database.pool;
  const own = await ownFacts(db);
  const defs = factsByKey(own);
  const fields = intakeFields('deals', own);
  async function* rows(): AsyncGenerator<Cell[]> {
    const next = (after: string | null) => listDeals(db, { after, search: null, limit: A_PART });
    for (let part = await next(null); part.length; part = await next(part[part.length - 1]?.id ?? '')) {
      const people = await partiesOfDeals(
        db,
        part.map((d) => d.id),
      );
      for (const d of part) {
        const own = people.filter((p) => p.deal_id === d.id);
        yield [
          ...fields.map((f) => dealCell(d, f, own, defs)),
          d.figures?.met ?? '',
          d.figures?.of ?? '',
          when(d.archived_at),
          when(d.created_at),
        ];
      }
    }
  }
  return {
    headings: [...fields.map((f) => f.label), 'Requirements met', 'Requirements', 'Archived', 'Opened'],
    rows: rows(),
  };
}

function dealCell(
  d: DealListRow,
  { key }: IntakeField,
  people: PartyRow[],
  defs: ReadonlyMap<string, FactDef>,
): string {
  const [group, name = ''] = [key.split('.')[0], key.slice(key.indexOf('.') + 1)];
  switch (group) {
    case 'side':
      return people
        .filter((p) => p.side === name)
        .map((p) => (p.email ? `${p.name} <${p.email}>` : p.name))
        .join('; ');
    case 'date':
      return new Map<string, string>(Object.entries(d.dates)).get(name) ?? '';
    case 'fact':
      return factText(defs.get(name), d.facts[name]);
    case 'kind':
      return KIND_WORDS[d.kind];
    case 'forWhom':
      return d.for_whom;
    case 'status':
      return STATUS_WORDS[d.status];
    case 'tags':
      return d.tags.join('; ');
    default:
      return key === 'city' ? d.city : d.address;
  }
}

function factText(def: FactDef | undefined, value: FactValue | undefined): string {
  if (value === undefined || !def) return '';
  return typeof value === 'number' ? String(value) : factWords(def, value);
}

/** Returns the numbers under the charts. */
async function sums(ctx: Context, list: 'weeks' | 'waits' | 'hold-ups' | 'through'): Promise<WrittenList> {
  const v = await insightView(ctx);
  switch (list) {
    case 'weeks':
      return {
        headings: ['Week of', 'Sent', 'Executed', 'Lapsed'],
        rows: v.weeks.map((w) => [w.week, w.sent, w.executed, w.lapsed]),
      };
    case 'waits':
      return {
        headings: ['Side', 'People', 'Days, half of them', 'Days, nine in ten'],
        rows: v.waits.map((w) => [SIDE_WORDS[w.side], w.n, w.median, w.slow]),
      };
    case 'hold-ups':
      return {
        headings: ['Side', 'Waited for', 'Days, the longest'],
        rows: v.holdUps.map((h) => [SIDE_WORDS[h.side], h.n, h.longest]),
      };
    case 'through':
      return {
        headings: ['Month', 'Executed', 'Days from draft, half of them'],
        rows: v.through.map((m) => [m.month, m.n, m.median ?? '']),
      };
  }
}

/** Returns a list by its name. */
// eslint-disable-next-line max-lines-per-function -- one case for each list
export async function writtenList(ctx: Context, list: ListName): Promise<WrittenList> {
  const db = ctx.database.pool;
  switch (list) {
    case 'deals':
      return deals(ctx);
    case 'people':
      return {
        headings: ['Name', 'Email', 'Phone', 'Company or trust', 'Deals'],
        rows: rowsOf(
          (after) => q.peoplePart(db, after, A_PART),
          (p) => [p.name, p.email, p.phone ?? '', p.company, p.deals],
        ),
      };
    case 'packets':
      return {
        headings: [
          ...['Deal', 'Packet', 'Status', 'Gate', 'Gates', 'Marks done', 'Marks', 'Held up by'],
          ...['Begun', 'Sent', 'Ended'],
        ],
        rows: rowsOf(
          (after) => q.packetsPart(db, after, A_PART),
          (p) => [
            ...[
              p.address,
              p.name,
              words(p.status),
              p.gate_count ? Math.min(p.gate + 1, p.gate_count) : '',
              p.gate_count,
            ],
            ...[p.marks_done, p.marks_total, p.hold_up, when(p.created_at), when(p.sent_at), when(p.ended_at)],
          ],
        ),
      };
    case 'papers':
      return {
        headings: ['Deal', 'Paper', 'Type', 'File', 'Pages', 'Fingerprint (SHA-256)', 'Holds until', 'Added'],
        rows: rowsOf(
          (after) => q.papersPart(db, after, A_PART),
          (p) => [
            p.address,
            p.name,
            words(p.type),
            p.file_name,
            p.pages,
            p.sha256,
            p.ends_on ?? '',
            when(p.created_at),
          ],
        ),
      };
    case 'messages':
      return {
        headings: ['Written', 'To', 'Address', 'Subject', 'Status', 'Trouble'],
        rows: rowsOf(
          (after) => q.messagesPart(db, after, A_PART),
          (m) => [
            ...[when(m.created_at), m.to_name, (m.channel === 'text' ? m.to_phone : m.to_email) ?? ''],
            ...[m.subject, m.status, m.problem ?? ''],
          ],
        ),
      };
    default:
      return sums(ctx, list);
  }
}
