/** The shelf in real Chromium: a paper becomes a form, two forms a kit, and the kit a sent packet in few acts. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { DealView, MessageSummary, Page as PageOf, ShelfItemView, ShelfSummary } from '@gatepath/contract';
import { signAll } from '../server/test/way';
import { findings } from './axe';
import {
  chooseFile,
  actsOn,
  byTestId,
  choose,
  eventually,
  openPage,
  PHONE,
  settled,
  tap,
  textOf,
  type,
} from './browser';
import { openPanel } from './at-desk';
import { finish, signThrough } from './client';
import type { Office } from './office';
import { OverWire } from './over-wire';
import { download, judgedFile } from './proof';
import type { ServerProcess } from './server';
import { Stage } from './stage';

jest.setTimeout(300_000);

let stage: Stage;
let server: ServerProcess;
let office: Office;
let phone: Page;
let wide: Page;
let errors: string[];
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-shelf-'));
const FORMS = ['Seller disclosure', 'Lead paint disclosure'];

beforeAll(async () => {
  stage = await Stage.set();
  ({ server, office, phone, wide, errors } = stage);
  for (const title of FORMS) writeFileSync(path.join(dir, `${title}.pdf`), await formPaper(title));
});
afterAll(async () => {
  await stage?.end();
  rmSync(dir, { recursive: true });
});

/** Returns a form on paper. @param lower  how much further down the signatures stand */
async function formPaper(title: string, lower = 0): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= 2; n++) {
    const page = doc.addPage([612, 792]);
    page.drawText(title, { x: 72, y: 730, size: 14, font });
    for (let y = 700; y > 400; y -= 16)
      page.drawText('The sellers say that what stands here is so, as far as they know it.', {
        x: 72,
        y,
        size: 10,
        font,
      });
    if (n === 1) continue;
    for (const [i, who] of ['Seller 1', 'Seller 2'].entries()) {
      const y = 320 - lower - i * 60;
      page.drawLine({ start: { x: 72, y }, end: { x: 300, y }, thickness: 0.7 });
      page.drawText(`${who} signature`, { x: 72, y: y - 12, size: 9, font });
    }
  }
  return doc.save();
}

const axe = async (page: Page) => {
  await settled(page);
  return findings(page);
};

test('two papers become forms at the desk: roles are read, their places accepted, and initials go on every page', async () => {
  for (const title of FORMS) {
    await wide.goto(`${server.url}/shelf`);
    await chooseFile(wide, 'form-input', path.join(dir, `${title}.pdf`));
    await wide.waitForSelector(byTestId('sheet'));
    await openPanel(wide, 'printed');
    await tap(wide, 'accept-all');
    await openPanel(wide, 'ledger');
    for (const role of ['Seller 1', 'Seller 2']) await tap(wide, `rule-${role}`);
    await wide.waitForFunction(
      () => document.querySelector('[data-testid="ledger-sum"]')?.textContent === '4 of 4 placed',
    );
    expect([title, await axe(wide)]).toEqual([title, []]);
    await tap(wide, 'put-on-shelf');
    await wide.waitForFunction(() =>
      document.querySelector('[data-testid="put-on-shelf"]')?.textContent?.includes('edition 1'),
    );
  }
  const { items } = await office.call<PageOf<ShelfSummary>>('GET', '/api/shelf?what=form');
  expect(items.map((f) => [f.name, f.edition, f.slots.map((s) => s.letters)])).toEqual([
    ['Lead paint disclosure', 1, ['S1', 'S2']],
    ['Seller disclosure', 1, ['S1', 'S2']],
  ]);
});

test('with a thumb they become a kit, which is locked and put on the shelf', async () => {
  await phone.goto(`${server.url}/shelf`);
  await tap(phone, 'new-kit');
  await type(phone, 'kit-name', 'Older home');
  for (const title of FORMS) await tap(phone, `choose-${title}`);
  await tap(phone, 'make-kit');
  await tap(phone, 'lock-path');
  await phone.waitForFunction(() => document.body.textContent!.includes('locked by Odile Farrant'));
  expect(await axe(phone)).toEqual([]);
  await tap(phone, 'put-on-shelf');
  await phone.waitForFunction(() =>
    document.querySelector('[data-testid="put-on-shelf"]')?.textContent?.includes('edition 1'),
  );
  await phone.goto(`${server.url}/shelf`);
  await phone.waitForSelector(byTestId('kit-card'));
  expect(await axe(phone)).toEqual([]);
});

test('from the page of a deal to a packet that is sent takes at most four acts', async () => {
  const deal: DealView = await office.deal('7 Weir Terrace', [
    { side: 'seller', name: 'Wren Alder', email: 'wren@example.com' },
    { side: 'seller', name: 'Callum Alder', email: 'callum@example.com' },
    { side: 'seller', name: 'Priya Nair', email: 'priya@example.com' },
  ]);
  await phone.goto(`${server.url}/deals/${deal.id}`);
  const before = actsOn(phone).touches;
  await tap(phone, 'use-kit');
  await tap(phone, 'kit-choice');
  await phone.waitForSelector(byTestId('kit-slots'));
  const who = await textOf(phone, 'kit-slots');
  expect(who).toContain('Wren Alder');
  expect(who).toContain('2 papers have no line for them; space was found');
  expect(await axe(phone)).toEqual([]);
  await tap(phone, 'kit-send');
  await phone.waitForFunction(() =>
    /At gate 1/.test(document.querySelector('[data-testid="packet-state"]')?.textContent ?? ''),
  );
  expect(actsOn(phone).touches - before).toBeLessThanOrEqual(4);
  await eventually(async () => {
    const { packets } = await office.call<DealView>('GET', `/api/deals/${deal.id}`);
    expect(packets.map((p) => [p.name, p.status, p.parties.length])).toEqual([['Older home', 'at_gate', 3]]);
  });
});

test('used on three deals, for two sellers, five, and a trust, each is executed and sealed with everybody’s own marks', async () => {
  const person = (name: string, more: object = {}) => ({
    side: 'seller' as const,
    name,
    email: `${name.split(' ')[0]!.toLowerCase()}@three.test`,
    ...more,
  });
  const deals = {
    '11 Weir Terrace': [person('Agnes Thorvald'), person('Bram Thorvald')],
    '12 Weir Terrace': ['Cleo', 'Dov', 'Edda', 'Finn', 'Greta'].map((first) => person(`${first} Moor`)),
    '13 Weir Terrace': [person('Hugo Vale', { company: 'The Vale Family Trust', capacity: 'Trustee' })],
  };
  const wire = new OverWire(() => server.url);
  const onPhone = async (link: string) => {
    const client = await openPage(stage.browser, PHONE);
    await client.goto(link);
    const filled = await signThrough(client);
    await finish(client);
    await client.browserContext().close();
    return filled;
  };
  for (const [address, sellers] of Object.entries(deals)) {
    const deal = await office.deal(address, sellers);
    await phone.goto(`${server.url}/deals/${deal.id}`);
    await tap(phone, 'use-kit');
    await tap(phone, 'kit-choice');
    await tap(phone, 'kit-send');
    await phone.waitForSelector(byTestId('packet-state'));
    const id = await eventually(async () => {
      const [packet] = (await office.call<DealView>('GET', `/api/deals/${deal.id}`)).packets;
      expect(packet?.status).toBe('at_gate');
      return packet!.id;
    });
    const { items } = await office.call<PageOf<MessageSummary>>('GET', `/api/mailroom?limit=100&packetId=${id}`);
    for (const [i, { name }] of sellers.entries()) {
      const { link } = items.find((m) => m.kind === 'ask' && m.toName === name)!;
      // The first of each deal signs on a phone, the others over the API: what is looked at is the packet.
      const filled = i === 0 ? await onPhone(link!) : (await signAll(wire, link!.split('/sign/')[1]!, name)).filled;
      // Four pages to initial and two to sign, however many others there are.
      expect([name, filled]).toEqual([name, 6]);
    }
    const sealed = await eventually(async () => {
      const packet = await office.look(id);
      expect([packet.status, packet.sent!.sealed?.length]).toEqual(['executed', 2]);
      return packet;
    });
    const { plan, fills, ledger } = sealed.sent!;
    expect(ledger.done).toBe(ledger.total);
    for (const p of plan.parties) {
      const own = fills.filter((f) => f.partyId === p.id);
      const of = (kind: string) => own.filter((f) => f.kind === kind).length;
      expect([p.name, of('initials'), of('signature')]).toEqual([p.name, 4, 2]);
    }
    for (const { documentId } of sealed.sent!.sealed!) {
      const url = `/api/packets/${id}/sealed/${documentId}`;
      const file = await download(wide, url, path.join(dir, `${documentId}.pdf`));
      // A seal for each, and the record's.
      expect((await judgedFile(file)).seals).toBe(sellers.length + 1);
    }
  }
  expect(errors).toEqual([]);
});

test('on a wide screen one kit goes to several deals, each with its row; one that has had it stays out', async () => {
  for (const n of [1, 2])
    await office.deal(`${n} Towline Road`, [{ side: 'seller', name: `Mara Quill`, email: 'mara@example.com' }]);
  await wide.goto(`${server.url}/deals`);
  await wide.waitForFunction(() => document.querySelectorAll('[data-testid="deal-row"]').length === 6);
  for (const box of (await wide.$$('[role="checkbox"]')).slice(1, 4)) await box.click();
  await tap(wide, 'hand-kit');
  await choose(wide, 'Older home');
  await wide.waitForFunction(() =>
    document.querySelector('[data-testid="send-several"]')?.textContent?.includes('Send 2 packets'),
  );
  expect(await axe(wide)).toEqual([]);
  await tap(wide, 'send-several');
  await wide.waitForFunction(() => document.body.textContent!.split('Sent. See the packet').length === 3);
  const { items } = await office.call<PageOf<DealView>>('GET', '/api/deals');
  expect(items.slice(0, 3).map((d) => d.packets.map((p) => p.status))).toEqual([
    ['at_gate'],
    ['at_gate'],
    ['executed'],
  ]);
});

test('a changed paper takes the place of the old one, and the marks go where their words went', async () => {
  const changed = path.join(dir, 'changed.pdf');
  writeFileSync(changed, await formPaper('Seller disclosure', 48));
  const { items } = await office.call<PageOf<ShelfSummary>>('GET', '/api/shelf?what=form&search=seller');
  const look = () => office.call<ShelfItemView>('GET', `/api/shelf/${items[0]!.id}`);
  const before = await look();
  await wide.goto(`${server.url}/forms/${items[0]!.id}`);
  await openPanel(wide, 'path');
  await chooseFile(wide, 'changed-input', changed);
  await wide.waitForSelector(byTestId('found-again'));
  expect(await textOf(wide, 'found-again')).toContain('0 marks in place, 2 moved, 0 uncertain, 0 not found.');
  expect(await axe(wide)).toEqual([]);
  await tap(wide, 'take-changed');
  await eventually(async () => {
    const now = await look();
    expect(now.draft.documents[0]!.id).not.toBe(before.draft.documents[0]!.id);
    const ys = (i: ShelfItemView) => i.draft.marks.map((m) => Math.round(m.rect.y)).sort((a, b) => a - b);
    expect(ys(now)).toEqual(ys(before).map((y) => y + 48));
    expect(now.draft.rules.map((r) => [r.documentId, r.partyIds.length])).toEqual([[now.draft.documents[0]!.id, 2]]);
    expect([now.edition, now.changed]).toEqual([1, true]);
  });
});

test('what is not locked is changed for one packet, what is locked says by whom', async () => {
  const deal = await office.deal('9 Weir Terrace', [{ side: 'seller', name: 'Wren Alder', email: 'wren@example.com' }]);
  await phone.goto(`${server.url}/deals/${deal.id}`);
  await tap(phone, 'use-kit');
  await tap(phone, 'kit-choice');
  await tap(phone, 'change-Name');
  await type(phone, 'kit-name', 'Papers of the mill');
  await phone.keyboard.press('Tab');
  await phone.waitForFunction(() =>
    document.body.textContent!.includes('The order was set by Odile Farrant and cannot be changed.'),
  );
  await phone.waitForFunction(
    () => document.querySelector('h1, [role="heading"]')?.textContent === 'Papers of the mill',
  );
  await tap(phone, 'kit-to-desk');
  await phone.waitForSelector(byTestId('sheet'));
  await eventually(async () => {
    const { packets } = await office.call<DealView>('GET', `/api/deals/${deal.id}`);
    expect(packets.map((p) => [p.name, p.status])).toEqual([['Papers of the mill', 'drafting']]);
  });
  expect(errors).toEqual([]);
});

test('a form is written: roles, tags, a condition, a part for each tenant, a table, signatures; and used on a tenancy', async () => {
  await wide.goto(`${server.url}/shelf`);
  await tap(wide, 'write-form');
  await wide.waitForSelector('.form-text');
  for (const role of ['Landlord 1', 'Every tenant']) {
    await tap(wide, 'add-role');
    await choose(wide, role);
  }
  await tap(wide, 'every-page-Every tenant');
  await wide.click('.form-text p');
  await wide.keyboard.type('The rent for ');
  await tap(wide, 'open-tags');
  await type(wide, 'find-tag', 'addr');
  await tap(wide, 'tag-address');
  await wide.keyboard.type(' is ');
  await tap(wide, 'open-tags');
  await type(wide, 'find-tag', 'rent a');
  await tap(wide, 'tag-rent');
  await wide.keyboard.type('. {address} <b>stays text</b>');
  await wide.keyboard.press('Enter');
  await wide.keyboard.type('A pet may live here.');
  await tap(wide, 'open-parts');
  await choose(wide, 'Only when a condition holds');
  await toTheEnd();
  await wide.keyboard.type('The keys were handed over.');
  await tap(wide, 'open-parts');
  await choose(wide, 'Once for each tenant');
  await toTheEnd();
  await tap(wide, 'open-parts');
  await choose(wide, 'Table');
  await wide.keyboard.type('What');
  await wide.keyboard.press('Tab');
  await wide.keyboard.type('Where');
  await toTheEnd();
  await tap(wide, 'open-parts');
  await choose(wide, 'Signatures');
  await wide.waitForFunction(() =>
    document.querySelector('[data-testid="text-saving"]')?.textContent?.endsWith('Saved'),
  );
  await wide.waitForSelector(byTestId('when-part'));
  await wide.waitForSelector(byTestId('each-part'));
  expect(await axe(wide)).toEqual([]);
  // Another look at it finds the same: what is written is kept.
  await wide.reload();
  await wide.waitForSelector(byTestId('signatures-part'));
  expect(await wide.$eval('.form-text', (e) => e.textContent)).toContain('{address} <b>stays text</b>');
  await tap(wide, 'put-on-shelf');
  await wide.waitForFunction(() =>
    document.querySelector('[data-testid="put-on-shelf"]')?.textContent?.includes('edition 1'),
  );
  const { items } = await office.call<PageOf<ShelfSummary>>('GET', '/api/shelf?what=form&search=New');
  const kit = await office.call<ShelfItemView>('POST', '/api/shelf/kits', {
    name: 'Moving in',
    formIds: items.map((i) => i.id),
  });
  await office.call('POST', `/api/shelf/${kit.id}/editions`, { version: kit.version });

  const deal = await office.call<DealView>('POST', '/api/deals', {
    kind: 'tenancy',
    address: '3 Cooper’s Wharf',
    city: 'Tern Lock',
    parties: [
      { side: 'landlord', name: 'Ada Reed', email: 'ada@example.com' },
      ...['Wren', 'Ines', 'Mara'].map((n) => ({ side: 'tenant', name: `${n} Quill`, email: `${n}@example.com` })),
    ],
  });
  await phone.goto(`${server.url}/deals/${deal.id}`);
  await tap(phone, 'use-kit');
  await tap(phone, 'kit-choice');
  await phone.waitForSelector(byTestId('unknown-tags'));
  expect(await axe(phone)).toEqual([]);
  await type(phone, 'fact-rent', '1,450');
  await phone.evaluate(() => {
    document
      .querySelector<HTMLElement>('[data-testid="fact-pets"] [role="radio"], [data-testid="fact-pets"] input')!
      .click();
  });
  await phone.waitForFunction(() => document.body.textContent!.includes('Nothing is missing on the papers.'));
  await tap(phone, 'kit-send');
  await phone.waitForFunction(() =>
    /At gate 1/.test(document.querySelector('[data-testid="packet-state"]')?.textContent ?? ''),
  );
  const now = await office.call<DealView>('GET', `/api/deals/${deal.id}`);
  expect(now.facts).toMatchObject({ rent: 1450, pets: true });
  expect(now.packets[0]?.parties).toHaveLength(4);
  expect(errors).toEqual([]);
});

test('a kit is passed on as a file, and a file with forms is brought in', async () => {
  const { items } = await office.call<PageOf<ShelfSummary>>('GET', '/api/shelf?what=kit&search=Moving');
  const file = await download(wide, `/api/shelf/${items[0]!.id}/bundle`, path.join(dir, 'Moving in.zip'));
  await phone.goto(`${server.url}/shelf`);
  await chooseFile(phone, 'bundle-input', file);
  await phone.waitForSelector(byTestId('bundle-done'));
  expect(await textOf(phone, 'bundle-done')).toContain('New form and Moving in');
  writeFileSync(path.join(dir, 'no.zip'), 'not a file with forms');
  await chooseFile(phone, 'bundle-input', path.join(dir, 'no.zip'));
  await phone.waitForFunction(() => document.body.textContent!.includes('Ask for it once more.'));
  expect(await axe(phone)).toEqual([]);
  expect(errors).toEqual([]);
});

/** Moves the cursor to a new line after everything. */
async function toTheEnd(): Promise<void> {
  await wide.evaluate(() => {
    const text = document.querySelector<HTMLElement>('.form-text')!;
    text.focus();
    getSelection()!.selectAllChildren(text);
    getSelection()!.collapseToEnd();
  });
  await wide.keyboard.down('Control');
  await wide.keyboard.press('End');
  await wide.keyboard.up('Control');
}
