/** Preparing a packet as a coordinator does: from a form with printed places to a clean gate check, and every tool of the desk. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import type { DealView, DocumentView, MessageSummary, PacketView } from '@gatepath/contract';
import type { Mark } from '@gatepath/core/marks';
import { byTestId, launch, openPage, PHONE, settled, signIn, tap, textOf, type, WIDE } from './browser';
import { longForm, LONG_PAGES } from './long-form';
import { MEMBER, Office } from './office';
import { ServerProcess } from './server';

jest.setTimeout(300_000);

let server: ServerProcess;
let browser: Browser;
let office: Office;
let form: string;
let bytes: Uint8Array;

beforeAll(async () => {
  server = await ServerProcess.start();
  browser = await launch();
  office = new Office(server);
  await office.setUp();
  bytes = await longForm();
  form = path.join(mkdtempSync(path.join(os.tmpdir(), 'form-')), 'Purchase agreement.pdf');
  writeFileSync(form, bytes);
});
afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

const NAMES = ['Wren Alder', 'Callum Alder', 'Priya Nair', 'Mateo Ibarra', 'Agnes Thorvald'];
const people = (sellers: number) => [
  ...NAMES.slice(0, sellers).map((name) => ({
    side: 'seller' as const,
    name,
    email: `${name.split(' ')[0]}@example.com`,
  })),
  { side: 'buyer' as const, name: 'Юрий Калина', email: 'yuri@example.com' },
  { side: 'buyer' as const, name: 'Henrike Osei', email: 'henrike@example.com' },
];

const open = async (viewport: typeof PHONE | typeof WIDE, where: string): Promise<Page> => {
  const page = await openPage(browser, viewport);
  await signIn(page, server.url, MEMBER.email, MEMBER.password);
  await page.goto(server.url + where);
  return page;
};
const saved = (page: Page) =>
  page.waitForFunction(() => /· Saved \d/.test(document.querySelector('[data-testid="saving"]')?.textContent ?? ''));
const marksOf = async (packetId: string): Promise<Mark[]> => (await office.look(packetId)).draft.marks;

test.each([
  ['a phone', PHONE, 2],
  ['a phone', PHONE, 5],
  ['a wide screen', WIDE, 2],
  ['a wide screen', WIDE, 5],
] as const)(
  'on %s a 14-page form goes from import to a clean gate check in at most 12 acts (%#)',
  async (_where, viewport, sellers) => {
    const deal = await office.deal(`${sellers} Lantern Row`, people(sellers));
    const page = await open(viewport, `/deals/${deal.id}`);
    let acts = 0;
    const act = async (testId: string) => {
      acts++;
      await tap(page, testId);
    };
    acts++;
    const input = (await page.waitForSelector(byTestId('file-input'))) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(form);
    await page.waitForSelector(byTestId('document-row'));
    await act('new-packet');
    await act('start-packet');
    if (viewport === PHONE) await act('tab-printed');
    await act('accept-all');
    if (viewport === PHONE) await act('tab-check');
    await page.waitForSelector(byTestId('check-clean'));
    expect(acts).toBeLessThanOrEqual(12);
    await saved(page);

    const id = page.url().split('/').pop()!;
    const { draft } = await office.look(id);
    for (const party of draft.parties) {
      const mine = draft.marks.filter((m) => m.partyId === party.id);
      expect(
        mine
          .filter((m) => m.kind === 'initials')
          .map((m) => m.page)
          .sort((a, b) => a - b),
      ).toEqual(Array.from({ length: LONG_PAGES }, (_, i) => i + 1));
      expect(mine.filter((m) => m.kind === 'signature')).toHaveLength(1);
      expect(mine.filter((m) => m.kind === 'date_signed')).toHaveLength(1);
    }
    // Those beyond the printed lines are named underneath.
    expect(draft.marks.filter((m) => m.kind === 'label')).toHaveLength((sellers - 2) * (LONG_PAGES + 1));
    if (viewport === PHONE) await tap(page, 'tab-ledger');
    expect(await textOf(page, 'ledger-sum')).toBe(
      `${(sellers + 2) * LONG_PAGES} of ${(sellers + 2) * LONG_PAGES} placed`,
    );
    await page.browserContext().close();
  },
);

async function freshPacket(name: string): Promise<{ deal: DealView; doc: DocumentView; packet: PacketView }> {
  const deal = await office.deal(name, people(2));
  const doc = await office.paper(deal.id, 'form.pdf', bytes);
  return { deal, doc, packet: await office.packet(deal.id, name, [doc.id]) };
}

const boxOf = async (page: Page, testId: string) =>
  (await (await page.waitForSelector(byTestId(testId)))!.boundingBox())!;

test('several marks are taken in hand, lined up, copied, repeated and handed on; all of it can be undone', async () => {
  const { packet } = await freshPacket('1 Weir Terrace');
  const page = await open(WIDE, `/packets/${packet.id}`);
  await tap(page, 'kind-text');
  const sheet = await boxOf(page, 'paper');
  const scale = sheet.width / 612;
  const at = (x: number, y: number) => [sheet.x + x * scale, sheet.y + y * scale] as const;
  await page.mouse.click(...at(200, 420));
  await tap(page, 'let-go');
  await page.mouse.click(...at(420, 470));
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-text"]').length === 2);
  // The first one too, with Shift. The page may have scrolled to what came into hand.
  await new Promise((r) => setTimeout(r, 600));
  const other = (await page.$(`${byTestId('mark-text')}[aria-pressed="false"]`))!;
  const first = (await other.boundingBox())!;
  await page.keyboard.down('Shift');
  await page.mouse.click(first.x + first.width / 2, first.y + first.height / 2);
  await page.keyboard.up('Shift');
  await tap(page, 'arrange');
  await page.waitForFunction(() => document.body.textContent!.includes('Line up on one line'));
  await page.evaluate(() =>
    (
      Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) =>
        e.textContent!.includes('Line up on one line'),
      ) as HTMLElement
    ).click(),
  );
  await saved(page);
  await page.waitForFunction(
    () =>
      new Set(
        Array.from(document.querySelectorAll('[data-testid="mark-text"]'), (e) =>
          Math.round(e.getBoundingClientRect().bottom),
        ),
      ).size === 1,
  );

  await tap(page, 'repeat');
  await type(page, 'repeat-from', '2');
  await type(page, 'repeat-to', '4');
  await tap(page, 'repeat-now');
  await saved(page);
  const all = async (n: number) => {
    for (let i = 0; i < 50; i++) {
      const marks = await marksOf(packet.id);
      if (marks.length === n) return marks;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`${(await marksOf(packet.id)).length} marks where ${n} were expected`);
  };
  const repeated = await all(8);
  expect([...new Set(repeated.map((m) => m.page))].sort()).toEqual([1, 2, 3, 4]);
  expect(new Set(repeated.map((m) => m.rect.x)).size).toBe(2);

  await tap(page, 'hand-to');
  await page.waitForFunction(() =>
    Array.from(document.querySelectorAll('[role="menuitem"]')).some((e) => e.textContent!.includes('Callum Alder')),
  );
  await page.evaluate(() =>
    (
      Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) =>
        e.textContent!.includes('Callum Alder'),
      ) as HTMLElement
    ).click(),
  );
  const handed = await all(10);
  const { draft } = await office.look(packet.id);
  const callum = draft.parties.find((p) => p.name === 'Callum Alder')!.id;
  expect(handed.filter((m) => m.partyId === callum)).toHaveLength(2);

  await page.keyboard.down('Control');
  await page.keyboard.press('c');
  await page.keyboard.up('Control');
  await tap(page, 'all-pages');
  await tap(page, 'thumb-9');
  await page.keyboard.down('Control');
  await page.keyboard.press('v');
  await page.keyboard.up('Control');
  const pasted = await all(12);
  expect(pasted.filter((m) => m.page === 9)).toHaveLength(2);
  for (let i = 0; i < 6; i++) await tap(page, 'undo');
  await all(0);
  await tap(page, 'redo');
  await all(1);
  await page.browserContext().close();
});

test('words are struck and put in, everybody is to initial it, and it goes with its initials', async () => {
  const { packet } = await freshPacket('2 Weir Terrace');
  const page = await open(WIDE, `/packets/${packet.id}`);
  await tap(page, 'kind-strike');
  const pad = await boxOf(page, 'strike-pad');
  const scale = pad.width / 612;
  await page.mouse.move(pad.x + 120 * scale, pad.y + 90 * scale);
  await page.mouse.down();
  await page.mouse.move(pad.x + 300 * scale, pad.y + 90 * scale, { steps: 5 });
  await page.mouse.up();
  await page.waitForSelector(byTestId('redline-strike'));
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-initials"]').length === 4);
  await tap(page, 'insert-beside');
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-initials"]').length === 8);
  await saved(page);
  const { draft } = await office.look(packet.id);
  expect(draft.redlines.map((r) => r.kind)).toEqual(['strike', 'insert']);
  expect(draft.redlines[0]!.text.split(' ').length).toBeGreaterThan(3);
  expect(draft.marks).toEqual([]);
  await tap(page, 'drop-redline');
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-initials"]').length === 4);
  await page.browserContext().close();
});

test('pages are left out and a file replaced, and marks stay with their pages', async () => {
  const { packet, doc } = await freshPacket('3 Weir Terrace');
  const page = await open(WIDE, `/packets/${packet.id}`);
  await tap(page, 'accept-all');
  await saved(page);
  await tap(page, 'all-pages');
  await tap(page, 'change-pages');
  await tap(page, 'out-2');
  await tap(page, 'apply-pages');
  await page.waitForFunction(() => /page 1 of 13/.test(document.body.textContent ?? ''), { timeout: 60_000 });
  await saved(page);
  let { draft } = await office.look(packet.id);
  expect(draft.documents.map((d) => d.id)).not.toContain(doc.id);
  expect(Math.max(...draft.marks.map((m) => m.page))).toBe(13);
  expect(draft.marks.filter((m) => m.kind === 'signature').every((m) => m.page === 13)).toBe(true);
  // The whole form again, as a file of its own: the pages are told by their words.
  await tap(page, 'document-more-0');
  await page.waitForFunction(() => document.body.textContent!.includes('Replace the file'));
  const [chooser] = await Promise.all([
    page.waitForFileChooser(),
    page.evaluate(() =>
      (
        Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) =>
          e.textContent!.includes('Replace the file'),
        ) as HTMLElement
      ).click(),
    ),
  ]);
  await chooser.accept([form]);
  await page.waitForFunction(() => document.body.textContent!.includes('every page was found again'), {
    timeout: 60_000,
  });
  await saved(page);
  ({ draft } = await office.look(packet.id));
  expect(draft.marks.filter((m) => m.kind === 'signature').every((m) => m.page === 14)).toBe(true);
  expect([...new Set(draft.marks.filter((m) => m.kind === 'initials').map((m) => m.page))]).not.toContain(2);
  await page.browserContext().close();
});

test('two documents are made one and that one two again, and everything prepared on them stays', async () => {
  const deal = await office.deal('8 Weir Terrace', people(2));
  const one = await office.paper(deal.id, 'one.pdf', bytes);
  const two = await office.paper(
    deal.id,
    'two.txt',
    Buffer.from('A short paper\n\nBuyer: ______________________ Date: __________\n'),
  );
  const packet = await office.packet(deal.id, 'Both', [one.id, two.id]);
  const page = await open(WIDE, `/packets/${packet.id}`);
  await tap(page, 'accept-all');
  await saved(page);
  const before = (await marksOf(packet.id)).length;
  const choose = async (words: string) => {
    await page.waitForFunction((w: string) => document.body.textContent!.includes(w), {}, words);
    await page.evaluate((w: string) => {
      const item = Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) => e.textContent!.includes(w));
      (item as HTMLElement).click();
    }, words);
  };
  const documents = async (n: number) => {
    for (let i = 0; i < 200; i++) {
      const { draft } = await office.look(packet.id);
      if (draft.documents.length === n) return draft;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`the packet never had ${n} documents`);
  };
  await tap(page, 'document-more-0');
  await choose('Join with two');
  const joined = await documents(1);
  expect(joined.marks).toHaveLength(before);
  // The short paper has one line for buyers; the second buyer was given places beside it.
  const last = joined.marks.filter((m) => m.page === 15).map((m) => m.kind);
  expect(last.sort()).toEqual(['date_signed', 'date_signed', 'label', 'signature', 'signature']);
  await tap(page, 'all-pages');
  await tap(page, 'change-pages');
  await page.evaluate(() => {
    const all = Array.from(document.querySelectorAll('[role="button"]')).filter(
      (e) => e.textContent === 'Split before',
    );
    (all[1] as HTMLElement).click();
  });
  const split = await documents(2);
  expect(split.marks).toHaveLength(before);
  expect(new Set(split.marks.map((m) => m.documentId))).toEqual(new Set(split.documents.map((d) => d.id)));
  // All of it is undone on the desk: the documents the deal had stand there again.
  for (let i = 0; i < 2; i++) await tap(page, 'undo');
  const back = await documents(2);
  expect(back.documents.map((d) => d.id)).toEqual([one.id, two.id]);
  expect(back.marks).toHaveLength(before);
  await page.browserContext().close();
});

test('a packet is seen as a party will see it, without being sent', async () => {
  const { packet, deal } = await freshPacket('4 Weir Terrace');
  const page = await open(PHONE, `/packets/${packet.id}`);
  await tap(page, 'tab-printed');
  await tap(page, 'accept-party-Wren');
  await tap(page, 'see-as');
  await page.waitForFunction(() =>
    /15 places to fill on 14 pages, at gate 1/.test(
      document.querySelector('[data-testid="preview"]')?.textContent ?? '',
    ),
  );
  await tap(page, `choice-${deal.parties[1]!.id}`);
  await page.waitForFunction(() =>
    /As Callum will see it0 places/.test(document.querySelector('[data-testid="preview"]')?.textContent ?? ''),
  );
  await tap(page, 'preview-close');
  expect((await office.look(packet.id)).status).toBe('drafting');
  await page.browserContext().close();
});

test('two fingers make the page larger, and a thumb moves what it placed', async () => {
  const { packet } = await freshPacket('5 Weir Terrace');
  const page = await open(PHONE, `/packets/${packet.id}`);
  const before = await boxOf(page, 'paper');
  const cdp = await page.createCDPSession();
  const fingers = (apart: number) => [
    { x: 195 - apart, y: 350, id: 1 },
    { x: 195 + apart, y: 350, id: 2 },
  ];
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: fingers(40) });
  for (const apart of [50, 65, 80])
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: fingers(apart) });
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await page.waitForFunction(
    (w: number) => document.querySelector('[data-testid="paper"]')!.getBoundingClientRect().width > w * 1.6,
    {},
    before.width,
  );
  // Its own zoom, not the browser's: the bars stay as they were.
  expect(await page.evaluate(() => window.visualViewport!.scale)).toBe(1);
  await tap(page, 'kind-signature');
  const sheet = await boxOf(page, 'paper');
  await page.touchscreen.tap(sheet.x + 150, 400);
  const mark = await boxOf(page, 'mark-signature');
  const from = { x: mark.x + mark.width / 2, y: mark.y + mark.height / 2 };
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ ...from, id: 1 }] });
  for (const d of [10, 25, 40])
    await cdp.send('Input.dispatchTouchEvent', {
      type: 'touchMove',
      touchPoints: [{ x: from.x, y: from.y + d, id: 1 }],
    });
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await page.waitForFunction(
    (y: number) => document.querySelector('[data-testid="mark-signature"]')!.getBoundingClientRect().y > y + 25,
    {},
    mark.y,
  );
  await page.browserContext().close();
});

test('with a thumb several marks are taken in hand, one after another, and moved as one', async () => {
  const { packet } = await freshPacket('7 Weir Terrace');
  const page = await open(PHONE, `/packets/${packet.id}`);
  await tap(page, 'kind-signature');
  const sheet = await boxOf(page, 'paper');
  for (const y of [0.55, 0.65]) await page.touchscreen.tap(sheet.x + sheet.width * 0.5, sheet.y + sheet.height * y);
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-signature"]').length === 2);
  await tap(page, 'gather');
  const [first] = await page.$$(byTestId('mark-signature'));
  const box = (await first!.boundingBox())!;
  await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2);
  await page.waitForSelector(byTestId('arrange'));
  await saved(page);
  const before = await marksOf(packet.id);
  await first!.focus();
  await page.keyboard.press('ArrowRight');
  for (let i = 0; i < 40 && (await marksOf(packet.id))[0]!.rect.x === before[0]!.rect.x; i++)
    await new Promise((r) => setTimeout(r, 100));
  const after = await marksOf(packet.id);
  expect(after.map((m, i) => Math.round(m.rect.x - before[i]!.rect.x))).toEqual([1, 1]);
  await page.browserContext().close();
});

test('a client fills every kind on a phone, is told what is wrong, and skips knowingly what may stay empty', async () => {
  const deal = await office.deal('6 Weir Terrace', people(2).slice(0, 1));
  const doc = await office.paper(
    deal.id,
    'plain.txt',
    Buffer.from('Questions about the house\n\nPlease answer all of them.\n'),
  );
  const packet = await office.packet(deal.id, 'Questions', [doc.id]);
  const party = deal.parties[0]!.id;
  const put = (id: string, kind: Mark['kind'], y: number, more: Partial<Mark> = {}) => ({
    op: 'put' as const,
    list: 'marks' as const,
    item: {
      id,
      documentId: doc.id,
      page: 1,
      kind,
      partyId: party,
      rect: { x: 80, y, w: 160, h: kind === 'tick' || kind === 'choice' ? 14 : 20 },
      required: true,
      ...more,
    },
  });
  const { version } = await office.edit(packet.id, [
    put('a', 'money', 150, { label: 'Price asked', check: { min: 1000 } }),
    put('b', 'date', 190, { label: 'Day of the hand-over' }),
    put('c', 'tick', 230, { label: 'Smoke alarms on every floor', required: false }),
    put('d1', 'choice', 260, { group: 'heat', label: 'Gas' }),
    put('d2', 'choice', 280, { group: 'heat', label: 'Wood' }),
    put('e', 'list', 310, { label: 'Water', options: ['Own well', 'Town'] }),
    put('f', 'file', 350, { label: 'Proof of title' }),
    put('g', 'signature', 400),
  ]);
  await office.call('POST', `/api/packets/${packet.id}/send`, { version, despiteWarnings: true });
  const mail = await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${packet.id}`);
  const page = await openPage(browser, PHONE);
  await page.goto(mail.items.find((m) => m.kind === 'ask')!.link!);
  await tap(page, 'agree-tick');
  await tap(page, 'agree');
  await tap(page, 'save-hand');
  const title = (what: string) =>
    page.waitForFunction(
      (t: string) => document.querySelector('[data-testid="place-title"]')?.textContent === t,
      {},
      what,
    );
  await title('Price asked');
  await type(page, 'place-text', '900');
  await tap(page, 'fill');
  expect(await textOf(page, 'place-wrong')).toBe('Please write $1,000.00 or more.');
  await type(page, 'place-text', '410000');
  await tap(page, 'fill');
  await title('Day of the hand-over');
  await type(page, 'place-text', '12/15/2026');
  await tap(page, 'fill');
  await title('Tick: Smoke alarms on every floor');
  await tap(page, 'skip');
  await title('Choose one on page 1');
  await tap(page, 'choose-1');
  await title('Water');
  await tap(page, 'choice-Town');
  await tap(page, 'fill');
  await title('Proof of title');
  const file = (await page.waitForSelector(byTestId('file-for-place'))) as ElementHandle<HTMLInputElement>;
  await file.uploadFile(form);
  await title('Sign page 1');
  await tap(page, 'fill');
  await tap(page, 'finish');
  await page.waitForSelector(byTestId('ended'));
  await settled(page);
  const sent = (await office.look(packet.id)).sent!;
  const shown = Object.fromEntries(
    sent.fills.map((f) => [f.markId, f.shows.form === 'text' ? f.shows.text : f.shows.form]),
  );
  expect(shown).toMatchObject({
    a: '$410,000.00',
    b: 'Dec 15, 2026',
    d2: 'tick',
    e: 'Town',
    f: 'Added: Purchase agreement.pdf',
  });
  expect(shown.c).toBeUndefined();
  await page.browserContext().close();
});
