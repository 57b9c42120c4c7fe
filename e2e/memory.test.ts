/** A paper that was sent before: its marks are offered in the next deal, placed and removed in one touch, on phone and wide. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import type { PackedFacts } from '@gatepath/contract';
import type { Mark } from '@gatepath/core/packet';
import { counteroffer } from '../server/test/counter';
import { findings } from './axe';
import { byTestId, chooseFile, eventually, PHONE, settled, tap, textOf, WIDE } from './browser';
import { Workplace } from './workplace';

jest.setTimeout(300_000);

let place: Workplace;
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

const CLAUSES = [
  'The seller accepts the offer of the buyer with the changes that are written here and with no others.',
  'The buyer shall have ten days to inspect the roof, the boiler and the well of the house.',
  'The seller leaves the stove, the blinds and the shed where they are now, in the order they are in.',
];
const bytes = (extra = 'No other terms are changed by this counteroffer of the seller.') =>
  counteroffer({ sum: '$410,000', clauses: [...CLAUSES, extra], line: 'Buyer signature: ____________________' });
/** A clause by which a paper is another edition. */
const EXTRA = 'The buyer takes over the contract for heating oil and pays what is left of it at closing.';
/** Where the mark was put by hand: a little beside its line. */
let rect: Mark['rect'];

/** Sends the paper with one signature that was placed by hand beside its line. */
async function sendOne(address: string, extra?: string): Promise<void> {
  const { office } = place;
  const deal = await office.deal(address, [{ side: 'buyer', name: 'Henrike Osei', email: 'henrike@example.com' }]);
  const doc = await office.paper(deal.id, 'Counteroffer.pdf', await bytes(extra));
  const { id, draft } = await office.packet(deal.id, 'Counteroffer', [doc.id]);
  const { places } = await office.call<PackedFacts>('GET', `/api/documents/${doc.id}/facts`);
  const line = places.find((p) => p.kind === 'signature')!.rect;
  rect = { ...line, x: line.x + 6, y: line.y - 3 };
  const item: Mark = {
    id: 's',
    documentId: doc.id,
    page: 1,
    kind: 'signature',
    partyId: draft.parties[0]!.id,
    rect,
    required: true,
  };
  const { version } = await office.edit(id, [{ op: 'put', list: 'marks', item }]);
  await office.call('POST', `/api/packets/${id}/send`, { version });
}

const idOf = (page: Page) => page.url().split('/').pop()!;
const marksOf = async (page: Page) =>
  (await place.marksOf(idOf(page))).map((m) => ({ kind: m.kind, page: m.page, rect: m.rect }));

test('on a phone the paper of the last deal goes out in the next one with its mark in four touches', async () => {
  await sendOne('5 Lantern Row');
  const deal = await place.office.deal('6 Lantern Row', [
    { side: 'buyer', name: 'Agnes Thorvald', email: 'agnes@example.com' },
  ]);
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-memory-')), 'Counteroffer of Agnes.pdf');
  writeFileSync(file, await bytes());
  const phone = await place.open(PHONE, `/deals/${deal.id}`);
  await chooseFile(phone, 'file-input', file);
  await phone.waitForSelector(byTestId('document-row'));
  await tap(phone, 'new-packet');
  await tap(phone, 'start-packet');
  await phone.waitForSelector(byTestId('remembered'));
  await settled(phone);
  expect(await textOf(phone, 'remembered')).toContain('the paper for 5 Lantern Row');
  expect(await findings(phone)).toEqual([]);
  await tap(phone, 'place-and-send');
  await tap(phone, 'send-now');
  await eventually(async () => expect((await place.office.look(idOf(phone))).status).toBe('at_gate'));
  expect(await marksOf(phone)).toEqual([{ kind: 'signature', page: 1, rect }]);
});

test('what was placed is removed in one touch, and what is not to be offered stays away', async () => {
  const deal = await place.office.deal('7 Lantern Row', [
    { side: 'buyer', name: 'Wren Alder', email: 'wren@example.com' },
  ]);
  const doc = await place.office.paper(deal.id, 'Counteroffer.pdf', await bytes());
  const packet = await place.office.packet(deal.id, 'Counteroffer', [doc.id]);
  const wide = await place.open(WIDE, `/packets/${packet.id}`);
  await wide.waitForSelector(byTestId('remembered'));
  expect(await textOf(wide, 'remembered')).toContain('Buyer 1: Wren Alder');
  await settled(wide);
  expect(await findings(wide)).toEqual([]);
  await tap(wide, 'place-remembered');
  await eventually(async () => expect(await marksOf(wide)).toHaveLength(1));
  await tap(wide, 'remove-remembered');
  await eventually(async () => expect(await marksOf(wide)).toEqual([]));
  await tap(wide, 'more-remembered');
  await tap(wide, 'stop-offering');
  await wide.waitForFunction((q) => !document.querySelector(q), {}, byTestId('remembered'));
  await wide.reload();
  await wide.waitForSelector(byTestId('paper'));
  await settled(wide);
  expect(await wide.$(byTestId('remembered'))).toBeNull();
});

test('a firm may have what is certain placed at once: then a paper goes out in four touches, none of them for its marks', async () => {
  await sendOne('8 Lantern Row', EXTRA);
  const firm = await place.open(PHONE, '/firm');
  await tap(firm, 'place-remembered-at-once');
  await firm.waitForFunction(
    (q) => document.querySelector(q)?.getAttribute('aria-checked') === 'true',
    {},
    byTestId('place-remembered-at-once'),
  );
  const deal = await place.office.deal('9 Lantern Row', [
    { side: 'buyer', name: 'Mateo Ibarra', email: 'mateo@example.com' },
  ]);
  const doc = await place.office.paper(deal.id, 'Counteroffer.pdf', await bytes(EXTRA));
  const phone = await place.open(PHONE, `/deals/${deal.id}`);
  expect(doc.status).toBe('ready');
  for (const touch of ['new-packet', 'start-packet']) await tap(phone, touch);
  await phone.waitForSelector(byTestId('remembered-placed'));
  await eventually(async () => expect(await marksOf(phone)).toEqual([{ kind: 'signature', page: 1, rect }]));
  for (const touch of ['send', 'send-now']) await tap(phone, touch);
  await eventually(async () => expect((await place.office.look(idOf(phone))).status).toBe('at_gate'));
});

test('on another edition an uncertain mark is shown on its part of the page, and placed once somebody chooses it', async () => {
  const deal = await place.office.deal('10 Lantern Row', [
    { side: 'buyer', name: 'Henrike Osei', email: 'henrike@example.com' },
  ]);
  const longer = 'The seller has the chimney swept and the gutters cleared before closing. '.repeat(3);
  const doc = await place.office.paper(deal.id, 'Counteroffer.pdf', await bytes(`${EXTRA} ${longer}`));
  const packet = await place.office.packet(deal.id, 'Counteroffer', [doc.id]);
  const phone = await place.open(PHONE, `/packets/${packet.id}`);
  await phone.waitForSelector(byTestId('remembered'));
  expect(await textOf(phone, 'remembered')).toContain('Read it before you send it.');
  expect(await phone.$(byTestId('place-and-send'))).toBeNull();
  await tap(phone, 'review-places');
  await phone.waitForSelector(`${byTestId('found-places')} img`);
  await settled(phone);
  expect(await findings(phone)).toEqual([]);
  expect(await textOf(phone, 'found-places')).toContain('Henrike Osei: signature, page 1');
  expect(await phone.$(byTestId('place-remembered'))).toBeNull();
  await tap(phone, 'found-uncertain');
  await tap(phone, 'place-remembered');
  await eventually(async () => expect(await marksOf(phone)).toMatchObject([{ kind: 'signature', page: 1 }]));
});
