/** The whole slice on a phone, from setting up the firm to the sealed copy, in real Chromium. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { MessageSummary, PacketView } from '@gatepath/contract';
import { actsOn, byTestId, chooseFile, did, launch, openPage, PHONE, settled, tap, textOf, type } from './browser';
import { take } from './at-desk';
import { download, judgedFile, verify } from './proof';
import { sound } from '../server/test/judges';
import { ServerProcess } from './server';

jest.setTimeout(300_000);

const PAGES = 12;
const PEOPLE = [
  { side: 'seller', name: 'Wren Alder', email: 'alders@example.com', initials: 'WA', x: 0.18 },
  { side: 'seller', name: 'Callum Alder', email: 'alders@example.com', initials: 'CA', x: 0.5 },
  { side: 'listing_broker', name: 'Tobias Mercer', email: 'tobias@example.com', initials: 'TM', x: 0.82 },
] as const;

let server: ServerProcess;
let browser: Browser;
let phone: Page;
const errors: string[] = [];
let pdf: string;

beforeAll(async () => {
  server = await ServerProcess.start({}, { embedded: true });
  browser = await launch();
  phone = await openPage(browser, PHONE);
  phone.on('pageerror', (e) => errors.push(String(e)));
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 1; n <= PAGES; n++) {
    const page = doc.addPage([612, 792]);
    for (let y = 720; y > (n === PAGES ? 420 : 110); y -= 16)
      page.drawText('The sellers keep the property insured and fit to be shown until it is handed over.', {
        x: 72,
        y,
        size: 11,
        font,
      });
    page.drawText(`Listing papers, page ${n} of ${PAGES}`, { x: 72, y: 40, size: 9, font });
  }
  pdf = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-pdf-')), 'Listing papers.pdf');
  writeFileSync(pdf, await doc.save());
});

afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

const api = <T>(page: Page, url: string): Promise<T> =>
  page.evaluate(async (u) => (await fetch(u)).json() as Promise<never>, url) as Promise<T>;
/**
 * Seconds that what a newcomer does takes, after the keystroke-level model of Card, Moran and Newell: before every touch
 * they think (1.35 s; a practised hand thinks once for several), reach for it (1.1 s) and press (0.2 s); letters come as
 * from somebody to whom the keyboard is unfamiliar. A new screen is looked over first.
 */
const A_NEWCOMER = { touch: 1.35 + 1.1 + 0.2, letter: 0.5, screen: 5 };
/** The deal to be written, the deal, the desk, the sending. */
const SCREENS = 4;
/** What had been done when the deal was begun. */
let begun = { touches: 0, letters: 0 };
const packetId = () => phone.url().split('/packets/')[1]!.split('?')[0]!;
let packet = '';

test('the coordinator sets up, opens a deal, adds people and a paper', async () => {
  await phone.goto(server.url);
  await type(phone, 'field-firmName', 'Towpath & Vane Realty');
  await type(phone, 'field-timeZone', 'America/New_York');
  await type(phone, 'field-name', 'Odile Farrant');
  await type(phone, 'field-email', 'odile@example.com');
  await type(phone, 'field-password', 'a long password');
  await tap(phone, 'set-up');
  begun = actsOn(phone);
  await tap(phone, 'new-deal');
  await type(phone, 'field-address', '14 Lantern Row');
  await type(phone, 'field-city', 'Tern Lock');
  await tap(phone, 'open-deal');
  for (const [i, p] of PEOPLE.entries()) {
    await phone.waitForSelector(byTestId('field-name'));
    // Whoever is added next is first taken to be on the side of the one before.
    if (i === 0 || PEOPLE[i - 1]!.side !== p.side) {
      await tap(phone, 'side');
      await tap(phone, `side-${p.side}`);
    }
    await type(phone, 'field-name', p.name);
    await type(phone, 'field-email', p.email);
    await tap(phone, 'save-party');
    await phone.waitForFunction(
      (n: number) => document.querySelectorAll('[data-testid="person-row"]').length === n,
      {},
      i + 1,
    );
  }
  await chooseFile(phone, 'file-input', pdf);
  did(phone, 3, 0); // to add a paper, to choose where from, and the file
  await phone.waitForFunction(() =>
    /12 pages/.test(document.querySelector('[data-testid="document-row"]')?.textContent ?? ''),
  );
  expect(errors).toEqual([]);
});

test('at the desk every page gets everyone’s initials by rule, and the gate check comes clean', async () => {
  await tap(phone, 'new-packet');
  await tap(phone, 'start-packet');
  await phone.waitForSelector(byTestId('sheet'));
  packet = packetId();
  await tap(phone, 'tab-ledger');
  for (const p of PEOPLE) await tap(phone, `rule-${p.name.split(' ')[0]}`);
  await phone.waitForFunction(
    () => document.querySelector('[data-testid="ledger-sum"]')?.textContent === '36 of 36 placed',
  );
  await tap(phone, `cell-${PAGES}-initials`);
  await take(phone, 'kind-signature');
  const paper = (await phone.waitForSelector(byTestId('paper')))!;
  await settled(phone);
  const box = (await paper.boundingBox())!;
  for (const p of PEOPLE) {
    await take(phone, `take-${p.name.split(' ')[0]}`);
    await phone.touchscreen.tap(box.x + box.width * p.x, box.y + box.height * 0.6);
    did(phone, 1, 0);
  }
  await phone.waitForFunction(() => document.querySelectorAll('[data-testid="mark-signature"]').length === 3);
  await tap(phone, 'tab-check');
  await phone.waitForSelector(byTestId('check-clean'));
  await phone.waitForFunction(() =>
    /· Saved/.test(document.querySelector('[data-testid="saving"]')?.textContent ?? ''),
  );
  const view = await api<PacketView>(phone, `/api/packets/${packet}`);
  expect(view.draft.gates.map((g) => g.partyIds.length)).toEqual([2, 1]);
  expect(errors).toEqual([]);
});

test('only the sellers are asked; the broker’s link does not exist before their gate is passed', async () => {
  await tap(phone, 'send');
  await tap(phone, 'send-now');
  await phone.waitForFunction(() =>
    /At gate 1 of 2/.test(document.querySelector('[data-testid="packet-state"]')?.textContent ?? ''),
  );
  const mail = await api<{ items: MessageSummary[] }>(phone, '/api/mailroom');
  expect(mail.items.map((m) => m.toName).sort()).toEqual(['Callum Alder', 'Wren Alder']);
});

test('from the address of a deal to its first packet sent, a newcomer is busy for less than three minutes', () => {
  const { touches, letters } = actsOn(phone);
  const by = { touches: touches - begun.touches, letters: letters - begun.letters };
  // Three people, a paper of twelve pages, thirty-six initials and three signatures.
  expect(by.touches).toBeGreaterThan(25);
  const seconds = by.touches * A_NEWCOMER.touch + by.letters * A_NEWCOMER.letter + SCREENS * A_NEWCOMER.screen;
  expect(seconds).toBeLessThan(180);
});

/** Signs as one client on their own phone: agreement, hand, place after place, finish. */
async function signOnPhone(name: string, draw: boolean): Promise<number> {
  const mail = await api<{ items: MessageSummary[] }>(phone, '/api/mailroom?limit=50');
  const link = mail.items.find((m) => m.toName === name && m.kind === 'ask')!.link!;
  const page = await openPage(browser, PHONE);
  page.on('pageerror', (e) => errors.push(String(e)));
  await page.goto(link);
  await page.waitForSelector(byTestId('agree'));
  expect(await page.evaluate(() => document.body.textContent)).toContain(`You are signing as ${name.split(' ')[0]}`);
  await tap(page, 'agree');
  expect(await page.evaluate(() => document.body.textContent)).toContain('Please check the box');
  await tap(page, 'agree-tick');
  await tap(page, 'agree');
  await page.waitForSelector(byTestId('save-hand'));
  if (draw) {
    await tap(page, 'choice-drawn');
    for (const id of ['pad-signature', 'pad-initials']) {
      const pad = (await page.waitForSelector(byTestId(id)))!;
      await pad.scrollIntoView();
      const b = (await pad.boundingBox())!;
      await page.mouse.move(b.x + 30, b.y + 40);
      await page.mouse.down();
      for (let i = 0; i < 12; i++) await page.mouse.move(b.x + 30 + i * 14, b.y + 50 + 30 * Math.sin(i));
      await page.mouse.up();
    }
  }
  await tap(page, 'save-hand');
  let initials = 0;
  for (;;) {
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="fill"]:not([aria-disabled="true"]), [data-testid="finish"]'),
    );
    if (await page.$(byTestId('finish'))) break;
    const left = await textOf(page, 'left');
    if ((await textOf(page, 'place-title')).startsWith('Initial')) initials++;
    await tap(page, 'fill');
    await page.waitForFunction(
      (was: string) => document.querySelector('[data-testid="left"]')?.textContent !== was,
      {},
      left,
    );
  }
  await tap(page, 'finish');
  await page.waitForSelector(byTestId('ended'));
  await page.browserContext().close();
  return initials;
}

test('each of the 36 initials is an act of its own; the coordinator’s page fills up by itself', async () => {
  expect(await signOnPhone('Wren Alder', false)).toBe(PAGES);
  await phone.waitForFunction(
    () => document.querySelector('[data-testid="ledger-sum"]')?.textContent === '13 of 39 done',
  );
  expect(await signOnPhone('Callum Alder', true)).toBe(PAGES);
  await phone.waitForFunction(() =>
    /At gate 2 of 2/.test(document.querySelector('[data-testid="packet-state"]')?.textContent ?? ''),
  );
  expect(await signOnPhone('Tobias Mercer', false)).toBe(PAGES);
  await phone.waitForSelector(byTestId('download-sealed'), { timeout: 60_000 });
  expect(await textOf(phone, 'ledger-sum')).toBe('39 of 39 done');
  expect(await phone.$$eval('[data-testid$="-gap"]', (all) => all.length)).toBe(0);
  expect(errors).toEqual([]);
});

test('the sealed copy convinces other people’s tools, and one flipped byte is found', async () => {
  const view = await api<PacketView>(phone, `/api/packets/${packet}`);
  const url = `/api/packets/${packet}/sealed/${view.sent!.sealed![0]!.documentId}`;
  const file = await download(phone, url, path.join(path.dirname(pdf), 'sealed.pdf'));
  // A seal for each person, and the record's.
  expect(judgedFile(file)).toEqual(sound(PEOPLE.length + 1));
  for (let n = 1; n <= PAGES; n++) {
    const text = execFileSync('pdftotext', ['-f', String(n), '-l', String(n), file, '-']).toString();
    for (const p of PEOPLE) expect(text).toMatch(new RegExp(`\\b${p.initials}\\b`));
  }
  const whole = verify(file);
  expect([whole.status, whole.stdout.toString()]).toEqual([
    0,
    expect.stringContaining('sealed by  Towpath & Vane Realty'),
  ]);
  const bytes = readFileSync(file);
  bytes[Math.floor(bytes.length / 3)]! ^= 1;
  writeFileSync(file, new Uint8Array(bytes));
  expect(verify(file).status).toBe(1);
});
