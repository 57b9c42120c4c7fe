/** Lists, tables, charts and the binder in real Chromium, and people changed under way; all of it reached and clean. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import type { BinderView, DealSummary, DealView, MessageSummary, PacketView } from '@gatepath/contract';
import type { DraftEdit } from '@gatepath/core/packet';
import { paper } from '../server/test/papers';
import { findings } from './axe';
import { chooseFile, byLabel, byTestId, choose, eventually, settled, tap, tapOn, textOf, type } from './browser';
import { press } from './client';
import type { Office } from './office';
import type { ServerProcess } from './server';
import { Stage } from './stage';

jest.setTimeout(300_000);

let stage: Stage;
let server: ServerProcess;
let office: Office;
let phone: Page;
let wide: Page;
let errors: string[];
let deal: DealView;
let packet: PacketView;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-lists-'));
/** As many deals as stand behind the end of a list; with MANY=10000 it takes two minutes more. */
const MANY = Number(process.env['MANY'] ?? 600);

beforeAll(async () => {
  stage = await Stage.set({ CLOCK_FORWARD: '1' });
  ({ server, office, phone, wide, errors } = stage);
  deal = await office.deal('7 Weir Terrace', [
    { side: 'seller', name: 'Wren Alder', email: 'wren@example.com' },
    { side: 'seller', name: 'Callum Alder', email: 'callum@example.com' },
    { side: 'buyer', name: 'Priya Nair', email: 'priya@example.com' },
  ]);
  const doc = await office.paper(deal.id, 'p.pdf', await paper({ pages: 1 }));
  const draft = await office.packet(deal.id, 'Purchase papers', [doc.id]);
  await office.edit(
    draft.id,
    draft.draft.parties.map(({ id: partyId }, i): DraftEdit => ({
      op: 'put',
      list: 'marks',
      item: {
        id: `s${i}`,
        documentId: doc.id,
        page: 1,
        kind: 'signature',
        partyId,
        rect: { x: 72, y: 620 + 36 * i, w: 160, h: 26 },
        required: true,
      },
    })),
  );
  packet = await office.look(draft.id);
});
afterAll(async () => {
  await stage?.end();
  rmSync(dir, { recursive: true });
});

const messages = async (kind: string) =>
  (await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${packet.id}&limit=100`)).items.filter(
    (m) => m.kind === kind,
  );

test('before anything is sent, the whole ceremony is gone through as the buyer will, and nothing is kept', async () => {
  await phone.goto(`${server.url}/packets/${packet.id}`);
  await tapOn(phone, byLabel('Preview as a party'));
  await tap(phone, 'go-through');
  await phone.waitForSelector(byTestId('agree'));
  await tap(phone, 'choice-es');
  await phone.waitForFunction(() =>
    document.querySelector('[data-testid="rehearsal"]')?.textContent?.includes('Usted firma como'),
  );
  await settled(phone);
  expect(await findings(phone)).toEqual([]);
  await tap(phone, 'choice-en');
  await phone.$eval(`${byTestId('rehearsal')} [role="checkbox"]`, (el) => (el as HTMLElement).click());
  await tap(phone, 'agree');
  // The hand is next: it is rehearsed like everything else.
  await phone.waitForFunction(() =>
    document.querySelector('[data-testid="rehearsal"]')?.textContent?.includes('signature'),
  );
  await tap(phone, 'rehearsal-close');
  expect((await office.look(packet.id)).status).toBe('drafting');
  expect(await messages('ask')).toEqual([]);
});

test('somebody ahead is taken out, and the places of another are moved on the page, with a phone', async () => {
  const { version } = await office.look(packet.id);
  packet = await office.call<PacketView>('POST', `/api/packets/${packet.id}/send`, { version, despiteWarnings: true });
  await phone.goto(`${server.url}/packets/${packet.id}`);
  await phone.waitForSelector(byTestId('party-Callum'));
  await tapOn(phone, byLabel('What to do for Callum Alder'));
  await choose(phone, 'Remove Callum');
  await type(phone, 'drop-reason', 'He sold his share.');
  await tap(phone, 'drop-now');
  await phone.waitForFunction(() => document.body.textContent!.includes('Callum was removed'));
  await eventually(async () => expect(await messages('taken_out')).toHaveLength(1));
  const was = packet.sent!.plan.marks.find((m) => m.id === 's2')!;
  await tap(phone, 'cell-1-signature');
  await tap(phone, 'change-places');
  await phone.waitForSelector(byTestId('marks-card'));
  for (const label of ['Priya', '1. signature']) {
    const radio = `${byTestId('marks-card')} input[type="radio"][aria-label="${label}"]`;
    await phone.waitForSelector(radio);
    await phone.$eval(radio, (el) => (el as HTMLElement).click());
  }
  await phone.waitForSelector('[aria-label="To the right"]');
  await settled(phone);
  expect(await findings(phone)).toEqual([]);
  for (let i = 0; i < 3; i++) await phone.$eval('[aria-label="To the right"]', (el) => (el as HTMLElement).click());
  await tap(phone, 'places-now');
  await eventually(async () => {
    const { marks, parties } = (await office.look(packet.id)).sent!.plan;
    const buyer = parties.find((p) => p.name === 'Priya Nair')!;
    expect(marks.find((m) => m.partyId === buyer.id)!.rect.x).toBe(was.rect.x + 18);
  });
});

test('from the first screen to a nudged hold-up in two touches on a wide screen too', async () => {
  await office.call('POST', '/api/clock', { hours: 30 });
  await wide.goto(`${server.url}/deals`);
  await wide.waitForSelector(byTestId('new-deal'));
  const before = (await messages('nudge')).length;
  await wide.evaluate(() => {
    const links = Array.from(document.querySelectorAll<HTMLElement>('[role="link"]'));
    links.find((e) => e.textContent === 'Today')!.click();
  });
  await tap(wide, 'still-nudge');
  // Closing the page at once loses nothing.
  await wide.goto('about:blank');
  await eventually(async () => expect((await messages('nudge')).length).toBe(before + 1));
});

test('a table with two wrong rows is brought in with a mouse: the wrong ones are named, the others come in', async () => {
  const file = path.join(dir, 'people.csv');
  writeFileSync(file, 'Who,Mail\nAgnes Thorvald,agnes@example.com\n,x@example.com\nBo Vane,nowhere\n');
  await wide.goto(`${server.url}/import?what=people`);
  await chooseFile(wide, 'import-file', file);
  await wide.waitForSelector(byTestId('import-columns'));
  await press(wide, 'left out');
  await choose(wide, 'Name');
  await wide.waitForFunction(() => document.body.textContent!.includes('Line 4'));
  await tap(wide, 'import-take');
  expect(await textOf(wide, 'import-done')).toContain('1 person imported.');
  expect(await findings(wide)).toEqual([]);
});

test('the binder is made while one waits, and is there to be downloaded', async () => {
  await phone.goto(`${server.url}/deals/${deal.id}`);
  await tap(phone, 'make-binder');
  await phone.waitForSelector(byTestId('download-binder'));
  const b = await office.call<BinderView>('GET', `/api/deals/${deal.id}/binder`);
  expect([b.status, b.bytes! > 1_000]).toEqual(['ready', true]);
});

test(`a list of ${MANY} deals comes to its end, on a phone and on a wide screen, and several are in hand at once`, async () => {
  const rows = Array.from({ length: MANY }, (_, i) => `${String(i).padStart(5, '0')} Lantern Row,sale`);
  const form = new FormData();
  form.append('file', new Blob([['Address,Kind', ...rows].join('\n')]), 'deals.csv');
  await office.call('POST', '/api/imports/deals?take=all', undefined, form);
  await wide.goto(`${server.url}/deals`);
  await wide.waitForSelector(byTestId('deal-row'));
  const boxes = await wide.$$('[role="checkbox"]');
  for (const box of boxes.slice(1, 4)) await box.click();
  await press(wide, 'Tag');
  await type(wide, 'tag-text', 'canal');
  await tap(wide, 'tag-now');
  await eventually(async () => {
    const { items } = await office.call<{ items: DealSummary[] }>('GET', '/api/deals?tag=canal');
    expect(items).toHaveLength(3);
  });
  // The list ordered by address: its first is the last one brought in by number, reached by scrolling to the end.
  await tap(wide, 'order-address');
  for (const [page, last] of [
    [wide, '7 Weir Terrace'],
    [phone, '7 Weir Terrace'],
  ] as const) {
    if (page === phone) {
      await page.goto(`${server.url}/deals`);
      await page.waitForSelector(byTestId('deal-card'));
    }
    const reached = await eventually(async () => {
      const found = await page.evaluate((words) => {
        const lists = Array.from(document.querySelectorAll<HTMLElement>('*')).filter(
          (e) => e.scrollHeight > e.clientHeight + 200 && ['auto', 'scroll'].includes(getComputedStyle(e).overflowY),
        );
        const list = lists.sort((a, b) => b.scrollHeight - a.scrollHeight)[0];
        if (list) list.scrollTop = list.scrollHeight;
        const links = Array.from(document.querySelectorAll('[role="link"]'));
        return {
          there: links.some((e) => e.textContent!.includes(words)),
          height: list?.scrollHeight,
          last: links[links.length - 1]?.textContent,
          trouble: document.querySelector('[data-testid="trouble"]')?.textContent,
        };
      }, last);
      // What is there instead tells whether the list stands still, is still growing, or shows an error.
      if (!found.there) throw new Error(`not at the end: ${JSON.stringify(found)}`);
      return found.there;
    }, 150);
    expect([page === phone ? 'phone' : 'wide', reached]).toEqual([page === phone ? 'phone' : 'wide', true]);
  }
});

test('axe finds nothing on these screens nor on the line that opens over them, and none of them fell over', async () => {
  const [person] = (await office.call<{ items: { id: string }[] }>('GET', '/api/people')).items;
  for (const page of [phone, wide])
    for (const place of [
      '/insight',
      '/deals',
      '/people',
      `/people/${person!.id}`,
      '/import',
      `/packets/${packet.id}`,
    ]) {
      await page.goto(server.url + place);
      await page.waitForSelector('[role="main"]');
      await settled(page);
      expect([place, await findings(page)]).toEqual([place, []]);
    }
  await wide.keyboard.press('/');
  await wide.waitForSelector('[cmdk-input]');
  await settled(wide);
  expect(await findings(wide)).toEqual([]);
  expect(errors).toEqual([]);
});
