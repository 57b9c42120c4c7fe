/** Background work: one job a thing, tried again by itself, told when it is given up, lost never. */
import type pg from 'pg';
import { Live, topics } from '../live/live';
import { TestServer } from '../test/harness';
import { onPostgres } from '../test/postgres';
import { inTransaction } from '../db/tx';
import { Jobs } from './jobs';
import { expire, failures } from './queries';

jest.setTimeout(180_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
  // The server's own runner stands aside: this file's runners take the work.
  await server.ctx.jobs.stop();
});
afterAll(() => server.stop());

const db = () => server.ctx.database.pool;
const errors: string[] = [];
async function runner(database = server.ctx.database, live = new Live()): Promise<Jobs> {
  const jobs = new Jobs(
    database,
    live,
    (e) => errors.push(String(e)),
    async (n, id) => `${n} of ${id}`,
  );
  await jobs.start();
  return jobs;
}
const hurry = () => db().query(`update job set start_after = now() where state = 'retry'`);
const until = async (what: () => boolean | Promise<boolean>) => {
  for (let n = 0; n < 1_200; n++) {
    if (await what()) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error('it never came to that');
};

test('a job starts when its transaction commits, and only then; the same thing waiting twice is done once', async () => {
  const jobs = await runner();
  const done: string[] = [];
  await inTransaction(db(), async (tx) => {
    for (const id of ['a', 'a', 'a', 'b']) await jobs.queue(tx, 'snapshot', id);
  });
  await inTransaction(db(), async (tx) => {
    await jobs.queue(tx, 'snapshot', 'never');
    throw new Error('rolled back');
  }).catch(() => undefined);
  jobs.work('snapshot', async (id) => void done.push(id));
  await jobs.idle('snapshot');
  expect(done.sort()).toEqual(['a', 'b']);
  await jobs.stop();
});

test('a kind is not idle while a job runs that was taken just before the database was asked', async () => {
  const live = new Live();
  let begun = () => {};
  const started = new Promise<void>((r) => (begun = r));
  let slow = false;
  // A busy database answers whether jobs wait only once the one that waited has been taken.
  const query = async (text: string, values: unknown[]) => {
    if (slow && text.startsWith('select 1 from job')) {
      live.notify(topics.work('snapshot'));
      await started;
    }
    return db().query(text, values);
  };
  const jobs = await runner({ ...server.ctx.database, pool: { query } as unknown as pg.Pool }, live);
  let done = false;
  jobs.work('snapshot', async () => {
    begun();
    await new Promise((r) => setTimeout(r, 100));
    done = true;
  });
  await jobs.idle('snapshot');
  const other = await runner();
  await other.queueNow('snapshot', 'just taken');
  slow = true;
  await jobs.idle('snapshot');
  expect(done).toBe(true);
  await Promise.all([jobs.stop(), other.stop()]);
});

// The embedded database has one connection, which is never in two transactions.
(onPostgres() ? test : test.skip)(
  'what a transaction changes is worked on, also if a job of the same thing is taken before it commits',
  async () => {
    const jobs = await runner();
    await db().query('create table seen_by_job (id integer)');
    await jobs.queueNow('snapshot', 'raced');
    const seen: number[] = [];
    let begin = () => {};
    const begun = new Promise<void>((resolve) => (begin = resolve)).then(() =>
      jobs.work('snapshot', async () => {
        const { rows } = await db().query<{ n: string }>('select count(*) as n from seen_by_job');
        seen.push(Number(rows[0]!.n));
      }),
    );
    await inTransaction(db(), async (tx) => {
      await tx.db.query('insert into seen_by_job values (1)');
      await jobs.queue(tx, 'snapshot', 'raced');
      begin();
      await begun;
      await new Promise((r) => setTimeout(r, 500));
    });
    await jobs.idle('snapshot');
    expect(seen.at(-1)).toBe(1);
    await jobs.stop();
  },
);

test('one that fails holds up no other, is tried again with pauses, and is told when it is given up', async () => {
  const jobs = await runner();
  const tries = new Map<string, number>();
  let broken = true;
  for (const id of ['bad', 'good-1', 'good-2']) await jobs.queueNow('snapshot', id);
  jobs.work('snapshot', async (id) => {
    tries.set(id, (tries.get(id) ?? 0) + 1);
    if (id === 'bad' && broken) throw new Error('this one never works');
  });
  await until(() => tries.size === 3);
  await jobs.idle('snapshot');
  expect([tries.get('good-1'), tries.get('good-2')]).toEqual([1, 1]);
  await until(async () => {
    await hurry();
    return (await failures(db(), 10)).length > 0;
  });
  expect(tries.get('bad')).toBe(3);
  expect((await failures(db(), 10))[0]).toMatchObject({
    queue: 'snapshot',
    thing: 'bad',
    words: 'snapshot of bad',
    detail: 'this one never works',
    tries: 3,
  });
  broken = false;
  await jobs.tryAgain('snapshot', 'bad');
  await until(() => tries.get('bad') === 4);
  expect(await failures(db(), 10)).toEqual([]);
  await jobs.stop();
});

test('what was under way when a server stopped is done by the next one', async () => {
  const first = await runner();
  let begun = false;
  first.work('snapshot', async () => {
    begun = true;
    await new Promise(() => undefined);
  });
  await first.queueNow('snapshot', 'long');
  await until(() => begun);
  // Killed: nobody gives the job back. Its lease runs out.
  await db().query(`update job set leased_at = now() - interval '1 day' where state = 'running'`);
  const second = await runner();
  const done: string[] = [];
  second.work('snapshot', async (id) => void done.push(id));
  await until(() => done.includes('long'));
  expect(done).toEqual(['long']);
  await second.stop();
});

test('a server keeps what it is still doing, and loses what it does not renew', async () => {
  const [a, b] = [await runner(), await runner()];
  let end = () => {};
  const ended = new Promise<void>((r) => (end = r));
  const begun: string[] = [];
  const leaseOver = () => db().query(`update job set leased_at = now() - interval '1 day' where state = 'running'`);
  a.work('snapshot', async () => {
    begun.push('a');
    await ended;
  });
  await a.queueNow('snapshot', 'long');
  await until(() => begun.length === 1);
  b.work('snapshot', async () => void begun.push('b'));
  await leaseOver();
  await a.mindLeases();
  await b.mindLeases();
  await b.idle('snapshot');
  expect(begun).toEqual(['a']);
  await leaseOver();
  await b.mindLeases();
  await until(() => begun.length === 2);
  expect(begun).toEqual(['a', 'b']);
  end();
  await a.idle('snapshot');
  await Promise.all([a.stop(), b.stop()]);
});

test('a job that ended its server at its last try is recorded as given up, also if the server that finds it is stopped', async () => {
  const left = async () => (await db().query('select state, tries from job where thing = $1', ['fatal'])).rows;
  const first = await runner();
  await first.queueNow('snapshot', 'fatal');
  await db().query(
    `update job set state = 'running', runner = 'killed', leased_at = now() - interval '1 day', tries = most_tries - 1
     where thing = 'fatal'`,
  );
  // A server that is stopped after it found the job, and before it recorded the failure.
  expect(await expire(db(), 60, 'stopped')).toEqual([
    expect.objectContaining({ thing: 'fatal', failed: true, tries: 3 }),
  ]);
  expect(await left()).toEqual([{ state: 'running', tries: 2 }]);
  await first.mindLeases();
  expect(await failures(db(), 10)).toEqual([]);
  await db().query(`update job set leased_at = now() - interval '1 day' where thing = 'fatal'`);
  await first.mindLeases();
  expect(await failures(db(), 10)).toEqual([expect.objectContaining({ thing: 'fatal', tries: 3 })]);
  expect(await left()).toEqual([]);
  await first.stop();
});

test('two runners never do the same job both', async () => {
  const [a, b] = [await runner(), await runner()];
  const done: string[] = [];
  const handle = async (id: string) => {
    done.push(id);
    await new Promise((r) => setTimeout(r, 5));
  };
  a.work('snapshot', handle);
  b.work('snapshot', handle);
  await Promise.all(Array.from({ length: 60 }, (_, i) => (i % 2 ? a : b).queueNow('snapshot', `job-${i}`)));
  await until(() => done.length >= 60);
  await Promise.all([a.idle('snapshot'), b.idle('snapshot')]);
  expect(new Set(done).size).toBe(60);
  expect(done).toHaveLength(60);
  await a.stop();
  await b.stop();
});

test('while one is done, however often the same thing is asked for, one more waits and is done after it', async () => {
  const jobs = await runner();
  let end = () => {};
  const ended = new Promise<void>((r) => (end = r));
  const done: string[] = [];
  jobs.work('snapshot', async (id) => {
    done.push(id);
    if (done.length === 1) await ended;
  });
  await jobs.queueNow('snapshot', 'same');
  await until(() => done.length === 1);
  for (let n = 0; n < 30; n++) {
    await jobs.queueNow('snapshot', 'same');
    // Each is taken, and put back, before the next is asked for.
    await new Promise((r) => setTimeout(r, 30));
  }
  const { rows } = await db().query(
    `select state, tries from job where name = 'snapshot' and thing = 'same' order by id`,
  );
  expect(rows).toEqual([
    { state: 'running', tries: 0 },
    { state: 'new', tries: 0 },
  ]);
  end();
  await jobs.idle('snapshot');
  expect(done).toEqual(['same', 'same']);
  await jobs.stop();
});
