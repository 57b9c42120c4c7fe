/** Preparing a packet as a coordinator does: from a form with printed places to a clean gate check, and its pages. */
import type { ElementHandle } from 'puppeteer-core';
import { byTestId, choose, saved, tap, textOf, PHONE, WIDE } from './browser';
import { openPanel } from './at-desk';
import { LONG_PAGES } from './long-form';
import { people, Workplace } from './workplace';

jest.setTimeout(300_000);

let place: Workplace;
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

test.each([
  ['a phone', PHONE, 2],
  ['a phone', PHONE, 5],
  ['a wide screen', WIDE, 2],
  ['a wide screen', WIDE, 5],
] as const)(
  'on %s a 14-page form goes from import to a clean gate check in at most 12 acts (%#)',
  async (_where, viewport, sellers) => {
    const deal = await place.office.deal(`${sellers} Lantern Row`, people(sellers));
    const page = await place.open(viewport, `/deals/${deal.id}`);
    let acts = 0;
    const act = async (testId: string) => {
      acts++;
      await tap(page, testId);
    };
    acts++;
    const input = (await page.waitForSelector(byTestId('file-input'))) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(place.form);
    await page.waitForSelector(byTestId('document-row'));
    await act('new-packet');
    await act('start-packet');
    // The check says in one line what is missing, with a button that places it.
    await act('check-fix');
    await page.waitForFunction(
      (q) => document.querySelector(q)?.textContent === 'Nothing is missing. Ready to send.',
      {},
      byTestId('check-line'),
    );
    expect(acts).toBeLessThanOrEqual(12);
    await saved(page);

    const id = page.url().split('/').pop()!;
    const { draft } = await place.office.look(id);
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
    await openPanel(page, 'ledger');
    expect(await textOf(page, 'ledger-sum')).toBe(
      `${(sellers + 2) * LONG_PAGES} of ${(sellers + 2) * LONG_PAGES} placed`,
    );
    await page.browserContext().close();
  },
);

test.each([
  ['a phone', PHONE],
  ['a wide screen', WIDE],
] as const)(
  'on %s an uncertain place names both readings, and one touch gives it to the other person',
  async (_, view) => {
    const deal = await place.office.deal('4 Weir Terrace', people(2));
    const clause = 'The house is handed over as it stands, and nothing else was said about it by either party.';
    // The form gives the seller the name of the other party: whose line it is has to be asked.
    const text = [
      'This agreement is made by Marlow Pike, the seller (“Buyer”), with effect from today.',
      ...Array<string>(8).fill(clause),
      'Buyer 1 signature: ______________________________   Date: ______________',
    ].join('\n\n');
    const doc = await place.office.paper(deal.id, 'odd.txt', Buffer.from(text));
    const packet = await place.office.packet(deal.id, 'Odd', [doc.id]);
    const page = await place.open(view, `/packets/${packet.id}`);
    await openPanel(page, 'printed');
    await page.waitForSelector(byTestId('either-other'));
    expect(await textOf(page, 'printed-panel')).toContain('signature of Юрий or of Wren?');
    await tap(page, 'either-other');
    await saved(page);
    const { draft } = await place.office.look(packet.id);
    const seller = draft.parties.find((p) => p.side === 'seller' && p.ordinal === 1);
    for (const kind of ['signature', 'date_signed'])
      expect(draft.marks.filter((m) => m.kind === kind).map((m) => m.partyId)).toEqual([seller?.id]);
    await page.browserContext().close();
  },
);

test('pages are left out and a file replaced, and marks stay with their pages', async () => {
  const { packet, doc } = await place.freshPacket('3 Weir Terrace');
  const page = await place.open(WIDE, `/packets/${packet.id}`);
  await openPanel(page, 'printed');
  await tap(page, 'accept-all');
  await saved(page);
  await tap(page, 'all-pages');
  await tap(page, 'change-pages');
  await tap(page, 'out-2');
  await tap(page, 'apply-pages');
  await page.waitForFunction(() => /page 1 of 13/.test(document.body.textContent ?? ''), { timeout: 60_000 });
  await saved(page);
  let { draft } = await place.office.look(packet.id);
  expect(draft.documents.map((d) => d.id)).not.toContain(doc.id);
  expect(Math.max(...draft.marks.map((m) => m.page))).toBe(13);
  expect(draft.marks.filter((m) => m.kind === 'signature').every((m) => m.page === 13)).toBe(true);
  // The whole form again, as a file of its own: the pages are told by their words.
  await openPanel(page, 'path');
  await tap(page, 'document-more-0');
  const [chooser] = await Promise.all([page.waitForFileChooser(), choose(page, 'Replace the file')]);
  await chooser.accept([place.form]);
  await page.waitForFunction(() => document.body.textContent!.includes('every page was found again'), {
    timeout: 60_000,
  });
  await saved(page);
  ({ draft } = await place.office.look(packet.id));
  expect(draft.marks.filter((m) => m.kind === 'signature').every((m) => m.page === 14)).toBe(true);
  expect([...new Set(draft.marks.filter((m) => m.kind === 'initials').map((m) => m.page))]).not.toContain(2);
  await page.browserContext().close();
});

test('five sellers on a full page with two lines: a page for further signatures takes the others, in one touch', async () => {
  const sellers = people(5).filter((p) => p.side === 'seller');
  const deal = await place.office.deal('9 Weir Terrace', sellers);
  const line = 'The sellers leave the house as it stands and take nothing along that is fixed to a wall of it.';
  const blank = (n: number) =>
    `Seller ${n}: ______________________ Date: ______________ here in Tern Lock, at the broker’s.`;
  const text = [...Array(12).fill(line), blank(1), blank(2), ...Array(60).fill(line)].join('\n');
  const doc = await place.office.paper(deal.id, 'terms.txt', Buffer.from(text));
  const packet = await place.office.packet(deal.id, 'Terms', [doc.id]);
  const page = await place.open(PHONE, `/packets/${packet.id}`);
  await tap(page, 'tab-printed');
  await tap(page, 'accept-all');
  await tap(page, 'add-further');
  await page.waitForFunction(() => !document.querySelector('[data-testid="add-further"]'), { timeout: 60_000 });
  await saved(page);
  await tap(page, 'tab-check');
  await page.waitForSelector(byTestId('check-clean'));
  const { draft, documents } = await place.office.look(packet.id);
  const signed = draft.marks.filter((m) => m.kind === 'signature');
  expect(draft.parties.map((p) => signed.filter((m) => m.partyId === p.id).length)).toEqual(Array(5).fill(1));
  const last = documents.find((d) => d.id === draft.documents[0]!.id)!.pages.length;
  expect(signed.filter((m) => m.page === last)).toHaveLength(3);
  await page.browserContext().close();
});

test('two documents are made one and that one two again, and everything prepared on them stays', async () => {
  const deal = await place.office.deal('8 Weir Terrace', people(2));
  const one = await place.office.paper(deal.id, 'one.pdf', place.bytes);
  const two = await place.office.paper(
    deal.id,
    'two.txt',
    Buffer.from('A short paper\n\nBuyer: ______________________ Date: __________\n'),
  );
  const packet = await place.office.packet(deal.id, 'Both', [one.id, two.id]);
  const page = await place.open(WIDE, `/packets/${packet.id}`);
  await openPanel(page, 'printed');
  await tap(page, 'accept-all');
  await saved(page);
  const before = (await place.marksOf(packet.id)).length;
  const documents = async (n: number) => {
    for (let i = 0; i < 200; i++) {
      const { draft } = await place.office.look(packet.id);
      if (draft.documents.length === n) return draft;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`the packet never had ${n} documents`);
  };
  await openPanel(page, 'path');
  await tap(page, 'document-more-0');
  await choose(page, 'Join with two');
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
  const { packet, deal } = await place.freshPacket('4 Weir Terrace');
  const page = await place.open(PHONE, `/packets/${packet.id}`);
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
  expect((await place.office.look(packet.id)).status).toBe('drafting');
  await page.browserContext().close();
});
