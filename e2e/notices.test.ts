/** Notices: five hundred homes on a server that is killed in the middle; and by hand, in real Chromium, to the own page. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { MessageSummary, MessageView, NoticeRow } from '@gatepath/contract';
import { addDays } from '@gatepath/core/calendar';
import { noticeKit, tenancies } from '../server/test/notices';
import { findings } from './axe';
import { byTestId, chooseFile, launch, openPage, PHONE, settled, signIn, tap, textOf, type, WIDE } from './browser';
import { MEMBER } from './office';
import { OverWire } from './over-wire';
import { ServerProcess } from './server';

jest.setTimeout(900_000);

const HOMES = 500;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-notices-'));
let server: ServerProcess;
let desk: OverWire;
let homes: string[];
let kitId: string;
const inDays = (n: number) => addDays(new Date().toISOString().slice(0, 10), n);

beforeAll(async () => {
  server = await ServerProcess.start();
  desk = new OverWire(() => server.url);
  const setUp = await desk.call('setup', {
    body: { firmName: 'Towpath & Vane Realty', timeZone: 'UTC', name: 'Odile Farrant', ...MEMBER },
  });
  desk.cookie = setUp.cookie!;
  kitId = (await noticeKit(desk, 'receive')).id;
  homes = await tenancies(desk, HOMES);
});
afterAll(async () => {
  await server?.remove();
  rmSync(dir, { recursive: true });
});

/** Waits for a notice to be so far. */
async function until(noticeId: string, far: (c: { gone: number; fresh: number; ready: number }) => boolean) {
  for (;;) {
    const n = await desk.ok('notice', { params: { noticeId } });
    if (far(n.counts)) return n;
    await new Promise((r) => setTimeout(r, 200));
  }
}

async function rowsOf(noticeId: string): Promise<NoticeRow[]> {
  const out: NoticeRow[] = [];
  for (let after = '0'; ;) {
    const page = await desk.ok('noticeRows', { params: { noticeId }, query: { after, limit: '100' } });
    out.push(...page.items);
    if (!page.next) return out;
    after = page.next;
  }
}

test('500 homes from a table, 12 rows of it wrong: killed in the middle and started again, 488 have exactly one', async () => {
  const notice = await desk.ok('newNotice', { body: { kitId, name: 'Rent from summer' } });
  const params = { noticeId: notice.id };
  const lines = homes.map((h, i) => {
    if (i % 42 !== 41 && i !== 499) return `"${h}",${1500 + i},${inDays(120)}`;
    // No rent, a sum that is none, a day too early, a home that is not there, in turn.
    return [
      `"${h}",,${inDays(120)}`,
      `"${h}",much,${inDays(120)}`,
      `"${h}",1500,${inDays(10)}`,
      `"Nowhere ${i}",1500,${inDays(120)}`,
    ][i % 4];
  });
  const table = ['Home,New rent,From', ...lines].join('\n');
  await desk.post('homeTable', params, 'homes.csv', Buffer.from(table), { take: 'true' });
  await until(notice.id, (c) => c.fresh < 300);
  // Killed while it is worked out.
  await server.kill();
  await server.up();
  const worked = await until(notice.id, (c) => c.fresh === 0);
  expect([worked.counts.ready, worked.counts.wrong]).toEqual([488, 12]);
  const named = (await rowsOf(notice.id)).filter((r) => r.state === 'wrong');
  expect(named.every((r) => r.problems.length > 0)).toBe(true);
  await desk.ok('goNotice', { params });
  for (const far of [60, 250]) {
    await until(notice.id, (c) => c.gone >= far);
    await server.kill();
    await server.up();
  }
  const done = await until(notice.id, (c) => c.ready === 0);
  expect([done.state, done.counts.gone, done.counts.wrong]).toEqual(['gone', 488, 12]);
  const gone = (await rowsOf(notice.id)).filter((r) => r.state === 'gone');
  expect(new Set(gone.map((r) => r.packetId)).size).toBe(488);
  // Each home has one packet, and each of its tenants one message of it.
  const seen = new Map<string, number>();
  let messages = 0;
  for (let after = ''; ;) {
    const page = await desk.ok('mailroom', { query: { limit: '100', ...(after ? { after } : {}) } });
    for (const m of page.items) {
      if (m.kind !== 'deliver') continue;
      messages++;
      seen.set(`${m.packetId} ${m.toEmail}`, (seen.get(`${m.packetId} ${m.toEmail}`) ?? 0) + 1);
    }
    if (!page.next) break;
    after = page.next;
  }
  expect(Math.max(...seen.values())).toBe(1);
  expect([messages, new Set([...seen.keys()].map((k) => k.split(' ')[0])).size]).toEqual([seen.size, 488]);
});

test('by hand: a table, a row mended on the spot, sent; a client reads it, and finds it on a page of their own', async () => {
  const browser = await launch();
  try {
    const wide = await openPage(browser, WIDE);
    const errors: string[] = [];
    wide.on('pageerror', (e) => errors.push(String(e)));
    await signIn(wide, server.url, MEMBER.email, MEMBER.password);
    await wide.goto(`${server.url}/notices/new`);
    await tap(wide, 'notice-kit');
    await wide.waitForSelector(byTestId('homes-card'));
    expect(await findings(wide)).toEqual([]);
    const file = path.join(dir, 'homes.csv');
    writeFileSync(
      file,
      ['Home,New rent,From', `"${homes[0]}",1600,${inDays(130)}`, `"${homes[1]}",,${inDays(130)}`].join('\n'),
    );
    await chooseFile(wide, 'homes-file', file);
    await tap(wide, 'take-homes');
    await wide.waitForFunction(() => document.body.innerText.includes('1 to be fixed'));
    const row = (await wide.$$(byTestId('home-row')))[1]!;
    await (await row.$('[role="button"]'))!.click();
    const rent = (await row.waitForSelector(byTestId('fact-paper.new_rent'), { visible: true }))!;
    await settled(wide);
    expect(await findings(wide)).toEqual([]);
    await rent.click();
    await rent.type('1650');
    await tap(wide, 'mend-row');
    await wide.waitForFunction(() => document.body.innerText.includes('2 to send'));
    await settled(wide);
    expect(await findings(wide)).toEqual([]);
    await tap(wide, 'go-notice');
    await wide.waitForFunction(() => document.body.innerText.includes('2 of 2 sent'));
    const phone = await openPage(browser, PHONE);
    phone.on('pageerror', (e) => errors.push(String(e)));
    const mail = await newest('deliver', 'ines1@example.com');
    await phone.goto(mail.link!.replace(/^https?:\/\/[^/]+/, server.url));
    expect(await textOf(phone, 'ended')).toBe('This is for you to read');
    expect(await findings(phone)).toEqual([]);
    await tap(phone, 'ask-own-page');
    await phone.waitForSelector(byTestId('own-asked'));
    const own = await newest('own_page', 'ines1@example.com');
    await phone.goto(own.link!.replace(/^https?:\/\/[^/]+/, server.url));
    await tap(phone, 'send-code');
    await phone.waitForSelector(byTestId('code'));
    expect(await findings(phone)).toEqual([]);
    const code = /\b\d{6}\b/.exec((await newest('own_code', 'ines1@example.com')).bodyText)![0];
    await type(phone, 'code', code);
    await tap(phone, 'give-code');
    await phone.waitForSelector(byTestId('own-packet'));
    await settled(phone);
    expect(await findings(phone)).toEqual([]);
    // Every notice they were sent, and each one touch away.
    const sent = (await mailsTo('ines1@example.com')).filter((m) => m.kind === 'deliver');
    expect(await phone.$$(byTestId('own-packet'))).toHaveLength(sent.length);
    await tap(phone, 'own-open');
    await phone.waitForSelector(byTestId('ended'));
    expect(errors).toEqual([]);
  } finally {
    await browser.close();
  }
});

/** Returns the messages to a person, newest first. */
async function mailsTo(email: string): Promise<MessageSummary[]> {
  const { items } = await desk.ok('mailroom', { query: { limit: '100', search: email } });
  return items;
}

async function newest(kind: string, email: string): Promise<MessageView> {
  for (;;) {
    const found = (await mailsTo(email)).find((m) => m.kind === kind);
    if (found) return desk.ok('message', { params: { messageId: found.id } });
    await new Promise((r) => setTimeout(r, 100));
  }
}
