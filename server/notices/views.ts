/** Views of notices and their rows. */
import { dayOf, shortDay } from '@gatepath/core/calendar';
import { termOf } from '@gatepath/core/notices';
import { firstName, listWords } from '@gatepath/core/text';
import { lastOf, sure } from '@gatepath/core/sure';
import type { NoticeRow, NoticeRowsQuery, NoticesQuery, NoticeSummary, NoticeView, Page } from '@gatepath/contract';
import type { Context } from '../context';
import { notFound } from '../problem';
import * as shelf from '../shelf/queries';
import * as q from './queries';
import { rulesOfFirm } from './rules';
import { tagsOfKit } from './tags';

const NONE: q.Counts = {
  homes: 0,
  fresh: 0,
  ready: 0,
  going: 0,
  wrong: 0,
  left_out: 0,
  gone: 0,
  arrived: 0,
  came_back: 0,
  opened: 0,
  done: 0,
  letters: 0,
};

function summary(n: q.NoticeRow, c: q.Counts): NoticeSummary {
  const state = c.going ? 'going' : !c.gone ? 'preparing' : n.stopped_at && c.ready ? 'stopped' : 'gone';
  return {
    id: n.id,
    name: n.name,
    state,
    createdAt: n.created_at.toISOString(),
    by: n.by,
    counts: {
      homes: c.homes,
      fresh: c.fresh,
      ready: c.ready + c.going,
      wrong: c.wrong,
      leftOut: c.left_out,
      gone: c.gone,
      arrived: c.arrived,
      cameBack: c.came_back,
      opened: c.opened,
      done: c.done,
      letters: c.letters,
    },
  };
}

/** Returns a page of notices, newest first. */
export async function listNotices(ctx: Context, query: NoticesQuery): Promise<Page<NoticeSummary>> {
  const db = ctx.database.pool;
  const rows = await q.listNotices(db, { after: query.after ?? null, limit: query.limit + 1 });
  const shown = rows.slice(0, query.limit);
  const counts = await q.countsOf(
    db,
    shown.map((n) => n.id),
  );
  return {
    items: shown.map((n) => summary(n, counts.get(n.id) ?? NONE)),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/** Returns a notice as its screen shows it. @throws Problem `not-found` */
export async function noticeView(ctx: Context, id: string): Promise<NoticeView> {
  const db = ctx.database.pool;
  const n = await q.noticeById(db, id);
  if (!n) throw notFound('This notice');
  const counts = (await q.countsOf(db, [id])).get(id) ?? NONE;
  const edition = (await shelf.lastEditions(db, [n.kit_id])).get(n.kit_id);
  const firm = await ctx.firm();
  const from = n.rule?.day ? n.said[n.rule.day] : undefined;
  const goes = dayOf(ctx.clock.now().toISOString(), firm?.time_zone ?? 'UTC');
  return {
    ...summary(n, counts),
    kit: { id: n.kit_id, name: edition?.draft.name ?? n.name },
    signed: !edition?.draft.parties.some((p) => p.act === 'receive'),
    tags: await tagsOfKit(ctx, n.kit_id),
    values: n.said,
    rule: n.rule,
    rules: (await rulesOfFirm(ctx)).map((r) => ({ id: r.id, name: r.name })),
    term: n.rule && termOf(n.rule, { goes, way: 'link', from, holidays: firm?.holidays ?? [] }),
    allOrNone: n.all_or_none,
    working: counts.fresh > 0,
  };
}

/** Returns a page of a notice's rows. @throws Problem `not-found` */
export async function listRows(ctx: Context, id: string, query: NoticeRowsQuery): Promise<Page<NoticeRow>> {
  const db = ctx.database.pool;
  if (!(await q.noticeById(db, id))) throw notFound('This notice');
  const rows = await q.listHomes(db, {
    noticeId: id,
    after: query.after ?? 0,
    show: query.show,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  return {
    items: await rowViews(ctx, shown),
    next: rows.length > query.limit ? String(lastOf(shown).n) : null,
  };
}

/** Returns one row of a notice. @throws Problem `not-found` */
export async function rowView(ctx: Context, noticeId: string, rowId: string): Promise<NoticeRow> {
  const row = await q.homeById(ctx.database.pool, noticeId, rowId);
  if (!row) throw notFound('This row');
  return sure((await rowViews(ctx, [row]))[0], 'a row');
}

async function rowViews(ctx: Context, rows: q.HomeHead[]): Promise<NoticeRow[]> {
  const db = ctx.database.pool;
  const packets = rows.flatMap((r) => (r.packet_id ? [r.packet_id] : []));
  const steps = await q.stepsOf(db, packets);
  const parties = await q.partiesOfRows(db, packets);
  const tenants = await q.tenantsOf(
    db,
    rows.flatMap((r) => (r.deal_id ? [r.deal_id] : [])),
  );
  const zone = (await ctx.firm())?.time_zone ?? 'UTC';
  return rows.map((r): NoticeRow => {
    const at = r.state === 'gone' && r.packet_id ? steps.get(r.packet_id) : undefined;
    const people = parties.filter((p) => p.packet_id === r.packet_id);
    return {
      id: r.id,
      n: r.n,
      line: r.line,
      home: r.home,
      dealId: r.deal_id,
      tenants: tenants.get(r.deal_id ?? '') ?? [],
      values: r.said,
      state: r.state,
      problems: r.problems,
      notes: r.notes,
      packetId: r.packet_id,
      steps: stepsIn(r, at),
      countsFrom: at && !at.came_back && !at.letter ? at.counts_from : null,
      says: saysOf(r, at, people, zone),
      wantsLetter: at?.letter ?? false,
    };
  });
}

function stepsIn(r: q.HomeHead, at: q.Steps | undefined): NoticeRow['steps'] {
  const worked =
    r.state === 'wrong' ? 'failed' : r.state === 'new' ? 'now' : r.state === 'left_out' ? 'none' : ('done' as const);
  const gone = at ? 'done' : r.state === 'going' ? 'now' : worked === 'done' ? 'to_do' : ('none' as const);
  const after = (done: boolean) => (at ? (done ? 'done' : 'to_do') : 'none') as 'done' | 'to_do' | 'none';
  return {
    worked,
    gone,
    arrived: at?.came_back ? 'failed' : after(at?.arrived ?? false),
    opened: after(at?.opened ?? false),
    done: after(at?.done ?? false),
  };
}

/** Returns the status of a row in a few words: problems before successes. */
function saysOf(r: q.HomeHead, at: q.Steps | undefined, people: q.PartyOfRow[], zone: string): string {
  if (r.state === 'wrong') return r.problems[0] ?? 'wants mending';
  if (r.state === 'left_out') return 'left out';
  if (r.state === 'new') return 'being worked out';
  if (r.state === 'going') return 'going now';
  if (r.state === 'ready' || !at) return r.notes[0] ?? '';
  const back = people.find((p) => p.bounced);
  if (back)
    return `came back from ${firstName(back.name)}: ${(back.problem ?? 'it could not be delivered').replace(/\.$/, '')}. Mail the letter`;
  if (at.letter) return 'a letter is to be posted';
  if (people.some((p) => p.status === 'declined')) return 'declined';
  const opened = people.filter((p) => p.opened_at);
  if (opened.length === people.length && people.length > 1)
    return at.done ? 'opened by all' : 'opened by all, not signed';
  const first = opened[0];
  if (first?.opened_at)
    return `opened ${shortDay(dayOf(first.opened_at, zone))} by ${listWords(opened.map((p) => firstName(p.name)))}`;
  if (at.done && at.counts_from) return `counts as delivered since ${shortDay(at.counts_from)}`;
  return 'not opened yet';
}
