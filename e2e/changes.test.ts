/** What changed from one version of a paper to the next: at the desk, and for whoever signed the earlier one. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import type { DealView } from '@gatepath/contract';
import { counteroffer } from '../server/test/counter';
import { findings } from './axe';
import { byTestId, chooseFile, openPage, PHONE, settled, tap, textOf, WIDE } from './browser';
import { finish, signThrough } from './client';
import { Workplace } from './workplace';

jest.setTimeout(300_000);

let place: Workplace;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-changes-'));
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

/** Returns a packet of one paper to the buyer; her link. */
async function asked(dealId: string, documentId: string): Promise<string> {
  const { office } = place;
  const { id, draft } = await office.packet(dealId, 'Counteroffer', [documentId]);
  const [party] = draft.parties;
  const { version } = await office.edit(id, [
    {
      op: 'put',
      list: 'marks',
      item: {
        id: 's',
        documentId,
        page: 1,
        kind: 'signature',
        partyId: party!.id,
        rect: { x: 72, y: 500, w: 160, h: 26 },
        required: true,
      },
    },
  ]);
  await office.call('POST', `/api/packets/${id}/send`, { version });
  return office.link(id, 'Henrike Osei');
}

const rows = (page: Page) => page.$$eval(byTestId('change'), (all) => all.map((e) => e.textContent));

test('a counteroffer with one sum changed shows that one change, to the office and to whoever signed the first', async () => {
  const { office } = place;
  const deal = await office.deal('5 Lantern Row', [
    { side: 'buyer', name: 'Henrike Osei', email: 'henrike@example.com' },
  ]);
  const bytes = (sum: string) => counteroffer({ sum, line: '' });
  const first = await office.paper(deal.id, 'Counteroffer.pdf', await bytes('$410,000'));
  const client = await openPage(place.browser, PHONE);
  await client.goto(await asked(deal.id, first.id));
  expect(await signThrough(client)).toBe(1);
  await finish(client);
  expect(await client.$(byTestId('revised'))).toBeNull();

  const revised = path.join(dir, 'Counteroffer revised.pdf');
  writeFileSync(revised, await bytes('$415,000'));
  const desk = await place.open(WIDE, `/deals/${deal.id}`);
  await desk.waitForSelector(byTestId('document-row'));
  // There is no earlier version yet.
  expect(await desk.$(byTestId('what-changed'))).toBeNull();
  await chooseFile(desk, 'file-input', revised);
  await tap(desk, 'takes-place');
  await desk.waitForFunction(() => document.querySelectorAll('[data-testid="document-row"]').length === 1);
  // There is a way back from that.
  await tap(desk, 'keep-both');
  await tap(desk, 'takes-place');
  await desk.waitForSelector(byTestId('keep-both'));
  await tap(desk, 'what-changed');
  await desk.waitForSelector(byTestId('page-pair'));
  expect(await textOf(desk, 'changes-sum')).toBe('1 change');
  const [row] = await rows(desk);
  expect(row).toContain('The price shall be $410,000 $415,000 payable at closing.');
  expect(await desk.$$eval(`${byTestId('page-pair')} img`, (all) => all.length)).toBe(2);
  await settled(desk);
  expect(await findings(desk)).toEqual([]);

  const now = (await office.call<DealView>('GET', `/api/deals/${deal.id}`)).documents.find((d) => !d.replacedBy)!;
  await client.goto(await asked(deal.id, now.id));
  await tap(client, 'agree-tick');
  await tap(client, 'agree');
  await client.waitForSelector(byTestId('revised-change'));
  await settled(client);
  expect(await findings(client)).toEqual([]);
  const seen = await client.$$eval(byTestId('revised-change'), (all) => all.map((e) => e.textContent));
  expect(seen).toEqual([expect.stringContaining('$410,000 $415,000')]);
  await tap(client, 'seen-changes');
  await tap(client, 'save-hand');
  expect(await signThrough(client)).toBe(1);
  await finish(client);
});

test('on a phone a change is opened where it stands, before and now; pages that are new say so', async () => {
  const { office } = place;
  const deal = await office.deal('6 Lantern Row', []);
  const clauses = ['The buyer pays for the survey.', 'The seller has the chimney swept before the day of closing.'];
  const was = await office.paper(deal.id, 'Offer.pdf', await counteroffer({ sum: '$1', clauses }));
  const more = Array.from({ length: 40 }, (_, i) => `Further clause ${'x'.repeat(i)} is kept by both until it ends.`);
  const now = await office.paper(
    deal.id,
    'Offer two.pdf',
    await counteroffer({ sum: '$1', clauses: [...clauses.slice(0, 1), ...more, ...clauses.slice(1)] }),
  );
  const phone = await place.open(PHONE, `/changes/${now.id}/${was.id}`);
  await phone.waitForSelector(byTestId('change'));
  await settled(phone);
  expect(await findings(phone)).toEqual([]);
  expect(await rows(phone)).toEqual([expect.stringMatching(/^1\. Put in, page 1/)]);
  const desk = await place.open(WIDE, `/changes/${now.id}/${was.id}`);
  await desk.waitForSelector(`${byTestId('page-pair')} img`);
  const pair = () => textOf(desk, 'page-pair');
  await desk.click('[aria-label="Next pages"]');
  await desk.waitForFunction(() => /This page is new|Before, page/.test(document.body.textContent ?? ''));
  expect(await pair()).toContain('2 of 2');
});
