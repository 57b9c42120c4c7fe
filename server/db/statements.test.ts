/** Every SQL statement of the server is described by a database, and its columns are those of the declared row. */
import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { createPgConfig } from '@electric-sql/pglite/node-postgres';
import pg from 'pg';
import { Jobs } from '../jobs/jobs';
import { Live } from '../live/live';
import { type Column, type Kind, type Statement, statementsOfServer } from '../test/statements';
import { type DealFilters, listDeals } from '../deals/list-queries';
import { byWords } from '../find/queries';
import { migrate } from './migrate';
import type { Db } from './pool';

jest.setTimeout(300_000);

/** Types of PostgreSQL by their numbers, as the driver gives their values. */
const KINDS: Record<number, Kind> = {
  16: 'boolean',
  17: 'structure', // bytea
  20: 'string', // bigint
  21: 'number',
  23: 'number',
  25: 'string',
  114: 'any', // json
  700: 'number',
  701: 'number',
  1043: 'string',
  1184: 'date',
  1700: 'string', // numeric
  3802: 'any', // jsonb
  1007: 'structure', // integer[]
  1009: 'structure', // text[]
};

let lite: PGlite;
beforeAll(async () => {
  lite = await PGlite.create({ extensions: { pg_trgm } });
  const pool = new pg.Pool({ ...createPgConfig(lite), max: 1, idleTimeoutMillis: 0 } as pg.PoolConfig);
  await migrate(pool);
  const jobs = new Jobs(
    { pool, kind: 'embedded', listener: () => null, close: async () => undefined },
    new Live(),
    console.error,
  );
  await jobs.start();
  await jobs.stop();
  await pool.end();
});
afterAll(() => lite.close());

/** Returns what is wrong with a statement: an error of the database, or columns that are not those of its row. */
async function faultOf({ at, sql, row }: Statement): Promise<string | null> {
  let fields: { name: string; dataTypeID: number }[];
  try {
    fields = (await lite.describeQuery(sql)).resultFields;
  } catch (error) {
    return `${at}: ${String(error)}\n${sql}`;
  }
  if (!row) return null;
  const faults = [
    ...row.flatMap((c) => faultOfColumn(c, fields)),
    ...(sql.includes('*') ? [] : undeclared(row, fields)),
  ];
  return faults.length ? `${at}: ${faults.join('; ')}` : null;
}

function faultOfColumn({ name, kinds, optional }: Column, fields: { name: string; dataTypeID: number }[]): string[] {
  // Of two columns of one name the driver gives the last.
  const field = fields.findLast((f) => f.name === name);
  if (!field) return optional ? [] : [`no column ${name}`];
  const kind = KINDS[field.dataTypeID];
  if (!kind) return [`${name} is of type ${field.dataTypeID}, which this test does not know`];
  const isRight = kind === 'any' || kinds.includes('any') || (kinds.length === 1 && kinds[0] === kind);
  return isRight ? [] : [`${name} arrives as ${kind}, and is declared as ${kinds.join(' or ')}`];
}

const undeclared = (row: Column[], fields: { name: string }[]): string[] =>
  fields.filter((f) => !row.some((c) => c.name === f.name)).map((f) => `${f.name} is read and not declared`);

/** Files whose SQL is put together at run time, and why that is right. */
const AT_RUN_TIME = {
  'server/db/migrate.ts': 'the migrations, from their files',
  'server/deals/list-queries.ts': 'the list of deals, from its filters: described below',
  'server/find/queries.ts': 'the search, from the kinds it asks for: described below',
};

/** Returns the statement that a query sends. */
async function sentBy(query: (db: Db) => Promise<unknown>): Promise<string> {
  let sent = '';
  await query({
    query: async (sql: string) => {
      sent = sql;
      return { rows: [], rowCount: 0 };
    },
  } as unknown as Db);
  return sent;
}

const { statements, unread } = statementsOfServer();

test('statements run on the database as it is, and their rows are what they are declared to be', async () => {
  expect(statements.length).toBeGreaterThan(250);
  const faults: string[] = [];
  for (const s of statements) {
    const fault = await faultOf(s);
    if (fault) faults.push(fault);
  }
  expect(faults).toEqual([]);
  expect([...new Set(unread.map((u) => u.file))].sort()).toEqual(Object.keys(AT_RUN_TIME));
});

const ALL = { after: 'x', search: '%x%', limit: 5 };
const FILTERS: Partial<DealFilters> = {
  kind: 'sale',
  forWhom: 'buyer',
  statuses: ['active'],
  tag: 'x',
  memberId: 'x',
  dueBefore: '2026-12-01',
  waits: true,
  gate: 1,
  holdUp: 'buyer',
};

test.each([
  ['deals as they were opened', 'server/deals/list-queries.ts', (db: Db) => listDeals(db, { ...ALL, ...FILTERS })],
  ['deals by address', 'server/deals/list-queries.ts', (db: Db) => listDeals(db, { ...ALL, order: 'address' })],
  [
    'deals by goal',
    'server/deals/list-queries.ts',
    (db: Db) => listDeals(db, { ...ALL, order: 'goal', archived: false }),
  ],
  ['a search', 'server/find/queries.ts', (db: Db) => byWords(db, ['a', 'b'], 5)],
])('what is put together at run time is right too: %s', async (_, file, query) => {
  const row = unread.find((u) => u.file === file)!.row!;
  expect(await faultOf({ at: file, sql: await sentBy(query), row })).toBeNull();
});

test('a column that is not there, one of another type and one that nobody declared are found', async () => {
  const row = (...names: [string, Kind][]): Column[] =>
    names.map(([name, kind]) => ({ name, kinds: [kind], optional: false }));
  const fault = (sql: string, ...names: [string, Kind][]) => faultOf({ at: 'here', sql, row: row(...names) });
  expect(await fault('select id from packet', ['id', 'string'])).toBeNull();
  expect(await fault('select id from packet', ['id', 'string'], ['name', 'string'])).toContain('no column name');
  expect(await fault('select seq from packet', ['seq', 'string'])).toContain('seq arrives as number');
  expect(await fault('select id, name from packet', ['id', 'string'])).toContain('name is read and not declared');
  expect(await fault('select nothing_such from packet', ['id', 'string'])).toContain('nothing_such');
});
