/** Every tool of the desk, by mouse, thumb and keyboard; and a client who fills every kind of mark. */
import type { ElementHandle } from 'puppeteer-core';
import type { MessageSummary } from '@gatepath/contract';
import type { Mark } from '@gatepath/core/packet';
import { boxOf, byTestId, choose, openPage, PHONE, saved, settled, still, tap, textOf, type, WIDE } from './browser';
import { take } from './at-desk';
import { people, Workplace } from './workplace';

jest.setTimeout(300_000);

let place: Workplace;
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

test('several marks are taken in hand, lined up, copied, repeated and handed on; all of it can be undone', async () => {
  const { packet } = await place.freshPacket('1 Weir Terrace');
  const page = await place.open(WIDE, `/packets/${packet.id}`);
  await take(page, 'kind-text');
  const sheet = await boxOf(page, 'paper');
  const scale = sheet.width / 612;
  const at = (x: number, y: number) => [sheet.x + x * scale, sheet.y + y * scale] as const;
  await page.mouse.click(...at(200, 420));
  await tap(page, 'let-go');
  await page.mouse.click(...at(420, 470));
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-text"]').length === 2);
  // The first one too, with Shift. The page may have scrolled to what came into hand.
  await still(page);
  const other = (await page.$(`${byTestId('mark-text')}[aria-pressed="false"]`))!;
  const first = (await other.boundingBox())!;
  await page.keyboard.down('Shift');
  await page.mouse.click(first.x + first.width / 2, first.y + first.height / 2);
  await page.keyboard.up('Shift');
  await tap(page, 'arrange');
  await choose(page, 'Line up on one line');
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
      const marks = await place.marksOf(packet.id);
      if (marks.length === n) return marks;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`${(await place.marksOf(packet.id)).length} marks where ${n} were expected`);
  };
  const repeated = await all(8);
  expect([...new Set(repeated.map((m) => m.page))].sort()).toEqual([1, 2, 3, 4]);
  expect(new Set(repeated.map((m) => m.rect.x)).size).toBe(2);

  await tap(page, 'hand-to');
  await choose(page, 'Callum Alder');
  const handed = await all(10);
  const { draft } = await place.office.look(packet.id);
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
  const { packet } = await place.freshPacket('2 Weir Terrace');
  const page = await place.open(WIDE, `/packets/${packet.id}`);
  await take(page, 'kind-strike');
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
  const { draft } = await place.office.look(packet.id);
  expect(draft.redlines.map((r) => r.kind)).toEqual(['strike', 'insert']);
  expect(draft.redlines[0]!.text.split(' ').length).toBeGreaterThan(3);
  expect(draft.marks).toEqual([]);
  await tap(page, 'drop-redline');
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-initials"]').length === 4);
  await page.browserContext().close();
});

test('two fingers make the page larger, and a thumb moves what it placed', async () => {
  const { packet } = await place.freshPacket('5 Weir Terrace');
  const page = await place.open(PHONE, `/packets/${packet.id}`);
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
  await take(page, 'kind-signature');
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
  const { packet } = await place.freshPacket('7 Weir Terrace');
  const page = await place.open(PHONE, `/packets/${packet.id}`);
  await take(page, 'kind-signature');
  const sheet = await boxOf(page, 'paper');
  for (const y of [0.55, 0.65]) await page.touchscreen.tap(sheet.x + sheet.width * 0.5, sheet.y + sheet.height * y);
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="mark-signature"]').length === 2);
  await tap(page, 'gather');
  const [first] = await page.$$(byTestId('mark-signature'));
  const box = (await first!.boundingBox())!;
  await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2);
  await page.waitForSelector(byTestId('arrange'));
  await saved(page);
  const before = await place.marksOf(packet.id);
  await first!.focus();
  await page.keyboard.press('ArrowRight');
  for (let i = 0; i < 40 && (await place.marksOf(packet.id))[0]!.rect.x === before[0]!.rect.x; i++)
    await new Promise((r) => setTimeout(r, 100));
  const after = await place.marksOf(packet.id);
  expect(after.map((m, i) => Math.round(m.rect.x - before[i]!.rect.x))).toEqual([1, 1]);
  await page.browserContext().close();
});

test('a client fills every kind on a phone, is told what is wrong, and skips knowingly what may stay empty', async () => {
  const deal = await place.office.deal('6 Weir Terrace', people(2).slice(0, 1));
  const doc = await place.office.paper(
    deal.id,
    'plain.txt',
    Buffer.from('Questions about the house\n\nPlease answer all of them.\n'),
  );
  const packet = await place.office.packet(deal.id, 'Questions', [doc.id]);
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
  const { version } = await place.office.edit(packet.id, [
    put('a', 'money', 150, { label: 'Price asked', check: { min: 1000 } }),
    put('b', 'date', 190, { label: 'Day of the hand-over' }),
    put('c', 'tick', 230, { label: 'Smoke alarms on every floor', required: false }),
    put('d1', 'choice', 260, { group: 'heat', label: 'Gas' }),
    put('d2', 'choice', 280, { group: 'heat', label: 'Wood' }),
    put('e', 'list', 310, { label: 'Water', options: ['Own well', 'Town'] }),
    put('f', 'file', 350, { label: 'Proof of title' }),
    put('g', 'signature', 400),
  ]);
  await place.office.call('POST', `/api/packets/${packet.id}/send`, { version, despiteWarnings: true });
  const mail = await place.office.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?packetId=${packet.id}`);
  const page = await openPage(place.browser, PHONE);
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
  await title('Check: Smoke alarms on every floor');
  await tap(page, 'skip');
  await title('Choose one on page 1');
  await tap(page, 'choose-1');
  await title('Water');
  await tap(page, 'choice-Town');
  await tap(page, 'fill');
  await title('Proof of title');
  const file = (await page.waitForSelector(byTestId('file-for-place'))) as ElementHandle<HTMLInputElement>;
  await file.uploadFile(place.form);
  await title('Sign page 1');
  await tap(page, 'fill');
  await tap(page, 'finish');
  await page.waitForSelector(byTestId('ended'));
  await settled(page);
  const sent = (await place.office.look(packet.id)).sent!;
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
  expect(shown['c']).toBeUndefined();
  await page.browserContext().close();
});
