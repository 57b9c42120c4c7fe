/** Notices to many households, from a table to their proof. */
import type { NoticeRow, NoticeView, ShelfItemView } from '@gatepath/contract';
import { addDays } from '@gatepath/core/calendar';
import { judged, textOf } from '../test/judges';
import { noticeKit, tenancies } from '../test/notices';
import { tokenIn, Way } from '../test/way';

jest.setTimeout(60_000);

let way: Way;
let kit: ShelfItemView;
let homes: string[];
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
  kit = await noticeKit(way.server, 'receive');
  homes = await tenancies(way.server, 30);
});
afterAll(() => way.stop());

const today = () => way.server.ctx.clock.now().toISOString().slice(0, 10);
const begin = (body: object = {}) => way.server.ok('newNotice', { body: { kitId: kit.id, ...body } });
const table = (id: string, text: string, query: Record<string, string> = { take: 'true' }) =>
  way.server.post('homeTable', { noticeId: id }, 'homes.csv', Buffer.from(text), query);
const look = async (id: string): Promise<NoticeView> => {
  await way.server.ctx.jobs.idle('notice');
  return way.server.ok('notice', { params: { noticeId: id } });
};
const rows = async (id: string, show: 'all' | 'wrong' = 'all'): Promise<NoticeRow[]> => {
  const out: NoticeRow[] = [];
  for (let after = '0'; ;) {
    const page = await way.server.ok('noticeRows', { params: { noticeId: id }, query: { show, after, limit: '100' } });
    out.push(...page.items);
    if (!page.next) return out;
    after = page.next;
  }
};
const set = (id: string, rowId: string, body: object) =>
  way.server.call('setNoticeRow', { params: { noticeId: id, rowId }, body });
const csv = (lines: [string, string | number, string][]) =>
  ['Unit,New rent,From', ...lines.map(([home, rent, from]) => `"${home}",${rent},${from}`)].join('\n');

let sent: NoticeView;

test('a table says what each home reads; what is wrong is named, and does not stop the others', async () => {
  const from = addDays(today(), 90);
  const lines = homes.slice(0, 12).map((h, i): [string, string | number, string] => [h, 1200 + i, from]);
  lines[1]![1] = '';
  lines[2]![2] = addDays(today(), 20);
  lines[3]![1] = 'a lot';
  lines[4]![0] = 'Unit 900, Nowhere';
  lines.push([homes[0]!, 1999, from], [homes[11]!, 1211, from]);
  const notice = await begin({ name: 'Rent from spring' });
  expect([notice.rule?.name, notice.signed, notice.tags.map((t) => t.key)]).toEqual([
    'Rent change',
    false,
    ['rent', 'paper.new_rent', 'paper.from'],
  ]);
  const seen = (await table(notice.id, csv(lines), { take: 'false' })).body;
  expect([seen.map, seen.rows, seen.taken]).toEqual([['home', 'paper.new_rent', 'paper.from'], 14, null]);
  expect((await look(notice.id)).counts.homes).toBe(0);
  await table(notice.id, csv(lines));
  const { counts } = await look(notice.id);
  expect([counts.homes, counts.ready, counts.wrong, counts.gone]).toEqual([14, 7, 7, 0]);
  const wrong = await rows(notice.id, 'wrong');
  const why = (n: number) => wrong.find((r) => r.n === n)?.problems.join(' ');
  expect(why(1)).toContain('Row 14 is for the same home and says something different');
  expect(why(2)).toContain('New rent a month is not known');
  expect(why(3)).toContain('60 days are required before');
  expect(why(4)).toContain('New rent a month: write a figure, like 412,000.');
  expect(why(5)).toContain('No tenancy is at “Unit 900, Nowhere”');
  expect(why(13)).toContain('says something different');
  expect(why(14)).toContain('The same entry is in row 13');
  // Each row can be read as it will go.
  const ready = (await rows(notice.id)).find((r) => r.n === 6)!;
  const paper = await way.server.call('noticePaper', { params: { noticeId: notice.id, rowId: ready.id } });
  expect(await textOf(paper.raw)).toContain('From');
  expect(await textOf(paper.raw)).toContain('$1,205');
  // None without the others, where that is wished.
  await way.server.ok('setNotice', { params: { noticeId: notice.id }, body: { allOrNone: true } });
  await look(notice.id);
  const no = await way.server.call('goNotice', { params: { noticeId: notice.id } });
  expect([no.status, no.problem.type]).toEqual([422, '/problems/rows-wrong']);
  await way.server.ok('setNotice', { params: { noticeId: notice.id }, body: { allOrNone: false } });
  await way.server.ok('goNotice', { params: { noticeId: notice.id } });
  sent = await look(notice.id);
  expect([sent.state, sent.counts.gone, sent.counts.wrong, sent.counts.ready]).toEqual(['gone', 7, 7, 0]);
});

test('a mended row goes alone, and nobody gets it twice', async () => {
  const bad = (await rows(sent.id, 'wrong')).find((r) => r.n === 2)!;
  expect((await set(sent.id, bad.id, { values: { 'paper.new_rent': 1333 } })).status).toBe(200);
  expect((await look(sent.id)).counts.ready).toBe(1);
  await way.server.ok('goNotice', { params: { noticeId: sent.id } });
  expect((await look(sent.id)).counts.gone).toBe(8);
  const again = await way.server.call('goNotice', { params: { noticeId: sent.id } });
  expect([again.status, again.problem.type]).toEqual([409, '/problems/nothing-to-send']);
  const gone = (await rows(sent.id)).filter((r) => r.state === 'gone');
  expect(new Set(gone.map((r) => r.packetId)).size).toBe(8);
  for (const body of [{ values: { 'paper.new_rent': 1 } }, { leftOut: true }])
    expect((await set(sent.id, gone[0]!.id, body)).problem.type).toBe('/problems/already-sent');
  // A row whose home could not be found is given one; a sale is none.
  const lost = (await rows(sent.id, 'wrong')).find((r) => !r.dealId)!;
  const sale = await way.server.deal('1 Mill Cut');
  expect((await set(sent.id, lost.id, { dealId: sale.id })).problem.type).toBe('/problems/not-found');
  const [free] = (await way.server.ok('deals', { query: { search: homes[25]!, limit: '1' } })).items;
  expect((await set(sent.id, lost.id, { dealId: free!.id })).body).toMatchObject({ home: homes[25], state: 'new' });
  expect((await look(sent.id)).counts.ready).toBe(1);
  // What is said to everybody stays as those have read it who have it already.
  const late = await way.server.call('setNotice', {
    params: { noticeId: sent.id },
    body: { values: { 'paper.new_rent': 7 } },
  });
  expect(late.problem.type).toBe('/problems/already-sent');
  const kept = await way.server.call('deleteNotice', { params: { noticeId: sent.id } });
  expect(kept.problem.type).toBe('/problems/was-sent');
});

test('only delivered: arrived, opened by whom and when, and a sealed copy with its record', async () => {
  await way.server.ctx.jobs.idle('mail');
  const row = (await rows(sent.id)).find((r) => r.n === 7)!;
  expect([row.steps.gone, row.steps.arrived, row.steps.opened]).toEqual(['done', 'done', 'to_do']);
  const messages = (await way.server.ok('mailroom', { query: { packetId: row.packetId! } })).items;
  // Two tenants, one message each; the sender is not written to about every home.
  expect(messages.map((m) => [m.kind, m.toEmail]).sort()).toEqual([
    ['deliver', 'ines7@example.com'],
    ['deliver', 'rowan7@example.com'],
  ]);
  const open = async (i: number) => {
    const m = await way.server.ok('message', { params: { messageId: messages[i]!.id } });
    return way.server.ok('signing', { params: { token: tokenIn(m) } });
  };
  const first = await open(0);
  expect([first.me.act, first.myTurn, first.mine]).toEqual(['receive', false, 'done']);
  expect((await rows(sent.id)).find((r) => r.n === 7)!.says).toMatch(/^opened \w+, \w+ \d+ by (Ines|Rowan)$/);
  await open(1);
  await way.server.ctx.jobs.idle('seal');
  const packet = await way.server.ok('packet', { params: { packetId: row.packetId! } });
  expect([packet.status, packet.sent!.sealed!.length]).toEqual(['executed', 1]);
  const params = { packetId: packet.id, documentId: packet.sent!.sealed![0]!.documentId };
  const copy = (await way.server.call('sealedCopy', { params })).raw;
  expect(await judged(copy)).toMatchObject({ seals: 1 });
  const words = await textOf(copy);
  for (const said of [
    'Reached their mail server or phone',
    'Opened',
    'Counts as delivered on',
    'Delivered to Ines Moor 7',
  ])
    expect(words).toContain(said);
  const [after] = (await rows(sent.id)).filter((r) => r.n === 7);
  expect([after!.steps.opened, after!.steps.done, after!.says]).toEqual(['done', 'done', 'opened by all']);
});

test('what nobody opens counts as delivered on the day the firm’s rule says, and is sealed then', async () => {
  const row = (await rows(sent.id)).find((r) => r.n === 8)!;
  expect(row.countsFrom! > today()).toBe(true);
  way.server.ctx.clock.forward(5 * 86_400_000);
  await way.server.ctx.jobs.queueNow('tick', row.packetId!);
  await way.server.ctx.jobs.idle('tick');
  await way.server.ctx.jobs.idle('seal');
  const packet = await way.server.ok('packet', { params: { packetId: row.packetId! } });
  expect([packet.status, packet.sent!.parties[0]!.openedAt]).toEqual(['executed', null]);
  expect((await rows(sent.id)).find((r) => r.n === 8)!.says).toMatch(/^counts as delivered since/);
  // Opened after that, it is still known when.
  const m = (await way.server.ok('mailroom', { query: { packetId: row.packetId! } })).items.find(
    (x) => x.kind === 'deliver',
  )!;
  const whole = await way.server.ok('message', { params: { messageId: m.id } });
  await way.server.ok('signing', { params: { token: tokenIn(whole) } });
  expect((await rows(sent.id)).find((r) => r.n === 8)!.says).toMatch(/^opened/);
});

test('who cannot be written to gets a letter with a slip to sign, counted from its posting', async () => {
  const deals = await way.server.ok('deals', { query: { search: homes[20]!, limit: '1' } });
  const deal = await way.server.ok('deal', { params: { dealId: deals.items[0]!.id } });
  const { id: partyId, name, side } = deal.parties[0]!;
  await way.server.ok('setParty', { params: { partyId }, body: { name, side, email: '', phone: null } });
  const notice = await begin({ dealIds: [deal.id] });
  const values = { 'paper.new_rent': 1500, 'paper.from': addDays(today(), 100) };
  await way.server.ok('setNotice', { params: { noticeId: notice.id }, body: { values } });
  const { counts } = await look(notice.id);
  expect(counts).toMatchObject({ ready: 1, wrong: 0 });
  expect((await rows(notice.id))[0]!.notes.join(' ')).toContain('a letter must be mailed');
  await way.server.ok('goNotice', { params: { noticeId: notice.id } });
  expect((await look(notice.id)).counts).toMatchObject({ gone: 1, letters: 1 });
  const file = await way.server.call('noticeLetters', { params: { noticeId: notice.id } });
  const words = await textOf(file.raw);
  expect(words).toContain(`I, ${name}, have received “Change of rent”`);
  expect(words).toContain('$1,500');
  const went = (day: string) =>
    way.server.call('lettersWent', { params: { noticeId: notice.id }, body: { day, way: 'post' } });
  expect((await went(addDays(today(), 3))).problem.type).toBe('/problems/bad-letter-day');
  expect((await went(today())).body).toEqual({ done: 1 });
  expect((await look(notice.id)).counts.letters).toBe(0);
  expect((await rows(notice.id))[0]!.countsFrom! >= addDays(today(), 3)).toBe(true);
});

test('a message that comes back is named in its row, and the letter goes in its place', async () => {
  const row = (await rows(sent.id)).find((r) => r.n === 9)!;
  const m = (await way.server.ok('mailroom', { query: { packetId: row.packetId! } })).items[0]!;
  const other = await begin({ dealIds: [row.dealId!] });
  const values = { 'paper.new_rent': 1600, 'paper.from': addDays(today(), 100) };
  await way.server.ok('setNotice', { params: { noticeId: other.id }, body: { values } });
  await look(other.id);
  await way.server.ok('goNotice', { params: { noticeId: other.id } });
  await look(other.id);
  await way.server.ctx.jobs.idle('mail');
  const [fresh] = await rows(other.id);
  const mail = (await way.server.ok('mailroom', { query: { packetId: fresh!.packetId! } })).items[0]!;
  expect(mail.toEmail).toBe(m.toEmail);
  await way.server.ok('returnMessage', { params: { messageId: mail.id } });
  const [back] = await rows(other.id);
  expect([back!.steps.arrived, back!.countsFrom, back!.wantsLetter]).toEqual(['failed', null, true]);
  expect(back!.says).toContain('The mailbox does not exist. Mail the letter');
  const body = { day: today(), way: 'hand', rowIds: [back!.id] };
  expect((await way.server.ok('lettersWent', { params: { noticeId: other.id }, body })).done).toBe(1);
  const [done] = await rows(other.id);
  expect([done!.wantsLetter, done!.countsFrom]).toEqual([false, today()]);
});

test('stopped half-way the rest waits, and going on sends nobody a second one', async () => {
  const notice = await begin({ filter: { search: 'Basin Street' } });
  const values = { 'paper.new_rent': 1700, 'paper.from': addDays(today(), 100) };
  await way.server.ok('setNotice', { params: { noticeId: notice.id }, body: { values } });
  expect((await look(notice.id)).counts).toMatchObject({ homes: 30, ready: 30 });
  await way.server.ok('goNotice', { params: { noticeId: notice.id } });
  for (let n = 0; n < 3;) {
    // The embedded database lets nobody else work while it is asked without end.
    await new Promise((r) => setTimeout(r, 5));
    n = (await way.server.ok('notice', { params: { noticeId: notice.id } })).counts.gone;
  }
  const stopped = await way.server.ok('stopNotice', { params: { noticeId: notice.id } });
  const held = await look(notice.id);
  expect([held.state, held.counts.ready > 0, held.counts.gone + held.counts.ready]).toEqual(['stopped', true, 30]);
  expect(held.counts.gone).toBeGreaterThanOrEqual(stopped.counts.gone);
  await Promise.all([1, 2, 3].map(() => way.server.call('goNotice', { params: { noticeId: notice.id } })));
  expect((await look(notice.id)).counts).toMatchObject({ gone: 30, ready: 0 });
  const packets = (await rows(notice.id)).map((r) => r.packetId);
  expect(new Set(packets).size).toBe(30);
  const all = await way.server.ctx.database.pool.query('select 1 from packet where notice_id = $1', [notice.id]);
  expect(all.rows).toHaveLength(30);
});

test('rules are the firm’s own, and say from when a notice may hold', async () => {
  const { rules } = await way.server.ok('noticeRules');
  expect(rules.map((r) => r.name)).toEqual(['Rent change', 'Entry', 'End of tenancy', 'House rules']);
  const changed = rules.map((r) => (r.id === 'rent_change' ? { ...r, term: { n: 10, unit: 'days' as const } } : r));
  await way.server.ok('setNoticeRules', { body: { rules: changed } });
  const notice = await begin({ dealIds: [(await rows(sent.id))[0]!.dealId!] });
  const values = { 'paper.new_rent': 1500, 'paper.from': addDays(today(), 20) };
  const set20 = await way.server.ok('setNotice', { params: { noticeId: notice.id }, body: { values } });
  expect(set20.term?.sentence).toBeNull();
  expect((await look(notice.id)).counts.ready).toBe(1);
  const bad = [{ ...rules[0]!, day: 'people.tenant' }];
  expect((await way.server.call('setNoticeRules', { body: { rules: bad } })).problem.type).toBe('/problems/bad-fact');
});
