/** The desk's gestures by finger, mouse and keyboard, and what assistive tools find on the main screens. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { DealView, MessageSummary, PacketView } from '@gatepath/contract';
import type { Rect } from '@gatepath/core/paper';
import { byTestId, eventually, launch, openPage, PHONE, saved, settled, signIn, tap, textOf, WIDE } from './browser';
import { openPanel, take } from './at-desk';
import { MEMBER, Office } from './office';
import { ServerProcess } from './server';

jest.setTimeout(240_000);

let server: ServerProcess;
let browser: Browser;
let office: Office;
let packet: PacketView;
let deal: DealView;

const call = <T>(...args: Parameters<Office['call']>) => office.call<T>(...args);

async function paper(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= 3; n++) {
    const page = doc.addPage([612, 792]);
    for (let y = 720; y > 400; y -= 16)
      page.drawText('The buyers have read the disclosure and had time to ask.', { x: 72, y, size: 11, font });
  }
  return doc.save();
}

beforeAll(async () => {
  server = await ServerProcess.start();
  browser = await launch();
  office = new Office(server);
  await office.setUp();
  deal = await office.deal('7 Weir Terrace', [
    { side: 'buyer', name: 'Priya Nair', email: 'priya@example.com' },
    { side: 'buyer', name: 'Mateo Ibarra', email: 'mateo@example.com' },
  ]);
  const doc = await office.paper(deal.id, 'disclosure.pdf', await paper());
  packet = await office.packet(deal.id, 'Disclosure', [doc.id]);
});
afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

async function open(viewport: typeof PHONE | typeof WIDE): Promise<Page> {
  const page = await openPage(browser, viewport);
  await signIn(page, server.url, MEMBER.email, MEMBER.password);
  await page.goto(`${server.url}/packets/${packet.id}`);
  await page.waitForSelector(byTestId('paper'));
  await settled(page);
  return page;
}

const marks = async (): Promise<{ kind: string; rect: Rect; page: number }[]> =>
  (await call<PacketView>('GET', `/api/packets/${packet.id}`)).draft.marks;
const only = async (page: Page, kind = 'signature') =>
  (await page.waitForSelector(byTestId(`mark-${kind}`))) as ElementHandle<Element>;

test('a mark is placed, dragged, stretched, moved by keys, deleted, and all of it undone, on a wide screen', async () => {
  const page = await open(WIDE);
  await take(page, 'kind-signature');
  const sheet = (await (await page.$(byTestId('paper')))!.boundingBox())!;
  const scale = sheet.width / 612;
  await page.mouse.click(sheet.x + 300 * scale, sheet.y + 450 * scale);
  await only(page);
  await saved(page);
  const [placed] = await marks();
  expect(Math.abs(placed!.rect.x + placed!.rect.w / 2 - 300)).toBeLessThan(2);

  const box = (await (await only(page)).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60 * scale, box.y + box.height / 2 + 30 * scale, { steps: 6 });
  await page.mouse.up();
  await page.waitForFunction(
    (x: number) => document.querySelector('[data-testid="mark-signature"]')!.getBoundingClientRect().x > x + 20,
    {},
    box.x,
  );
  const dragged = await eventually(async () => {
    const [mark] = await marks();
    expect(Math.abs(mark!.rect.x - placed!.rect.x - 60)).toBeLessThan(2);
    expect(Math.abs(mark!.rect.y - placed!.rect.y - 30)).toBeLessThan(2);
    return mark;
  });

  const corner = (await (await only(page)).$('[data-stretch]'))!;
  const c = (await corner.boundingBox())!;
  await page.mouse.move(c.x + c.width / 2, c.y + c.height / 2);
  await page.mouse.down();
  await page.mouse.move(c.x + c.width / 2 + 24 * scale, c.y + c.height / 2 + 8 * scale, { steps: 4 });
  await page.mouse.up();
  const stretched = await eventually(async () => {
    const [mark] = await marks();
    expect(mark!.rect.w).toBeGreaterThan(dragged!.rect.w + 20);
    return mark;
  });

  await (await only(page)).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.up('Shift');
  await eventually(async () => {
    const [mark] = await marks();
    expect([mark!.rect.x - stretched!.rect.x, mark!.rect.y - stretched!.rect.y].map(Math.round)).toEqual([1, 10]);
  });

  await page.keyboard.press('Delete');
  await page.waitForFunction(() => !document.querySelector('[data-testid="mark-signature"]'));
  for (let i = 0; i < 6; i++) {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
  }
  await eventually(async () => expect(await marks()).toEqual([]));
  await page.browserContext().close();
});

test('with a finger: initials go on every page like the one that was placed; one is taken away and the ledger shows it', async () => {
  const page = await open(PHONE);
  await take(page, 'take-Priya', 'kind-initials');
  const sheet = (await (await page.$(byTestId('paper')))!.boundingBox())!;
  await page.touchscreen.tap(sheet.x + sheet.width * 0.7, sheet.y + sheet.height * 0.75);
  await only(page, 'initials');
  await tap(page, 'every-page');
  await tap(page, 'tab-ledger');
  await page.waitForFunction(
    () => document.querySelectorAll('[data-testid$="-initials"][data-testid^="cell-"]').length === 3,
  );
  await tap(page, 'cell-2-initials');
  await (await only(page, 'initials')).tap();
  await tap(page, 'remove-mark');
  await tap(page, 'tab-ledger');
  await page.waitForSelector(byTestId('cell-2-excepted'));
  expect(await page.evaluate(() => document.body.textContent)).toContain('Left out: Priya on page 2.');
  await page.browserContext().close();
});

test('changes made without a connection are kept, said so, and sent when it is back', async () => {
  const page = await open(WIDE);
  await openPanel(page, 'ledger');
  await page.setOfflineMode(true);
  await tap(page, 'rule-Mateo');
  await page.waitForFunction(() =>
    /No connection/.test(document.querySelector('[data-testid="saving"]')?.textContent ?? ''),
  );
  await page.setOfflineMode(false);
  await saved(page);
  const { draft } = await call<PacketView>('GET', `/api/packets/${packet.id}`);
  expect(draft.rules[0]!.partyIds).toContain(deal.parties[1]!.id);
  await page.browserContext().close();
});

test('a second person at the same draft sees the change, and neither loses work', async () => {
  const one = await open(WIDE);
  const two = await open(WIDE);
  await openPanel(one, 'path');
  await openPanel(two, 'path');
  await tap(one, 'path-one_by_one');
  await two.waitForFunction(() => document.querySelectorAll('[data-testid="gate"]').length === 2);
  await openPanel(two, 'ledger');
  await Promise.all([tap(one, 'add-gate'), tap(two, 'rule-Mateo')]);
  await one.waitForFunction(() => document.querySelectorAll('[data-testid="gate"]').length === 3);
  await openPanel(two, 'path');
  await two.waitForFunction(() => document.querySelectorAll('[data-testid="gate"]').length === 3);
  await openPanel(two, 'check');
  expect(await textOf(two, 'gate-check')).toContain('No one is at gate 3');
  const { draft } = await call<PacketView>('GET', `/api/packets/${packet.id}`);
  expect([draft.gates.length, draft.rules[0]!.partyIds.includes(deal.parties[1]!.id)]).toEqual([3, false]);
  await one.browserContext().close();
  await two.browserContext().close();
});

/** Findings of axe that keep people out; colour contrast is measured too. */
async function axe(page: Page): Promise<string[]> {
  const source = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
  await page.evaluate(source);
  return page.evaluate(async () => {
    const run = (
      window as unknown as {
        axe: { run(): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> };
      }
    ).axe.run();
    return (await run).violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map(
        (v) =>
          `${v.id}: ${v.nodes
            .map((n) => n.html.slice(0, 160))
            .slice(0, 3)
            .join(' | ')}`,
      );
  });
}

test('assistive tools find nothing serious on the desk, the deal and the ceremony', async () => {
  const page = await open(PHONE);
  const found: string[] = [];
  const look = async () => {
    found.push(...(await axe(page)));
  };
  await look();
  for (const tab of ['printed', 'ledger', 'path', 'check']) {
    await tap(page, `tab-${tab}`);
    await settled(page);
    await look();
  }
  await page.goto(`${server.url}/deals/${deal.id}`);
  await page.waitForSelector(byTestId('packet-row'));
  await settled(page);
  await look();

  const second = await call<PacketView>('POST', `/api/deals/${deal.id}/packets`, {
    name: 'Short',
    documentIds: packet.draft.documents.map((d) => d.id),
  });
  const { version } = await call<{ version: number }>('POST', `/api/packets/${second.id}/edits`, {
    edits: deal.parties.map((p, i) => ({
      op: 'put',
      list: 'marks',
      item: {
        id: `s${i}`,
        documentId: second.draft.documents[0]!.id,
        page: 1,
        kind: 'signature',
        partyId: p.id,
        rect: { x: 72 + i * 240, y: 600, w: 160, h: 28 },
        required: true,
      },
    })),
  });
  await call('POST', `/api/packets/${second.id}/send`, { version });
  const mail = await call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${second.id}`);
  await page.goto(mail.items.find((m) => m.toName === 'Priya Nair')!.link!);
  await page.waitForSelector(byTestId('agree'));
  await settled(page);
  await look();
  await tap(page, 'agree-tick');
  await tap(page, 'agree');
  await page.waitForSelector(byTestId('save-hand'));
  await settled(page);
  await look();
  await tap(page, 'save-hand');
  await page.waitForSelector(byTestId('fill'));
  await settled(page);
  await look();
  expect([...new Set(found)]).toEqual([]);
  await page.browserContext().close();
});
