/**
 * Everything between "send" and the last signature, in real Chromium at a phone's size: two
 * sellers with one mailbox (one reads Spanish), an attorney who approves, a broker at the desk,
 * buyers with a one-time code, copies to escrow; a question, a fixed address, a correction, a nudge.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  unpackFacts,
  type DealView,
  type MessageSummary,
  type MessageView,
  type PackedFacts,
  type PacketView,
} from '@gatepath/contract';
import { findWords } from '@gatepath/core/packet';
import { findings } from './axe';
import { byTestId, choose, launch, openPage, PHONE, signIn, still, tap, textOf, touchAt, type, WIDE } from './browser';
import { take } from './at-desk';
import { LONG_PAGES } from './long-form';
import { finish, nothingWaits, press, signThrough, tabTo } from './client';
import { MEMBER, Office } from './office';
import { download, judgedFile, verify } from './proof';
import { purchase } from './purchase';
import { ServerProcess } from './server';
import { story } from './story';
import { forbidden, forbiddenChanges, judged, sound } from '../server/test/judges';
import { changedBeyondMarks } from '../server/test/revisions';

jest.setTimeout(300_000);

type Browser = Awaited<ReturnType<typeof launch>>;
let server: ServerProcess;
let office: Office;
let browser: Browser;
/** The coordinator's phone. */
let desk: Page;
let deal: DealView;
let packet: PacketView;
const errors: string[] = [];
const axe: Record<string, string[]> = {};
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-way-'));

const step = story(dir, () => browser);

beforeAll(async () => {
  server = await ServerProcess.start({ CLOCK_FORWARD: '1' });
  browser = await launch();
  office = new Office(server);
  await office.setUp();
  ({ deal, packet } = await purchase(office));
  desk = await openPage(browser, PHONE);
  desk.on('pageerror', (e) => errors.push(String(e)));
  await signIn(desk, server.url, MEMBER.email, MEMBER.password);
});
afterAll(async () => {
  await browser.close();
  await server.remove();
});

const look = () => office.look(packet.id);
async function messages(name: string): Promise<MessageSummary[]> {
  const page = await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?limit=100&packetId=${packet.id}`);
  return page.items.filter((m) => m.toName === name);
}
const linkOf = async (name: string) => (await messages(name)).find((m) => m.link)!.link!;

/** Opens a client's newest link on a phone of their own. */
async function client(name: string): Promise<Page> {
  const page = await openPage(browser, PHONE);
  page.on('pageerror', (e) => errors.push(`${name}: ${String(e)}`));
  await page.goto(await linkOf(name));
  return page;
}
const check = async (page: Page, what: string) => {
  // Labels glide to their places; axe would see them half-way.
  await still(page);
  axe[what] = await findings(page);
};

const close = (page: Page) => page.browserContext().close();
const at = async (gate: number) => {
  await desk.goto(`${server.url}/packets/${packet.id}`);
  await desk.waitForFunction(
    (n: number) => document.querySelector('[data-testid="packet-state"]')?.textContent?.includes(`At gate ${n} of 4`),
    {},
    gate,
  );
};

step('it is sent; the sellers share a mailbox and each reads who it is for, in their own language', async () => {
  await desk.goto(`${server.url}/packets/${packet.id}`);
  await tap(desk, 'send');
  await tap(desk, 'send-now');
  await desk.waitForSelector(byTestId('packet-state'));
  const [wren] = await messages('Wren Alder');
  const [callum] = await messages('Callum Alder');
  expect([wren!.toEmail, callum!.toEmail]).toEqual(['alders@example.com', 'alders@example.com']);
  expect(callum!.subject).toMatch(/^Por favor, firme: Purchase papers, /);
  const body = await office.call<MessageView>('GET', `/api/mailroom/${wren!.id}`);
  expect(body.bodyText).toContain('this message is for Wren Alder only');
  const page = await client('Callum Alder');
  await page.waitForSelector(byTestId('agree'));
  const text = await page.evaluate(() => document.body.textContent);
  expect(text).toContain('Usted firma como Callum');
  expect(text).toContain('Callum, call me if the Spanish reads oddly.');
  await check(page, 'agreement (es)');
  await tap(page, 'more');
  await check(page, 'more');
  await tap(page, 'decline');
  await check(page, 'decline');
  await press(page, 'Volver');
  await tap(page, 'read-first');
  await page.waitForSelector(byTestId('signing-sheet'));
  await check(page, 'read everything');
  await tap(page, 'back');
  await tap(page, 'not-me');
  expect(await textOf(page, 'not-me-title')).toBe('¿Usted no es Callum Alder?');
  await check(page, 'not me');
  await close(page);
});

step('a seller asks and is answered, loses the connection, comes back on another device, and finishes', async () => {
  const first = await client('Wren Alder');
  await first.waitForSelector(byTestId('agree'));
  await tap(first, 'agree');
  await first.waitForSelector(byTestId('agree-first'));
  expect(await first.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('checkbox');
  await tap(first, 'more');
  await tap(first, 'ask');
  await type(first, 'question', 'Is the shed included?');
  await check(first, 'question');
  await tap(first, 'send-question');
  await first.waitForSelector(byTestId('question-card'));
  await at(1);
  await type(desk, 'answer-text', 'Yes, with its roof.');
  await check(desk, 'packet page (phone)');
  await tap(desk, 'answer-now');
  await first.waitForSelector(byTestId('answer'));
  expect(await textOf(first, 'answer')).toBe('Yes, with its roof.');
  await tap(first, 'back');
  await tap(first, 'agree-tick');
  await tap(first, 'agree');
  await first.waitForSelector(byTestId('save-hand'));
  await check(first, 'hand');
  await tap(first, 'save-hand');
  await first.waitForSelector(byTestId('current-place'));
  await check(first, 'places');
  expect(await first.$eval(byTestId('current-place'), (e) => e.getAttribute('aria-label'))).toBe(
    `Initials of Seller 1, Wren Alder, page 1 of ${LONG_PAGES}, required`,
  );
  expect(await textOf(first, 'left')).toBe(`${LONG_PAGES} initials and 1 signature`);
  // In a lift: three acts without any connection, kept on the device and told so.
  await first.setOfflineMode(true);
  await signThrough(first, 3);
  await first.waitForSelector(byTestId('offline'));
  expect(await textOf(first, 'offline')).toContain('3 steps are waiting');
  expect(await textOf(first, 'left')).toBe(`${LONG_PAGES - 3} initials and 1 signature`);
  await check(first, 'offline');
  expect(Object.keys((await look()).sent!.fills)).toHaveLength(0);
  await first.setOfflineMode(false);
  await nothingWaits(first);
  expect((await look()).sent!.fills).toHaveLength(3);
  await close(first);
  const second = await client('Wren Alder');
  await second.waitForSelector(byTestId('fill'));
  expect(await textOf(second, 'left')).toBe(`${LONG_PAGES - 3} initials and 1 signature`);
  await tap(second, 'pages');
  await second.waitForSelector(byTestId('thumb-1'));
  await check(second, 'pages');
  await tap(second, 'back');
  expect(await signThrough(second)).toBe(LONG_PAGES - 2);
  await finish(second);
  await check(second, 'ended');
  await close(second);
});

step('a correction is initialed by who had signed; who signs later sees it', async () => {
  await at(1);
  await tap(desk, 'cell-1-done');
  await tap(desk, 'change-page');
  // A finger touches the first word, then the last.
  const { documentId } = (await look()).sent!.plan.marks[0]!;
  const packed = await office.call<PackedFacts>('GET', `/api/documents/${documentId}/facts`);
  const facts = unpackFacts(documentId, '', packed).pages[0]!;
  const [box] = findWords(facts, 'the mooring and everything')[0]!.rects;
  for (const x of [box!.x + 4, box!.x + box!.w - 4])
    await touchAt(desk, 'change-paper', x / facts.width, (box!.y + box!.h / 2) / facts.height);
  await desk.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('[data-testid="change-words"]')?.value === 'the mooring and everything',
  );
  await desk.waitForSelector(`${byTestId('change-now')}:not([aria-disabled="true"])`);
  await check(desk, 'correction');
  await tap(desk, 'change-now');
  await desk.waitForFunction(() =>
    /Wren has a change to initial/.test(document.querySelector('[data-testid="party-Wren"]')?.textContent ?? ''),
  );
  const again = await client('Wren Alder');
  await again.waitForSelector(byTestId('changed'));
  expect(await again.evaluate(() => document.body.textContent)).toContain('Struck: “the mooring and everything”');
  await check(again, 'changed');
  await tap(again, 'look-at-change');
  await again.waitForSelector(byTestId('place-title'));
  expect(await textOf(again, 'place-title')).toBe('Initial the change on page 1');
  expect(await signThrough(again)).toBe(1);
  await finish(again);
  await close(again);
  // With the keyboard alone.
  const callum = await client('Callum Alder');
  await callum.setViewport({ width: 390, height: 844, deviceScaleFactor: 1 });
  await callum.waitForSelector(byTestId('agree'));
  await tabTo(callum, 'agree-tick');
  await callum.keyboard.press('Space');
  await tabTo(callum, 'agree');
  await callum.keyboard.press('Enter');
  await callum.waitForSelector(byTestId('save-hand'));
  await tabTo(callum, 'save-hand');
  await callum.keyboard.press('Enter');
  await callum.waitForSelector(byTestId('fill'));
  await tabTo(callum, 'fill');
  // Every page, the signature, and the change: the focus goes along from place to place.
  for (let n = 0; n < LONG_PAGES + 2; n++) {
    const left = await textOf(callum, 'left');
    await callum.keyboard.press('Enter');
    await callum.waitForFunction(
      (was: string) =>
        document.querySelector('[data-testid="left"]')?.textContent !== was &&
        ['fill', 'finish'].includes(document.activeElement?.getAttribute('data-testid') ?? ''),
      {},
      left,
    );
  }
  await callum.keyboard.press('Enter');
  await callum.waitForSelector(byTestId('ended'));
  await nothingWaits(callum);
  await close(callum);
});

step('the attorney approves; a nudge comes by itself when the clock goes on', async () => {
  await at(2);
  await desk.goto(`${server.url}/firm`);
  await tap(desk, 'forward-24');
  await desk.waitForFunction(() => !document.querySelector('[data-testid="forward-24"][aria-disabled="true"]'));
  await tap(desk, 'forward-24');
  for (let i = 0; i < 50 && (await messages('Ana Ruiz'))[0]!.kind !== 'nudge'; i++)
    await new Promise((r) => setTimeout(r, 100));
  expect((await messages('Ana Ruiz')).map((m) => m.kind)).toContain('nudge');
  // Only who is waited for is reminded.
  for (const name of ['Wren Alder', 'Callum Alder', 'Priya Nair'])
    expect((await messages(name)).map((m) => m.kind)).not.toContain('nudge');
  const ana = await client('Ana Ruiz');
  await tap(ana, 'agree-tick');
  await tap(ana, 'agree');
  await ana.waitForSelector(byTestId('approve'));
  await check(ana, 'approve');
  await tap(ana, 'approve');
  await ana.waitForSelector(byTestId('ended'));
  await close(ana);
});

step('the broker signs at the desk, on the host’s device', async () => {
  await at(3);
  expect(await messages('Tobias Mercer')).toEqual([]);
  await tap(desk, 'host-Tobias');
  await desk.waitForSelector(byTestId('agree'));
  expect(await desk.evaluate(() => document.body.textContent)).toContain(
    'Odile Farrant of Towpath & Vane Realty opened this for you',
  );
  await signThrough(desk);
  await finish(desk);
});

step('a buyer’s address is fixed under way; both buyers get in with a one-time code', async () => {
  await at(4);
  const dead = await linkOf('Priya Nair');
  const menu = await desk.waitForSelector(`${byTestId('party-Priya')} [aria-label^="What to do"]`);
  await menu!.click();
  await choose(desk, 'Correct name or address');
  await type(desk, 'fix-email', 'priya@example.com');
  await tap(desk, 'fix-now');
  await desk.waitForFunction(() => !document.querySelector('[data-testid="fix-party"]'));
  const gone = await openPage(browser, PHONE);
  await gone.goto(dead);
  expect(await textOf(gone, 'trouble')).toContain('newest message');
  await close(gone);
  for (const [name, channel] of [
    ['Priya Nair', 'email'],
    ['Mateo Ibarra', 'text'],
  ] as const) {
    const page = await client(name);
    await page.waitForSelector(byTestId('send-code'));
    expect(await page.evaluate(() => document.body.textContent)).not.toContain('Purchase papers');
    await tap(page, 'send-code');
    await page.waitForSelector(byTestId('code'));
    if (channel === 'email') {
      await check(page, 'code');
      await type(page, 'code', '000000');
      await tap(page, 'give-code');
      await page.waitForSelector(byTestId('trouble'));
    }
    const m = (await messages(name)).find((x) => x.kind === 'code')!;
    expect(m.channel).toBe(channel);
    const { bodyText } = await office.call<MessageView>('GET', `/api/mailroom/${m.id}`);
    await type(page, 'code', /\d{6}/.exec(bodyText)![0]);
    await tap(page, 'give-code');
    await signThrough(page);
    await finish(page);
    await close(page);
  }
});

const save = (url: string, file: string) => download(desk, url, path.join(dir, file));

step('executed: copies go out, every seal stands, each revision can be cut out, and the chain agrees', async () => {
  await desk.goto(`${server.url}/packets/${packet.id}`);
  await desk.waitForSelector(byTestId('download-sealed'), { timeout: 60_000 });
  await check(desk, 'executed packet');
  // Another kind of screen loads the page again.
  await desk.setViewport(WIDE);
  await desk.waitForSelector(byTestId('download-sealed'), { timeout: 60_000 });
  await check(desk, 'executed packet (wide)');
  await desk.setViewport(PHONE);
  expect((await messages('Escrow Desk')).map((m) => m.kind)).toEqual(['executed']);
  const { sent } = await look();
  const pdf = await save(`/api/packets/${packet.id}/sealed/${sent!.sealed![0]!.documentId}`, 'sealed.pdf');
  const chain = await save(`/api/packets/${packet.id}/chain`, 'chain.json');
  const both = verify(pdf, chain);
  expect([both.status, both.stdout.toString()]).toEqual([0, expect.stringContaining('agrees with the chain')]);
  const seals = [...both.stdout.toString().matchAll(/^seal \d+ {2}\S+ {2}(.+?) {2}(\w+).*bytes 1 to (\d+)\)$/gm)];
  expect(seals.map((s) => `${s[1]}: ${s[2]}`)).toEqual([
    'Wren Alder, Seller 1: Signed',
    'Odile Farrant: Changed',
    'Wren Alder, Seller 1: Signed',
    'Callum Alder, Seller 2: Signed',
    'Ana Ruiz, Other 1: Approved',
    'Tobias Mercer, Listing broker: Signed',
    'Priya Nair, Buyer 1: Signed',
    'Mateo Ibarra, Buyer 2: Signed',
    'Towpath & Vane Realty: Executed',
  ]);
  const bytes = readFileSync(pdf);
  // The first seal kept room for all that came after, the correction and the record in two languages too.
  const ends = seals.map((m) => Number(m[3]));
  for (const [i, end] of ends.slice(1).entries())
    expect([i, await changedBeyondMarks(bytes.subarray(0, ends[i]), bytes.subarray(0, end))]).toEqual([i, []]);
  seals.forEach((s, i) => {
    expect([i, judged(bytes.subarray(0, Number(s[3])))]).toEqual([i, sound(i + 1)]);
  });
  for (const [what, changed] of await forbidden(bytes))
    expect([what, forbiddenChanges(changed)]).not.toEqual([what, 0]);
  const text = execFileSync('pdftotext', ['-layout', pdf, '-']).toString();
  expect(text).toContain('Registro de firmas');
  expect(text).toContain('At the desk of Odile Farrant');
  bytes[Math.floor(bytes.length / 3)]! ^= 1;
  writeFileSync(path.join(dir, 'changed.pdf'), new Uint8Array(bytes));
  expect(verify(path.join(dir, 'changed.pdf')).status).toBe(1);
  expect(verify(chain).status).toBe(0);
});

step('anybody can check a sealed copy, and a changed one is told', async () => {
  const page = await openPage(browser, WIDE);
  await page.goto(`${server.url}/check`);
  const input = (await page.waitForSelector(byTestId('check-file')))!;
  const give = (f: string) => (input as never as { uploadFile(f: string): Promise<void> }).uploadFile(f);
  await give(path.join(dir, 'sealed.pdf'));
  await page.waitForFunction(() =>
    /is whole/.test(document.querySelector('[data-testid="outcome"]')?.textContent ?? ''),
  );
  expect(await page.$$eval(byTestId('revision'), (all) => all.length)).toBe(9);
  await check(page, 'check page');
  await give(path.join(dir, 'changed.pdf'));
  await page.waitForFunction(() =>
    /NOT whole/.test(document.querySelector('[data-testid="outcome"]')?.textContent ?? ''),
  );
  await close(page);
});

step('a late round: a trustee signs the executed document, and every earlier seal stands', async () => {
  await office.call('POST', `/api/deals/${deal.id}/parties`, {
    side: 'seller',
    name: 'Theo Holt',
    email: 'theo@example.com',
  });
  await desk.goto(`${server.url}/packets/${packet.id}`);
  await tap(desk, 'late-round');
  await desk.waitForSelector(byTestId('sheet'), { timeout: 60_000 });
  const late = desk.url().split('/').pop()!;
  await tap(desk, 'tab-path');
  await press(desk, 'Add Theo Holt');
  await tap(desk, 'path-together');
  await tap(desk, 'tab-ledger');
  await tap(desk, 'rule-Theo');
  // Initials on every page of the document; its signing record, however long that has become, asks for none.
  await desk.waitForFunction(
    (pages) => {
      const sum = /(\d+) of (\d+)/.exec(document.querySelector('[data-testid="ledger-sum"]')?.textContent ?? '');
      return sum !== null && sum[1] === sum[2] && Number(sum[1]) === pages;
    },
    {},
    LONG_PAGES,
  );
  await tap(desk, `cell-${LONG_PAGES}-initials`);
  await take(desk, 'take-Theo', 'kind-signature');
  const sheet = (await (await desk.waitForSelector(byTestId('paper')))!.boundingBox())!;
  await desk.touchscreen.tap(sheet.x + sheet.width * 0.3, sheet.y + sheet.height * 0.42);
  await desk.waitForSelector(byTestId('mark-signature'));
  await check(desk, 'desk of a late round');
  await tap(desk, 'send');
  await tap(desk, 'send-now');
  await desk.waitForSelector(byTestId('packet-state'));
  const page = await openPage(browser, PHONE);
  const mail = await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${late}`);
  await page.goto(mail.items.find((m) => m.toName === 'Theo Holt')!.link!);
  await signThrough(page);
  await finish(page);
  await close(page);
  await desk.waitForSelector(byTestId('download-sealed'), { timeout: 60_000 });
  const { sent } = await office.look(late);
  const file = await save(`/api/packets/${late}/sealed/${sent!.sealed![0]!.documentId}`, 'late.pdf');
  const [first, second] = ['sealed.pdf', 'late.pdf'].map((f) => readFileSync(path.join(dir, f)));
  expect(second!.subarray(0, first!.length).equals(first!)).toBe(true);
  expect(judgedFile(file)).toEqual(sound(11));
  const record = await save(`/api/packets/${late}/sealed/${sent!.sealed![1]!.documentId}`, 'late-record.pdf');
  expect(judgedFile(record)).toEqual(sound(1));
  const chain = await save(`/api/packets/${late}/chain`, 'late.json');
  expect(verify(file, chain).stdout.toString()).toContain('agrees with the chain');
});

step('a packet that is not there is told, with a way to try again', async () => {
  await desk.goto(`${server.url}/packets/nothing`);
  await desk.waitForSelector(byTestId('trouble'));
  await check(desk, 'no such packet');
});

step('axe finds nothing on any of these screens', () => {
  expect(Object.keys(axe).length).toBeGreaterThan(12);
  expect(Object.fromEntries(Object.entries(axe).filter(([, found]) => found.length))).toEqual({});
  expect(errors).toEqual([]);
});
