/** Papers that are pictures: photographed on a phone, scanned at the desk, come back signed by hand. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import type { DealView, PackedFacts } from '@gatepath/contract';
import { sure } from '@gatepath/core/sure';
import { filledIn } from '../server/test/filled';
import { chance, drawn, lease, scanOf } from '../server/test/scan';
import { HELD, photographOf } from '../server/test/photograph';
import { sound } from '../server/test/judges';
import { findings } from './axe';
import { byTestId, eventually, openPage, PHONE, saved, settled, still, tap, textOf, type } from './browser';
import { finish, signThrough } from './client';
import { download, judgedFile } from './proof';
import { Workplace } from './workplace';

jest.setTimeout(400_000);

let place: Workplace;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-scans-'));
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

const PEOPLE = [
  { side: 'landlord' as const, name: 'Wren Alder', email: 'wren@example.com' },
  { side: 'tenant' as const, name: 'Callum Alder', email: 'callum@example.com' },
];

async function files(page: Page, testId: string, names: string[]): Promise<void> {
  const input = (await page.waitForSelector(byTestId(testId))) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(...names);
}

/** Opens a person's newest link and does everything there is to do. */
async function signs(packetId: string, name: string): Promise<number> {
  const link = await place.office.link(packetId, name);
  const page = await openPage(place.browser, PHONE);
  await page.goto(link);
  const n = await signThrough(page);
  await finish(page);
  await page.browserContext().close();
  return n;
}

/** Returns the sealed copy of a packet's only paper, once everybody has signed. */
async function sealed(page: Page, packetId: string): Promise<string> {
  const documentId = await eventually(async () => {
    const view = await place.office.look(packetId);
    if (view.status !== 'executed') throw new Error(view.status);
    return sure(view.sent?.sealed?.[0], 'the sealed copy').documentId;
  });
  const file = path.join(dir, `${packetId}.pdf`);
  return download(page, `/api/packets/${packetId}/sealed/${documentId}`, file);
}

test('a photographed form of three pages becomes a signed and sealed packet on a phone', async () => {
  const pictures: string[] = [];
  for (const [i, page] of (await drawn(await lease({ pages: 3, initials: true }), 200)).entries()) {
    const file = path.join(dir, `IMG_${i + 1}.jpg`);
    // The second one is laid a little otherwise.
    const held = i === 1 ? (HELD.map((c) => ({ x: c.x * 0.96 + 0.02, y: c.y * 0.94 + 0.03 })) as typeof HELD) : HELD;
    writeFileSync(file, await photographOf(page, held));
    pictures.push(file);
  }
  const deal = await place.office.deal('5 Lantern Row', PEOPLE);
  const phone = await place.open(PHONE, `/deals/${deal.id}`);
  await files(phone, 'photograph-input', pictures);
  await phone.waitForFunction(() => document.querySelectorAll('[data-testid="photograph-page"]').length === 3);
  expect(await phone.$(byTestId('photograph-trouble'))).toBeNull();
  // The sheet was found: its corners are not those of the picture.
  const corner = await phone.$eval(byTestId('corner-1-0'), (e) => e.getAttribute('aria-label')!);
  expect(corner).toMatch(/Top left corner of page 1: 1[123] % across, (?:8|9|10) % down/);
  await still(phone);
  await (await phone.waitForSelector(byTestId('photograph-page')))!.scrollIntoView();
  expect(await findings(phone)).toEqual([]);
  // An arrow key moves a corner, as a finger does.
  await phone.focus(byTestId('corner-1-0'));
  for (let i = 0; i < 8; i++) await phone.keyboard.press('ArrowDown');
  expect(await phone.$eval(byTestId('corner-1-0'), (e) => e.getAttribute('aria-label')!)).not.toBe(corner);
  for (let i = 0; i < 8; i++) await phone.keyboard.press('ArrowUp');
  await type(phone, 'photograph-name', 'Lease of Lantern Row');
  await tap(phone, 'photograph-make');
  await phone.waitForFunction(() => /Scan: recognizing/.test(document.body.textContent ?? ''), { timeout: 60_000 });
  const doc = await eventually(async () => {
    const { documents } = await place.office.call<DealView>('GET', `/api/deals/${deal.id}`);
    return sure(
      documents.find((d) => !d.replacedBy && d.status === 'ready'),
      'the paper',
    );
  }, 200);
  expect([doc.name, doc.pages.length, doc.scanned]).toEqual(['Lease of Lantern Row', 3, 3]);
  await phone.waitForFunction(() => !/Scan: recognizing/.test(document.body.textContent ?? ''), { timeout: 60_000 });

  await tap(phone, 'new-packet');
  await tap(phone, 'start-packet');
  await tap(phone, 'tab-printed');
  await tap(phone, 'accept-all');
  await saved(phone);
  const id = phone.url().split('/').pop()!;
  const { draft } = await place.office.look(id);
  const kinds = (name: string) => {
    const party = draft.parties.find((p) => p.name === name)!;
    return draft.marks
      .filter((m) => m.partyId === party.id)
      .map((m) => `${m.kind} ${m.page}`)
      .sort();
  };
  for (const { name } of PEOPLE)
    expect(kinds(name)).toEqual(['date_signed 3', 'initials 1', 'initials 2', 'initials 3', 'signature 3']);
  await tap(phone, 'tab-check');
  await phone.waitForSelector(byTestId('check-clean'));
  await tap(phone, 'send');
  await tap(phone, 'send-now');
  for (const { name } of PEOPLE) expect(await signs(id, name)).toBe(4);
  expect(judgedFile(await sealed(phone, id))).toEqual(sound(3));
  await phone.browserContext().close();
});

test('a scan that came back with two initials missing goes back for just those two, to one person, and counts', async () => {
  const blank = await lease({ pages: 3, initials: true });
  const deal = await place.office.deal('6 Lantern Row', PEOPLE, 'tenancy');
  const empty = await place.office.paper(deal.id, 'Lease.pdf', blank);
  const { places: form } = await place.office.call<PackedFacts>('GET', `/api/documents/${empty.id}/facts`);
  const missing = form.filter((p) => p.kind === 'initials' && p.role === 'tenant' && p.page < 3);
  expect(missing).toHaveLength(2);
  const signed = await filledIn(
    blank,
    form.filter((p) => !missing.includes(p)),
    chance(4),
  );
  const back = await place.office.paper(deal.id, 'Lease signed.pdf', (await scanOf(signed)).bytes);
  const phone = await place.open(PHONE, `/deals/${deal.id}/back/${back.id}`);
  await tap(phone, 'blank');
  await phone.waitForSelector(byTestId('gaps-sum'), { timeout: 60_000 });
  await settled(phone);
  expect(await findings(phone)).toEqual([]);
  expect(await textOf(phone, 'gaps-sum')).toContain('2 places are empty');
  const rows = await phone.$$eval(byTestId('place-no'), (all) => all.map((e) => e.textContent));
  expect(rows.map((t) => /Initials, Tenant/.test(t ?? ''))).toEqual([true, true]);
  expect(await phone.$(byTestId('place-doubtful'))).toBeNull();
  await (await phone.waitForSelector(byTestId('place-no')))!.scrollIntoView();
  await settled(phone);

  await tap(phone, 'send-back');
  await phone.waitForFunction(() => /\/packets\//.test(location.pathname));
  const id = phone.url().split('/').pop()!;
  const { draft } = await place.office.look(id);
  expect(draft.parties.map((p) => p.name)).toEqual(['Callum Alder']);
  expect(draft.marks.map((m) => [m.kind, m.page])).toEqual([
    ['initials', 1],
    ['initials', 2],
  ]);
  await tap(phone, 'send');
  await tap(phone, 'send-now');
  expect(await signs(id, 'Callum Alder')).toBe(2);
  expect(judgedFile(await sealed(phone, id))).toEqual(sound(2));
  // The empty form lies beside it; the one that was executed is what the lease of a tenancy asks for, from both of them.
  await eventually(async () => {
    const { requirements } = await place.office.call<DealView>('GET', `/api/deals/${deal.id}`);
    const asked = sure(
      requirements.find((r) => r.paper === 'lease'),
      'what the rules ask',
    );
    expect([asked.signers, asked.state, asked.documentId]).toEqual([['landlord', 'tenant'], 'met', back.id]);
  });
  await phone.goto(`${place.server.url}/deals/${deal.id}/back/${back.id}`);
  expect(await textOf(phone, 'check-ended')).toContain('A packet asks for what is missing');
  await phone.browserContext().close();
});
