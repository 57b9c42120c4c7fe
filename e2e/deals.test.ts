/** The deal in real Chromium: what it needs follows its facts, others see it live; the first screen is worked through. */
import type { Page } from 'puppeteer-core';
import type { DealView, MessageSummary, PacketView, SigningView, TodayView } from '@gatepath/contract';
import { addDays } from '@gatepath/core/calendar';
import type { DraftEdit } from '@gatepath/core/packet';
import { paper } from '../server/test/papers';
import { findings } from './axe';
import { byTestId, eventually, settled, tap, type } from './browser';
import { press } from './client';
import { Office } from './office';
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

const people = [
  { side: 'seller' as const, name: 'Wren Alder', email: 'wren@example.com', phone: '555-0101' },
  { side: 'buyer' as const, name: 'Priya Nair', email: 'priya@example.com', phone: '555-0102' },
];

beforeAll(async () => {
  stage = await Stage.set({ CLOCK_FORWARD: '1' });
  ({ server, office, phone, wide, errors } = stage);
  deal = await office.deal('7 Weir Terrace', people);
});
afterAll(async () => {
  await stage?.end();
});

const look = () => office.call<DealView>('GET', `/api/deals/${deal.id}`);
const today = () => office.call<TodayView>('GET', '/api/today');
const shows = (page: Page, testId: string, words: string) =>
  page.waitForFunction(
    (id, text) => document.querySelector(`[data-testid="${id}"]`)?.textContent?.includes(text),
    {},
    testId,
    words,
  );

/** Returns a place to sign for everybody in a draft, on the first page. */
const signatures = (draft: PacketView, documentId: string) =>
  draft.draft.parties.map(({ id: partyId }, i): DraftEdit => ({
    op: 'put',
    list: 'marks',
    item: {
      id: `s${i}`,
      documentId,
      page: 1,
      kind: 'signature',
      partyId,
      rect: { x: 72, y: 640 + 40 * i, w: 160, h: 26 },
      required: true,
    },
  }));

test('a year that turns out to be earlier adds the paper with its reason and its day, and a colleague sees it live', async () => {
  for (const page of [phone, wide]) {
    await page.goto(`${server.url}/deals/${deal.id}`);
    await page.waitForSelector(byTestId('needs'));
  }
  const day = (await look()).today;
  // The day the offer was accepted, set on its post.
  await tap(phone, 'post-accepted');
  await phone.waitForSelector(byTestId('key-date'));
  await phone.$eval(
    byTestId('key-date'),
    (el, value) => {
      const input = el as HTMLInputElement;
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, value);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    },
    day,
  );
  await tap(phone, 'save-date');
  await eventually(async () => expect((await look()).dates.accepted).toBe(day));

  await tap(phone, 'edit-facts');
  await type(phone, 'fact-year_built', '1985');
  await tap(phone, 'save-facts');
  await eventually(async () => expect((await look()).facts['year_built']).toBe(1985));
  await settled(wide);
  expect(await wide.$(byTestId('need-lead_paint'))).toBeNull();

  await tap(phone, 'edit-facts');
  await type(phone, 'fact-year_built', '1972');
  await tap(phone, 'save-facts');
  await shows(phone, 'facts', 'Lead paint disclosure is needed now.');
  // The other screen was not touched.
  await shows(wide, 'need-lead_paint', 'built before 1978');
  const due = (await look()).requirements.find((r) => r.paper === 'lead_paint')!.due!;
  await tap(wide, 'need-lead_paint');
  await shows(wide, 'detail-lead_paint', due.why);
  expect(due.why).toMatch(/: 3 business days after/);
});

test('executing the packet meets it, and readiness follows on an open screen', async () => {
  const doc = await office.paper(deal.id, 'lead.pdf', await paper({ pages: 1, title: 'Lead paint disclosure' }));
  await office.call('PATCH', `/api/documents/${doc.id}`, { type: 'lead_paint' });
  const draft = await office.packet(deal.id, 'Lead paint', [doc.id]);
  await office.edit(draft.id, signatures(draft, doc.id));
  const { version } = await office.look(draft.id);
  packet = await office.call<PacketView>('POST', `/api/packets/${draft.id}/send`, { version, despiteWarnings: true });
  await shows(wide, 'need-lead_paint', 'out: ');
  const before = (await look()).readiness;
  await signBy('Wren Alder');
  await signBy('Priya Nair');
  await wide.waitForFunction(
    (id) => document.querySelector(`[data-testid="${id}"]`)?.getAttribute('aria-label')?.includes('no gap'),
    {},
    'need-lead_paint',
  );
  expect((await look()).readiness.met).toBe(before.met + 1);
  await shows(wide, 'readiness', `${before.met + 1} of ${before.of} done.`);
});

/** Signs with the newest link, as somebody would, but without a screen. */
async function signBy(name: string): Promise<void> {
  const token = await eventually(async () => {
    const { items } = await office.call<{ items: MessageSummary[] }>(
      'GET',
      `/api/mailroom?packetId=${packet.id}&limit=50`,
    );
    const link = items.find((m) => m.toName === name && m.kind === 'ask')?.link;
    if (!link) throw new Error(`${name} was not asked yet`);
    return link.split('/sign/')[1]!;
  });
  const client = new Office(server);
  const at = `/api/signing/${token}`;
  const view = await client.call<SigningView>('GET', at);
  await client.call('POST', `${at}/agreement`, { agreement: view.agreementText.version });
  const initials = name.replace(/[^A-Z]/g, '');
  await client.call('PUT', `${at}/hand`, { form: 'typed', face: 'caveat', signature: name, initials });
  for (const m of view.marks.filter((x) => !x.automatic))
    await client.call('PUT', `${at}/marks/${m.id}`, { actId: `act-${m.id}-${initials}` });
  await client.call('POST', `${at}/finish`, { actId: `finish-${initials}` });
}

test('from the first screen to a nudged hold-up in two touches, with a way back, on a phone', async () => {
  const other = await office.deal('9 Mill Cut', people);
  const doc = await office.paper(other.id, 'p.pdf', await paper({ pages: 1 }));
  const draft = await office.packet(other.id, 'Purchase papers', [doc.id]);
  await office.edit(draft.id, signatures(draft, doc.id));
  const { version } = await office.look(draft.id);
  const sent = await office.call<PacketView>('POST', `/api/packets/${draft.id}/send`, {
    version,
    despiteWarnings: true,
  });
  await office.call('POST', '/api/clock', { hours: 24 });
  const nudges = async () =>
    (await office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${sent.id}&limit=50`)).items.filter(
      (m) => m.kind === 'nudge',
    ).length;
  const before = await nudges();
  // One touch brings the first screen, the second nudges.
  await phone.goto(`${server.url}/deals`);
  await phone.waitForSelector(byTestId('new-deal'));
  await phone.evaluate(() => {
    const links = Array.from(document.querySelectorAll<HTMLElement>('[role="link"]'));
    links.find((e) => e.textContent === 'Today')!.click();
  });
  await tap(phone, 'still-nudge');
  await shows(phone, 'done-row', 'Nudged');
  await press(phone, 'Undo');
  await phone.waitForSelector(byTestId('still-nudge'));
  expect(await nudges()).toBe(before);
  await tap(phone, 'still-nudge');
  await eventually(async () => expect(await nudges()).toBe(before + 1));
});

test('what came through is put away and taken back', async () => {
  await phone.goto(`${server.url}/today`);
  await shows(phone, 'through', 'Lead paint, 7 Weir Terrace');
  await tap(phone, 'put-away');
  await eventually(async () => expect((await today()).through.items).toEqual([]));
  await press(phone, 'Undo');
  await eventually(async () => expect((await today()).through.items).toHaveLength(1));
});

test('a rule is written with the keyboard alone, and says in which deals it would ask before it is kept', async () => {
  await wide.goto(`${server.url}/rules/new`);
  await wide.waitForSelector(byTestId('trial'));
  await type(wide, 'rule-title', 'Shared drive agreement');
  await type(wide, 'rule-reason', 'the drive is shared');
  await wide.focus(byTestId('add-condition'));
  await wide.keyboard.press('Enter');
  await wide.waitForSelector(byTestId('pick-association'));
  // First letters lead to an item, once the list has the focus.
  await wide.waitForFunction(() => document.activeElement?.closest('[role="menu"]'));
  await wide.keyboard.type('Asso');
  await wide.waitForFunction(() => document.activeElement?.getAttribute('data-testid') === 'pick-association');
  await wide.keyboard.press('Enter');
  await shows(wide, 'trial', 'In 2 a fact it depends on is not known.');
  await wide.focus(byTestId('save-rule'));
  await wide.keyboard.press('Enter');
  await wide.waitForSelector(byTestId('rule-row'));
  expect(
    await wide.$$eval(byTestId('rule-row'), (rows) => rows.some((r) => r.textContent?.includes('Shared drive'))),
  ).toBe(true);
  await eventually(async () => expect((await look()).asked.map((a) => a.fact)).toContain('association'));
});

test('a paper is waived by name and reason, and its deal is told', async () => {
  await office.call('PATCH', `/api/deals/${deal.id}`, { facts: { association: true } });
  await wide.goto(`${server.url}/deals/${deal.id}`);
  await tap(wide, 'need-association');
  await tap(wide, 'waive');
  await type(wide, 'waive-reason', 'dissolved in May');
  await tap(wide, 'waive-now');
  await shows(wide, 'activity', 'Odile Farrant waived “Association papers”: dissolved in May');
});

test('on a wide screen forty deals stand on the first screen without scrolling', async () => {
  const day = (await look()).today;
  for (let i = 1; i <= 40; i++) {
    const d = await office.deal(`${i} Lantern Row`, []);
    await office.call('PATCH', `/api/deals/${d.id}`, {
      facts: { year_built: 1950 + i },
      dates: { accepted: addDays(day, -(i % 9)), closing: addDays(day, i) },
    });
  }
  await wide.goto(`${server.url}/today`);
  await wide.waitForSelector(byTestId('week'));
  await settled(wide);
  const over = await wide.evaluate(() =>
    Array.from(document.querySelectorAll('*'))
      .filter((e) => ['auto', 'scroll'].includes(getComputedStyle(e).overflowY))
      .map((e) => e.scrollHeight - e.clientHeight)
      .filter((n) => n > 0),
  );
  expect(over).toEqual([]);
});

test('axe finds nothing on these screens, and none of them fell over', async () => {
  for (const page of [phone, wide])
    for (const path of ['/today', `/deals/${deal.id}`, '/rules', '/rules/sample-sale-water', '/deals/new']) {
      await page.goto(server.url + path);
      await settled(page);
      expect([path, await findings(page)]).toEqual([path, []]);
    }
  expect(errors).toEqual([]);
});
