/** A deal opened from its signed contract, on a phone and on a wide screen. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { extension, signedAgreement, type AgreementTerms } from '../server/test/contract';
import { findings } from './axe';
import { byTestId, chooseFile, eventually, PHONE, settled, tap, textOf, WIDE } from './browser';
import { openPanel } from './at-desk';
import { Workplace } from './workplace';

jest.setTimeout(300_000);

let place: Workplace;
beforeAll(async () => {
  place = await Workplace.start();
});
afterAll(() => place?.stop());

/** Writes a signed contract to a file. */
async function contractFile(terms: AgreementTerms = {}): Promise<string> {
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-contract-')), 'Purchase agreement, signed.pdf');
  writeFileSync(file, await signedAgreement(terms));
  return file;
}

test('on a phone a signed contract of nine pages becomes a deal in three touches', async () => {
  const phone = await place.open(PHONE, '/deals');
  await tap(phone, 'new-deal');
  await phone.waitForSelector(byTestId('choose-contract'));
  await chooseFile(phone, 'contract-input', await contractFile());
  await phone.waitForSelector(byTestId('contract-values'));
  await settled(phone);
  if (process.env['SHOTS']) await phone.screenshot({ path: `${process.env['SHOTS']}/contract-phone.png` });
  if (process.env['SHOTS'])
    await phone.screenshot({ path: `${process.env['SHOTS']}/contract-phone-full.png`, fullPage: true });
  expect(await textOf(phone, 'contract-title')).toBe('Sale, 26 Lock Hill');
  expect(await textOf(phone, 'contract-people')).toMatch(/Orla Byrne[^]*Dermot Byrne[^]*Maren Aalto/);
  expect(await textOf(phone, 'value-date.inspection')).toContain('10 days after Sat, Nov 28');
  expect(await findings(phone)).toEqual([]);
  await tap(phone, 'see-fact.price');
  await phone.waitForSelector(byTestId('sources'));
  await settled(phone);
  if (process.env['SHOTS']) await phone.screenshot({ path: `${process.env['SHOTS']}/contract-seen.png` });
  await tap(phone, 'open-contract-deal');
  await phone.waitForSelector(byTestId('document-row'));
  const deal = await place.office.call<{
    facts: object;
    dates: object;
    parties: { name: string }[];
    address: string;
  }>('GET', `/api/deals/${phone.url().split('/').pop()!}`);
  expect(deal).toMatchObject({
    address: '26 Lock Hill',
    facts: { price: 412_000, earnest: 8_000, year_built: 1968 },
    dates: {
      accepted: '2026-11-28',
      disclosed: '2026-12-02',
      inspection: '2026-12-08',
      loan: '2026-12-19',
      closing: '2027-01-15',
    },
  });
  expect(deal.parties.map((p) => p.name)).toEqual(['Orla Byrne', 'Dermot Byrne', 'Maren Aalto']);
});

test('on a wide screen a contract that contradicts itself asks for the right day', async () => {
  const page = await place.open(WIDE, '/deals/new');
  await chooseFile(page, 'contract-input', await contractFile({ closingAgain: 'January 18, 2027' }));
  await page.waitForSelector(byTestId('contract-values'));
  await settled(page);
  if (process.env['SHOTS'])
    await page.screenshot({ path: `${process.env['SHOTS']}/contract-wide.png`, fullPage: true });
  expect(await textOf(page, 'value-date.closing')).toContain('give different values');
  expect(await findings(page)).toEqual([]);
  const chosen = `${byTestId('value-date.closing')} input[type="radio"]`;
  await (await page.$$(chosen))[1]!.click();
  // What was chosen is still there when the page is loaded again.
  await page.reload();
  await page.waitForSelector(chosen);
  expect(await page.$$eval(chosen, (all) => all.map((r) => (r as HTMLInputElement).checked))).toEqual([
    false,
    true,
    false,
  ]);
  await tap(page, 'open-contract-deal');
  await page.waitForSelector(byTestId('document-row'));
  await eventually(async () =>
    expect(
      await place.office.call<{ dates: object }>('GET', `/api/deals/${page.url().split('/').pop()!}`),
    ).toMatchObject({ dates: { closing: '2027-01-18' } }),
  );
});

test('on a phone a signed extension moves closing in one touch', async () => {
  const { office } = place;
  const deal = await office.deal('26 Lock Hill', [{ side: 'buyer', name: 'Maren Aalto', email: 'maren@example.com' }]);
  await office.call('PATCH', `/api/deals/${deal.id}`, {
    kind: 'sale',
    dates: { accepted: '2026-11-28', closing: '2027-01-15' },
  });
  await office.paper(deal.id, 'Extension.pdf', await extension());
  const phone = await place.open(PHONE, `/deals/${deal.id}`);
  await phone.waitForSelector(byTestId('stated'));
  await settled(phone);
  if (process.env['SHOTS']) await phone.screenshot({ path: `${process.env['SHOTS']}/stated-phone.png` });
  expect(await textOf(phone, 'stated')).toContain('Closing Fri, Jan 29, 2027; the deal says Fri, Jan 15, 2027');
  expect(await findings(phone)).toEqual([]);
  await tap(phone, 'accept-stated');
  await eventually(async () =>
    expect(await office.call<{ dates: object }>('GET', `/api/deals/${deal.id}`)).toMatchObject({
      dates: { closing: '2027-01-29' },
    }),
  );
});

test('blanks are filled with what the deal knows in one touch, and emptied again', async () => {
  const { office } = place;
  const deal = await office.deal('26 Lock Hill', [
    { side: 'seller', name: 'Orla Byrne', email: 'orla@example.com' },
    { side: 'buyer', name: 'Maren Aalto', email: 'maren@example.com' },
  ]);
  await office.call('PATCH', `/api/deals/${deal.id}`, { kind: 'sale', facts: { price: 412_000 } });
  const doc = await office.paper(
    deal.id,
    'Agreement.pdf',
    new Uint8Array(await readFile('bench/forms/purchase-writer.pdf')),
  );
  const { id } = await office.packet(deal.id, 'Agreement', [doc.id]);
  const page = await place.open(WIDE, `/packets/${id}`);
  await openPanel(page, 'printed');
  await page.waitForSelector(byTestId('known-values'));
  await settled(page);
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/known-wide.png` });
  expect(await textOf(page, 'known-values')).toContain('Not in the deal yet: earnest money');
  expect(await findings(page)).toEqual([]);
  await tap(page, 'fill-known');
  const labels = async () =>
    (await place.marksOf(id))
      .filter((m) => m.kind === 'label')
      .map((m) => m.value)
      .sort();
  await eventually(async () => expect(await labels()).toEqual(['412,000', 'Maren Aalto', 'Orla Byrne']));
  expect(await textOf(page, 'known-filled')).toContain('3 blanks filled in from the deal');
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/known-filled.png` });
  await tap(page, 'unfill-known');
  await eventually(async () => expect(await labels()).toEqual([]));
});
