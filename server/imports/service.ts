/** Importing tables of other programs: first a preview, then all rows, or the rows without problems. */
import {
  dealsOf,
  guessFields,
  intakeFields,
  peopleOf,
  type BadRow,
  type DealRow,
  type PersonRow,
  type TableKind,
  type Taken,
} from '@gatepath/core/intake';
import { dayOf } from '@gatepath/core/calendar';
import { sure } from '@gatepath/core/sure';
import { clip, isClean, oneLine } from '@gatepath/core/text';
import { MAX_TABLE, type ImportQuery, type ImportView } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { breathe } from '../db/breathe';
import { inTransaction, type Tx } from '../db/tx';
import { ownFacts } from '../deal-records/queries';
import { chunksOf } from '../files/chunks';
import type { Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { topics } from '../live/live';
import { indexPeople } from '../people/found';
import { Problem } from '../problem';
import * as q from './queries';
import type { ReadTable } from '../uploads/table';

/** Maximum number of rows with problems that are listed. */
const MOST_NAMED = 200;
/** Rows per statement. */
const A_STEP = 500;

type AnyTaken = { kind: 'people'; taken: Taken<PersonRow> } | { kind: 'deals'; taken: Taken<DealRow> };

/**
 * Reads a table, and imports it if asked to.
 *
 * @param query.map the field of each column in order; without it the fields are guessed
 * @param query.take `none` previews, `all` imports every row or none, `good` imports the rows without problems
 * @throws Problem `bad-table`, `rows-wrong`
 */
export async function importTable(
  ctx: Context,
  kind: TableKind,
  query: ImportQuery,
  upload: Upload,
  member: Member,
): Promise<ImportView> {
  const table = await tableOf(ctx, upload);
  const own = kind === 'deals' ? await ownFacts(ctx.database.pool) : [];
  const fields = intakeFields(kind, own);
  const known = new Set(fields.map((f) => f.key));
  const map = (query.map?.split(',') ?? guessFields(table.headings, fields)).map((k) => (known.has(k) ? k : ''));
  const read: AnyTaken =
    kind === 'people' ? { kind, taken: peopleOf(table, map) } : { kind, taken: dealsOf(table, map, own) };
  const { good, bad } = read.taken;
  const missing = fields.filter(
    (f) => f.needed && !map.includes(f.key) && !(kind === 'people' && map.includes('last')),
  );
  if (query.take === 'all' && bad.length)
    throw new Problem(
      'rows-wrong',
      `${bad.length} of ${bad.length + good.length} rows have a problem, so none was imported.`,
    );
  const done = query.take === 'none' ? null : await take(ctx, read, member);
  return {
    headings: table.headings,
    map,
    fields: fields.map(({ key, label, needed }) => ({ key, label, needed: !!needed })),
    missing: missing.map((f) => f.label),
    sample: table.rows.slice(0, 3).map((r) => r.map(sampleOf)),
    good: good.length,
    bad: bad.length,
    wrong: bad.slice(0, MOST_NAMED).map((b: BadRow) => ({ line: b.line, why: b.why })),
    taken: done,
  };
}

/** Returns the table in an uploaded file. @throws Problem `bad-table` */
export async function tableOf(ctx: Context, upload: Upload): Promise<ReadTable> {
  const table = await ctx.work.run('table', { bytes: await bytesOf(upload) });
  if ('problem' in table) throw new Problem('bad-table', table.problem);
  return table;
}

async function bytesOf(upload: Upload): Promise<Uint8Array> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of chunksOf(upload.stream)) {
    parts.push(part);
    size += part.length;
  }
  if (upload.stream.truncated || size > MAX_TABLE)
    throw new Problem('bad-table', `This file is larger than ${MAX_TABLE / 1024 / 1024} MB. Import it in parts.`);
  return Buffer.concat(parts);
}

/** Writes the good rows in one transaction: if one fails, none is written. */
async function take(ctx: Context, read: AnyTaken, member: Member): Promise<{ added: number; known: number }> {
  const zone = sure(await ctx.firm(), 'the firm').time_zone;
  return inTransaction(ctx.database.pool, (tx) =>
    read.kind === 'people'
      ? takePeople(
          ctx,
          tx,
          read.taken.good.map((g) => g.row),
        )
      : takeDeals(
          ctx,
          tx,
          read.taken.good.map((g) => g.row),
          zone,
          member,
        ),
  );
}

async function takePeople(ctx: Context, { db }: Tx, rows: PersonRow[]): Promise<{ added: number; known: number }> {
  const at = ctx.clock.now();
  let added = 0;
  for (let i = 0; i < rows.length; i += A_STEP) {
    const step = rows.slice(i, i + A_STEP).map((r) => ({ ...r, id: newId() }));
    const ids = await q.insertPeople(db, step, at);
    await indexPeople(
      db,
      step.filter((p) => ids.has(p.id)),
    );
    added += ids.size;
    await breathe();
  }
  return { added, known: rows.length - added };
}

const keyOf = (d: { kind: string; address: string; city: string }) =>
  `${d.kind} ${d.address.toLowerCase()} ${d.city.toLowerCase()}`;
const nameOf = (p: { name: string; email: string }) => `${p.name.toLowerCase()} ${p.email.toLowerCase()}`;

async function takeDeals(
  ctx: Context,
  tx: Tx,
  rows: DealRow[],
  zone: string,
  member: Member,
): Promise<{ added: number; known: number }> {
  const { db } = tx;
  const at = ctx.clock.now();
  const day = dayOf(at.toISOString(), zone);
  const there = new Set(
    (
      await q.dealsAt(
        db,
        rows.map((r) => r.address),
      )
    ).map(keyOf),
  );
  const fresh = rows.filter((r) => !there.has(keyOf(r))).map((r) => ({ ...r, id: newId() }));
  for (let i = 0; i < fresh.length; i += A_STEP) {
    const step = fresh.slice(i, i + A_STEP);
    await q.insertDeals(
      db,
      step.map(({ people: _, ...d }) => d),
      { zone, at, day },
    );
    await takeParties(db, step, at);
    await q.insertNotes(
      db,
      step.map((d) => ({ id: newId(), dealId: d.id })),
      `${member.name} imported the deal from a table.`,
      at,
    );
    await breathe();
  }
  // Their needs and search entries are computed in the background.
  if (fresh.length) await ctx.jobs.queue(tx, 'rules', 'imported');
  tx.afterCommit(() => ctx.live.notify(topics.deals()));
  return { added: fresh.length, known: rows.length - fresh.length };
}

/** Saves the people of new deals, and adds those the address book does not have. */
async function takeParties(db: Db, deals: (DealRow & { id: string })[], at: Date): Promise<void> {
  const parties = deals.flatMap((d) =>
    d.people.map((p, i) => ({
      ...p,
      id: newId(),
      dealId: d.id,
      ordinal: d.people.slice(0, i).filter((x) => x.side === p.side).length + 1,
    })),
  );
  if (!parties.length) return;
  const unique = [...new Map(parties.map((p) => [nameOf(p), p])).values()];
  const people = unique.map(({ name, email }) => ({ id: newId(), name, email, phone: null, company: '' }));
  const added = await q.insertPeople(db, people, at);
  await indexPeople(
    db,
    people.filter((p) => added.has(p.id)),
  );
  const ids = new Map((await q.peopleNamed(db, unique)).map((p) => [nameOf(p), p.id]));
  await q.insertParties(
    db,
    parties.map((p) => ({ ...p, personId: ids.get(nameOf(p)) ?? null })),
    at,
  );
}

/** Returns the beginning of a cell, as it can be shown. */
function sampleOf(cell: string): string {
  const line = clip(oneLine(cell), 60);
  return isClean(line) ? line : '';
}
