/** Faults that were found once, each with what made it happen. */
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import type { DraftEdit } from '@gatepath/core/packet';
import { inTransaction, onAfterCommitError } from './db/tx';
import { ALL_FILES, tidy } from './files/tidy';
import { waitForDueWork } from './schedule/calendar';
import { topics } from './live/live';
import { loadEvents } from './packets/log';
import { markEdit, Way } from './test/way';
import { typedHand } from './test/harness';
import { formPaper, paper } from './test/papers';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const db = () => way.server.ctx.database.pool;
const until = async (what: () => boolean | Promise<boolean>) => {
  for (let n = 0; n < 2_000; n++) {
    if (await what()) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error('it never came to that');
};
const two = () =>
  way.send(
    [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
    [
      {
        op: 'set',
        field: 'schedule',
        value: { lastDay: null, warnDays: 0, nudge: { first: 1, every: 1, most: 9, businessDays: false } },
      },
    ],
  );

test('one bad packet stops the calendar for no other packet, and is told on the Firm screen', async () => {
  const bad = await two();
  const good = await two();
  // A letter that cannot be written: the packet's sender is gone, behind the server's back.
  await db().query('alter table packet drop constraint packet_created_by_fkey');
  await db().query(`update packet set created_by = 'nobody' where id = $1`, [bad.packet.id]);
  const kinds = async (id: string) => (await way.messagesOf(id)).map((m) => m.kind);
  way.server.toNoon();
  way.server.ctx.clock.forward(3 * 86_400_000);
  await waitForDueWork(way.server.ctx);
  expect(await kinds(good.packet.id)).toContain('nudge');
  expect(await kinds(bad.packet.id)).not.toContain('nudge');
  // Its tries, without waiting for the pauses between them.
  await until(async () => {
    await db().query(`update job set start_after = now() where name = 'tick' and state = 'retry'`);
    return (await way.server.ok('firm')).failures.length > 0;
  });
  const [failure] = (await way.server.ok('firm')).failures;
  expect(failure).toMatchObject({ queue: 'tick', thing: bad.packet.id, tries: 6 });
  expect(failure!.sentence).toContain('“Papers”');
  // Examined again, it is left alone until somebody says otherwise.
  await waitForDueWork(way.server.ctx);
  await db().query(`update packet set created_by = (select id from member limit 1) where id = $1`, [bad.packet.id]);
  await way.server.ok('tryAgain', { body: { queue: 'tick', thing: bad.packet.id } });
  await until(async () => (await kinds(bad.packet.id)).includes('nudge'));
  expect((await way.server.ok('firm')).failures).toEqual([]);
});

test('a document that was added under way stays, and its packet can be taken back', async () => {
  const { deal, packet, id } = await two();
  const doc = await way.server.uploadReady(deal.id, 'later.pdf', await paper({ pages: 1, title: 'Later' }));
  await way.change(packet.id, { type: 'add_document', documentId: doc.id, partyIds: [id('Tobias')] });
  const drop = await way.server.call('deleteDocument', { params: { documentId: doc.id } });
  expect(drop.status).toBe(409);
  const next = await way.server.ok('newVersion', {
    params: { packetId: packet.id },
    body: { reason: 'x' },
  });
  expect(next.draft.documents).toHaveLength(2);
  expect(next.documents.filter((d) => next.draft.documents.some((x) => x.id === d.id))).toHaveLength(2);
});

test('a code told in person stands nowhere but as a keyed hash, and a new version still asks for it', async () => {
  const code = 'heron zincwhite';
  const deal = await way.server.deal('9 Weir Terrace', ['Wren Alder']);
  const doc = await way.server.uploadReady(deal.id, 'a.pdf', await paper({ pages: 1, title: 'Codes' }));
  const draft = await way.server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Coded', documentIds: [doc.id] },
  });
  const wren = draft.draft.parties[0]!;
  await way.server.edit(draft.id, [
    { op: 'put', list: 'parties', item: { ...wren, secondStep: 'code', accessCode: code } },
    markEdit('s', doc.id, 1, 'signature', wren.id, { x: 60, y: 690, w: 150, h: 24 }),
  ]);
  const everything = async () => {
    const tables = await db().query<{ name: string }>(
      `select quote_ident(table_schema) || '.' || quote_ident(table_name) as name from information_schema.tables
       where table_schema = 'public' and table_type = 'BASE TABLE'`,
    );
    let all = '';
    for (const { name } of tables.rows) all += JSON.stringify((await db().query(`select t::text from ${name} t`)).rows);
    return all;
  };
  expect((await everything()).includes('zincwhite')).toBe(false);
  const view = await way.server.ok('packet', { params: { packetId: draft.id } });
  expect(view.draft.parties[0]).toMatchObject({ secondStep: 'code', codeKept: true });
  await way.server.send(draft.id);
  const give = async (packetId: string) => {
    const token = await way.server.tokenFor(packetId, 'Wren Alder');
    const call = (c: string) => way.server.call('giveCode', { params: { token }, body: { code: c }, as: 'nobody' });
    return [(await call('heron zinkwhite')).status, (await call('HeronZINCwhite')).status];
  };
  expect(await give(draft.id)).toEqual([422, 200]);
  const next = await way.server.ok('newVersion', { params: { packetId: draft.id }, body: { reason: 'x' } });
  await way.server.send(next.id);
  expect(await give(next.id)).toEqual([422, 200]);
  expect((await everything()).includes('zincwhite')).toBe(false);
});

const files = () => {
  const root = path.join(way.server.dir, 'files');
  return readdirSync(root)
    .filter((d) => d.length === 2)
    .flatMap((d) => readdirSync(path.join(root, d)));
};

test('bytes go with the last document that needs them, with what was read of them and drawn of them', async () => {
  const deal = await way.server.deal('3 Lantern Row');
  const bytes = await paper({ pages: 1, title: 'Gone soon' });
  const before = new Set(files());
  const one = await way.server.uploadReady(deal.id, 'one.pdf', bytes);
  const same = await way.server.uploadReady(deal.id, 'same.pdf', bytes);
  await way.server.call('documentPage', { params: { documentId: one.id, page: 1 } });
  const added = files().filter((f) => !before.has(f));
  expect(added.length).toBeGreaterThanOrEqual(3);
  const pictures = () => readdirSync(path.join(way.server.dir, 'cache/pages', one.sha256.slice(0, 2)));
  expect(pictures().some((f) => f.startsWith(one.sha256))).toBe(true);
  await way.server.call('deleteDocument', { params: { documentId: one.id } });
  await way.server.afterAnHour();
  expect(
    files()
      .filter((f) => added.includes(f))
      .sort(),
  ).toEqual([...added].sort());
  await way.server.call('deleteDocument', { params: { documentId: same.id } });
  // Not at once: whoever brings the same file in this moment finds it there.
  await way.server.ctx.jobs.idle('tidy');
  expect(files().filter((f) => added.includes(f))).toHaveLength(added.length);
  await way.server.afterAnHour();
  expect(files().filter((f) => added.includes(f))).toEqual([]);
  expect(pictures().filter((f) => f.startsWith(one.sha256))).toEqual([]);
});

test('a file that is brought in again while its last document is deleted stays whole', async () => {
  const deal = await way.server.deal('3 Lantern Row');
  for (let n = 0; n < 6; n++) {
    const bytes = await paper({ pages: 1, title: `Brought twice ${n}` });
    const one = await way.server.uploadReady(deal.id, 'one.pdf', bytes);
    const [again] = await Promise.all([
      way.server.upload(deal.id, 'again.pdf', bytes),
      way.server.call('deleteDocument', { params: { documentId: one.id } }),
      tidy(way.server.ctx, one.sha256),
    ]);
    await tidy(way.server.ctx, one.sha256);
    expect(again.status).toBe(200);
    const { documents } = await way.server.ok('deal', { params: { dealId: deal.id } });
    const kept = documents.find((d) => d.id === again.body.id)!;
    for (const sha256 of [kept.sha256, one.sha256]) expect(await way.server.ctx.files.has(sha256)).toBe(true);
    expect((await way.server.call('documentPage', { params: { documentId: kept.id, page: 1 } })).status).toBe(200);
  }
});

test('a file is deleted only when it is old, also where it is brought again in the very moment', async () => {
  const { files: store } = way.server.ctx;
  const bytes = Buffer.from('nothing refers to this');
  const { sha256 } = await store.put(bytes);
  expect(await store.removeOlder(sha256, 3_600_000)).toBe(false);
  const old = new Date(Date.now() - 7_200_000);
  for (let n = 0; n < 40; n++) {
    utimesSync(store.fileOf(sha256), old, old);
    const [, put] = await Promise.all([store.removeOlder(sha256, 3_600_000), store.put(bytes)]);
    expect([put.sha256, await store.has(sha256)]).toEqual([sha256, true]);
  }
  utimesSync(store.fileOf(sha256), old, old);
  expect(await store.removeOlder(sha256, 3_600_000)).toBe(true);
  // What came in vain goes at once, unless somebody else brought the same.
  await store.put(bytes);
  expect(await store.removeFresh(sha256)).toBe(true);
  await store.put(bytes);
  await new Promise((r) => setTimeout(r, 5));
  await store.put(bytes);
  expect(await store.removeFresh(sha256)).toBe(false);
});

test('no upload takes the bytes of what others need away, facts and sealed copies among them', async () => {
  const { packet, deal } = await two();
  const documentId = packet.sent!.plan.documents[0]!.id;
  const facts = await way.server.call('documentFacts', {
    params: { documentId },
    headers: { 'accept-encoding': 'gzip' },
  });
  const a = await way.server.upload(deal.id, 'facts.bin', facts.raw);
  expect(a.status).toBe(422);
  const again = await way.server.call('documentFacts', {
    params: { documentId },
    headers: { 'accept-encoding': 'gzip' },
  });
  expect(again.raw.equals(facts.raw)).toBe(true);
  // What nobody needs goes; what somebody needs stays, however old it looks.
  const kept = files();
  await db().query(`update document set created_at = now() - interval '9 days'`);
  await tidy(way.server.ctx, ALL_FILES);
  expect(files().sort()).toEqual(kept.sort());
});

test('a stored file with a changed byte is not shown, not sent and not sealed', async () => {
  const { packet } = await way.send([{ name: 'Ada Byron' }], [{ names: ['Ada'] }]);
  const plan = packet.sent!.plan.documents[0]!;
  const token = await way.server.tokenFor(packet.id, 'Ada Byron');
  const file = path.join(way.server.dir, 'files', plan.sha256.slice(0, 2), plan.sha256);
  const good = readFileSync(file);
  const bad = Buffer.from(good);
  bad[bad.length - 40]! ^= 1;
  writeFileSync(file, bad);
  const page = await way.server.call('signingPage', {
    params: { token, documentId: plan.id, page: 2 },
    query: { dpi: '288' },
    as: 'nobody',
  });
  expect([page.status, page.raw.toString()]).toEqual([500, expect.stringContaining('damaged')]);
  const copy = await way.server.call('signingFile', { params: { token, documentId: plan.id }, as: 'nobody' });
  expect(copy.status).toBe(500);
  await way.signAll(token, 'Ada Byron');
  await until(
    async () => (await db().query(`select 1 from job where name = 'seal' and state = 'retry'`)).rows.length > 0,
  );
  expect((await way.look(packet.id)).sent!.sealed).toBeNull();
  writeFileSync(file, good);
  await db().query(`update job set start_after = now() where name = 'seal' and state = 'retry'`);
  expect((await way.sealed(packet.id)).length).toBe(1);
});

test('two changes of the same thing at once both stand, and two people never get the same place', async () => {
  const deal = await way.server.deal('5 Lantern Row', ['Wren']);
  const doc = await way.server.uploadReady(deal.id, 'x.pdf', await paper({ pages: 1, title: 'Both' }));
  const set = (body: object) => way.server.ok('setDocument', { params: { documentId: doc.id }, body });
  await Promise.all([set({ name: 'New name' }), set({ type: 'lease' })]);
  const patch = (body: object) => way.server.ok('setDeal', { params: { dealId: deal.id }, body });
  await Promise.all([patch({ city: 'Weir' }), patch({ facts: { price: 1 } })]);
  const add = (name: string) =>
    way.server.ok('addParty', { params: { dealId: deal.id }, body: { side: 'seller', name } });
  await Promise.all(['A', 'B', 'C', 'D', 'E'].map(add));
  const now = await way.server.ok('deal', { params: { dealId: deal.id } });
  expect(now.documents[0]).toMatchObject({ name: 'New name', type: 'lease' });
  expect([now.city, now.facts['price']]).toEqual(['Weir', 1]);
  expect(now.parties.map((p) => p.ordinal).sort()).toEqual([1, 2, 3, 4, 5, 6]);
});

test('whoever holds a connection is refused a second one, and does not wait for itself for ever', async () => {
  const inside = inTransaction(db(), async () => db().query('select 1'));
  await expect(inside).rejects.toThrow(/inside a transaction/);
  await expect(inTransaction(db(), () => inTransaction(db(), async () => 1))).rejects.toThrow(/inside a transaction/);
  const command = { type: 'withdraw', reason: 'x' } as const;
  const by = { actor: { kind: 'system' as const }, origin: null };
  await expect(inTransaction(db(), () => way.server.ctx.packets.run('nothing', command, by))).rejects.toThrow(
    /inside a transaction/,
  );
  // In memory or not: a moment later it may not be.
  expect(await way.server.ctx.firm()).not.toBeNull();
  await expect(inTransaction(db(), () => way.server.ctx.firm())).rejects.toThrow(/inside a transaction/);
  expect((await db().query('select 1 as one')).rows).toEqual([{ one: 1 }]);
});

test('a deal is opened in the moment in which the firm has to be looked up again', async () => {
  way.server.ctx.live.notify(topics.firm());
  expect((await way.server.deal('5 Lantern Row', ['Wren Alder'])).parties).toHaveLength(1);
});

test('a failing callback after a commit undoes nothing and hides nothing', async () => {
  const told: unknown[] = [];
  onAfterCommitError((e) => told.push(e));
  const ran: string[] = [];
  const result = await inTransaction(db(), async ({ db: tx, afterCommit }) => {
    await tx.query(`insert into throttle (key, n, until) values ('after-commit', 1, now())`);
    afterCommit(() => {
      throw new Error('no');
    });
    afterCommit(() => ran.push('second'));
    return 'done';
  });
  expect([result, ran, told.length]).toEqual(['done', ['second'], 1]);
  expect((await db().query(`select 1 from throttle where key = 'after-commit'`)).rows).toHaveLength(1);
});

test('wrong passwords are counted before they are tried, and lock out whoever guesses, not the member', async () => {
  const guess = (password: string, ip: string) =>
    way.server.inject({
      method: 'POST',
      url: '/api/session',
      headers: { 'content-type': 'application/json' },
      payload: JSON.stringify({ email: 'odile@example.com', password }),
      remoteAddress: ip,
    });
  const many = await Promise.all(Array.from({ length: 40 }, (_, i) => guess(`wrong ${i}`, '10.0.0.7')));
  const by = (status: number) => many.filter((a) => a.status === status).length;
  expect([by(401), by(429)]).toEqual([8, 32]);
  expect((await guess('long enough 1', '10.0.0.7')).status).toBe(429);
  expect((await guess('long enough 1', '10.0.0.8')).status).toBe(200);
});

test('a store that cannot be written to answers every upload', async () => {
  const deal = await way.server.deal('6 Lantern Row');
  const incoming = path.join(way.server.dir, 'files', 'incoming');
  renameSync(incoming, `${incoming}.aside`);
  writeFileSync(incoming, 'in the way');
  const a = await way.server.upload(deal.id, 'a.pdf', await formPaper());
  rmSync(incoming);
  if (existsSync(`${incoming}.aside`)) renameSync(`${incoming}.aside`, incoming);
  else mkdirSync(incoming);
  expect(a.status).toBe(500);
  expect((await way.server.upload(deal.id, 'a.pdf', await formPaper())).status).toBe(200);
});

test('a clock that was set back does not make the log go backwards', async () => {
  const { packet } = await two();
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  way.server.ctx.clock.forward(-72 * 3_600_000);
  const view = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  await way.server.ok('agree', { params: { token }, body: { agreement: view.agreementText.version }, as: 'nobody' });
  await way.server.ok('setHand', { params: { token }, body: typedHand('Wren Alder', 'WA'), as: 'nobody' });
  way.server.ctx.clock.forward(72 * 3_600_000);
  const times = (await loadEvents(db(), packet.id)).map((e) => e.at);
  expect(times).toEqual([...times].sort());
});

test('acts say what changed, to whoever saw what was before; everybody else gets the whole', async () => {
  const { packet } = await way.send([{ name: 'Una Vane' }], [{ names: ['Una'] }]);
  const token = await way.server.tokenFor(packet.id, 'Una Vane');
  const call = <N extends 'signing' | 'agree' | 'setHand'>(name: N, body?: unknown) =>
    way.server.ok(name, { params: { token }, body, as: 'nobody' });
  let view = await call('signing');
  await call('agree', { agreement: view.agreementText.version });
  view = await call('setHand', typedHand('Una Vane', 'UV'));
  const mark = view.marks.find((m) => m.kind === 'initials')!;
  const fill = (body: object) =>
    way.server.ok('fill', {
      params: { token, markId: mark.id },
      body: { actId: 'act-of-una', ...body },
      as: 'nobody',
    });
  expect(await fill({ since: view.seq })).toMatchObject({
    patch: { since: view.seq, seq: view.seq + 1, marks: [{ id: mark.id, done: true }], fills: [{ markId: mark.id }] },
  });
  // The same act again, and one from a screen that is behind: all of it.
  expect(await fill({ since: view.seq })).toHaveProperty('documents');
  expect(await fill({})).toHaveProperty('documents');
});

test('a desk may send thousands of edits at once', async () => {
  const deal = await way.server.deal('7 Lantern Row');
  const draft = await way.server.ok('newPacket', { params: { dealId: deal.id }, body: { name: 'Many' } });
  const edits = Array.from({ length: 4_000 }, (_, i): DraftEdit => ({
    op: 'put',
    list: 'passed',
    item: { id: `d.${i}` },
  }));
  await way.server.edit(draft.id, edits);
  const view = await way.server.ok('packet', { params: { packetId: draft.id } });
  expect(view.draft.passed).toHaveLength(4_000);
});

test('a command that comes in the very moment the store stops working is done too', async () => {
  const { packets } = way.server.ctx;
  const ask = () =>
    packets
      .run('no-such-packet', { type: 'unlock', partyId: 'nobody' }, { actor: { kind: 'system' }, origin: null })
      .then(
        () => 'done',
        (error: { status: number }) => error.status,
      );
  // From none to many turns of the queue of promises after an answer: one of them is that moment.
  for (let turns = 0; turns < 24; turns++) {
    await ask();
    for (let n = 0; n < turns; n++) await null;
    expect([turns, await ask()]).toEqual([turns, 404]);
    await new Promise((r) => setTimeout(r, 5));
  }
});
