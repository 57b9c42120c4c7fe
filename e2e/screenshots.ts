/** npm run screenshots: one current picture of each main view, from a fresh demo, into docs/screenshots. */
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type {
  DealSummary,
  DealView,
  DocumentView,
  PackedFacts,
  MessageSummary,
  NoticeSummary,
  ShelfSummary,
} from '@gatepath/contract';
import type { Page } from 'puppeteer-core';
import { sure } from '@gatepath/core/sure';
import { filledIn } from '../server/test/filled';
import { extension, signedAgreement } from '../server/test/contract';
import { counteroffer } from '../server/test/counter';
import { chance, lease, scanOf } from '../server/test/scan';
import { byTestId, chooseFile, eventually, launch, openPage, PHONE, settled, signIn, tap, type, WIDE } from './browser';
import { download } from './proof';

const OUT = path.join(process.cwd(), 'docs', 'screenshots');
const PORT = 4399;
const base = process.env['DEMO_URL'] ?? `http://localhost:${PORT}`;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-shots-'));
mkdirSync(OUT, { recursive: true });

/** Starts a demo of its own, unless DEMO_URL names one that runs. */
async function startDemo(): Promise<() => void> {
  if (process.env['DEMO_URL']) return () => undefined;
  const child = spawn(process.execPath, ['scripts/demo.mjs'], {
    env: { ...process.env, PORT: String(PORT), DATA_DIR: dir },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (d: Buffer) => d.toString().includes('Gate Path is ready') && resolve());
    child.on('exit', () => reject(new Error('the demo did not start')));
  });
  return () => process.kill(-child.pid!, 'SIGINT');
}

const stop = await startDemo();
const browser = await launch();
const shot = async (page: Page, name: string) => {
  await settled(page);
  await page.screenshot({ path: path.join(OUT, `${name}.png`) as `${string}.png` });
  console.log(`  ${name}`);
};
const get = <T>(page: Page, url: string) =>
  page.evaluate(async (u) => (await (await fetch(u)).json()) as never, url) as Promise<T>;

const phone = await openPage(browser, { ...PHONE, deviceScaleFactor: 1 });
await signIn(phone, base, 'odile@towpath-vane.example.com', 'towpath-demo');
await phone.waitForSelector(byTestId('week'));
await shot(phone, 'today-phone');
const { items: deals } = await get<{ items: DealSummary[] }>(phone, '/api/deals?limit=100');
const dealAt = (street: string) => deals.find((d) => d.address.startsWith(street))!;
// The newest deals stand first: those that are shown closely.
const packetAt = (street: string) => dealAt(street).packets[0]!.id;
await phone.goto(`${base}/deals/${dealAt('88').id}`);
await phone.waitForSelector(byTestId('packet-row'));
await shot(phone, 'deal-phone');
await phone.goto(`${base}/packets/${packetAt('7')}`);
await phone.waitForSelector(byTestId('sheet'));
await shot(phone, 'desk-phone');
await phone.goto(`${base}/shelf`);
await phone.waitForSelector(byTestId('kit-card'));
await shot(phone, 'shelf-phone');
await phone.goto(`${base}/deals/${dealAt('7').id}`);
await tap(phone, 'use-kit');
await tap(phone, 'kit-choice');
await phone.waitForSelector(byTestId('kit-slots'));
await shot(phone, 'kit-phone');
await phone.goto(`${base}/packets/${packetAt('14')}`);
await phone.waitForSelector(byTestId('ledger'));
await shot(phone, 'packet-phone');
await phone.goto(`${base}/mailroom`);
await phone.waitForSelector(byTestId('message'));
const mail = await get<{ items: MessageSummary[] }>(phone, '/api/mailroom?limit=100');
const linkOf = (name: string, kind: string) =>
  mail.items.find((m) => m.toName === name && m.kind === kind)!.link!.replace(/^https?:\/\/[^/]+/, base);

const wide = await openPage(browser, WIDE);
await signIn(wide, base, 'odile@towpath-vane.example.com', 'towpath-demo');
await wide.waitForSelector(byTestId('week'));
await wide.goto(`${base}/deals`);
await wide.waitForSelector(byTestId('deal-row'));
for (const box of (await wide.$$('[role="checkbox"]')).slice(1, 3)) await box.click();
await shot(wide, 'deals-wide');
await wide.goto(`${base}/insight`);
await wide.waitForSelector(byTestId('chart-through'));
await shot(wide, 'insight-wide');
await wide.goto(`${base}/packets/${packetAt('7')}`);
await wide.waitForSelector(byTestId('sheet'));
await tap(wide, 'all-pages');
await tap(wide, 'thumb-5');
await shot(wide, 'desk-wide');

const { items: forms } = await get<{ items: ShelfSummary[] }>(wide, '/api/shelf?what=form');
await wide.goto(`${base}/forms/${forms.find((f) => f.name.startsWith('Rules'))!.id}`);
await wide.waitForSelector(byTestId('signatures-part'));
await shot(wide, 'written-wide');

// A lease that came back from the tenants' office, scanned, with one of the initials missing.
const tenancy = deals.find((d) => d.kind === 'tenancy')!;
const bringIn = async (deal: DealSummary, name: string, bytes: Uint8Array): Promise<DocumentView> => {
  await phone.goto(`${base}/deals/${deal.id}`);
  const papersNow = async () => (await get<DealView>(phone, `/api/deals/${deal.id}`)).documents;
  const before = new Set((await papersNow()).map((d) => d.id));
  const paper = path.join(dir, name);
  writeFileSync(paper, bytes);
  await chooseFile(phone, 'file-input', paper);
  return eventually(async () => {
    const added = (await papersNow()).find((d) => !before.has(d.id) && d.status === 'ready');
    return sure(added, name);
  }, 120);
};
const lentOut = await lease({ pages: 2, initials: true });
const empty = await bringIn(tenancy, 'Lease.pdf', lentOut);
const { places } = await get<PackedFacts>(phone, `/api/documents/${empty.id}/facts`);
const written = places.filter((p) => !(p.kind === 'initials' && p.role === 'tenant' && p.page === 1));
const back = await bringIn(
  tenancy,
  'Lease, signed.pdf',
  (await scanOf(await filledIn(lentOut, written, chance(4)))).bytes,
);
await phone.goto(`${base}/deals/${tenancy.id}/back/${back.id}`);
await phone.waitForSelector(byTestId('blank'));
for (const button of await phone.$$(byTestId('blank')))
  if ((await button.evaluate((e) => e.textContent)) === 'Lease') await button.click();
await (await phone.waitForSelector(byTestId('place-no')))!.scrollIntoView();
await shot(phone, 'came-back-phone');
const beginPacket = (deal: DealSummary, { id, name }: DocumentView) =>
  phone.evaluate(
    async (url: string, asked: { name: string; documentIds: string[] }) => {
      const headers = { 'content-type': 'application/json' };
      const answer = await fetch(url, { method: 'POST', headers, body: JSON.stringify(asked) });
      return ((await answer.json()) as { id: string }).id;
    },
    `/api/deals/${deal.id}/packets`,
    { name, documentIds: [id] },
  );

// A counteroffer, and the one that answers it: another sum, a clause that moved, one put in and one struck.
const clauses = [
  'The buyer shall have ten days to inspect the roof, the boiler and the well of the house.',
  'The seller leaves the stove, the blinds and the shed where they are now.',
  'The seller has the chimney swept and the gutters cleared before the day of closing.',
  'Both sides pay half of what the survey costs, whatever it says.',
];
const [inspect, , sweeps, survey] = clauses;
const answered = [
  sweeps,
  inspect?.replace('ten', 'fifteen'),
  survey,
  'The deposit stays with Northlock until the day of closing.',
];
const offered = dealAt('88');
const counter = await bringIn(offered, 'Counteroffer.pdf', await counteroffer({ sum: '$410,000', clauses }));
const answer = await bringIn(
  offered,
  'Counteroffer, second.pdf',
  await counteroffer({ sum: '$415,000', clauses: answered.map((c) => sure(c, 'a clause')) }),
);
await wide.goto(`${base}/changes/${answer.id}/${counter.id}`);
await wide.waitForSelector(`${byTestId('page-pair')} img`);
await shot(wide, 'changes-wide');

// A deal opened from its signed contract, and an extension that moves its closing.
const contract = path.join(dir, 'Purchase agreement, signed.pdf');
writeFileSync(contract, await signedAgreement());
await phone.goto(`${base}/deals/new`);
await phone.waitForSelector(byTestId('choose-contract'));
await chooseFile(phone, 'contract-input', contract);
await phone.waitForSelector(byTestId('contract-values'));
await shot(phone, 'contract-phone');
await tap(phone, 'open-contract-deal');
await phone.waitForSelector(byTestId('document-row'));
const { items: now } = await get<{ items: DealSummary[] }>(phone, '/api/deals?limit=5');
await bringIn(
  now.find((d) => d.address === '26 Lock Hill')!,
  'Extension.pdf',
  await extension(),
);
await phone.waitForSelector(byTestId('stated'));
await shot(phone, 'stated-phone');

// A form that was executed in another deal, in a new packet.
const swing = dealAt('4 Swing');
const { documents: papers } = await get<DealView>(phone, `/api/deals/${swing.id}`);
const disclosure = sure(
  papers.find((d) => d.name === 'Seller’s disclosure'),
  'the disclosure',
);
await phone.goto(`${base}/packets/${await beginPacket(swing, disclosure)}`);
await phone.waitForSelector(byTestId('remembered'));
await shot(phone, 'memory-phone');

const { items: notices } = await get<{ items: NoticeSummary[] }>(wide, '/api/notices');
await wide.goto(`${base}/notices/${notices[0]!.id}`);
await wide.waitForSelector(byTestId('home-row'));
await shot(wide, 'notices-wide');

const client = await openPage(browser, { ...PHONE, deviceScaleFactor: 1 });
await client.goto(linkOf('Callum Alder', 'ask'));
await client.waitForSelector(byTestId('fill'));
await shot(client, 'signing-phone');

await client.goto(linkOf('Callum Alder', 'ask'));
await tap(client, 'more');
await tap(client, 'ask-own-page');
await client.waitForSelector(byTestId('own-asked'));
const newest = async (kind: string) =>
  (await get<{ items: MessageSummary[] }>(wide, '/api/mailroom?limit=20')).items.find((m) => m.kind === kind)!;
await client.goto((await newest('own_page')).link!.replace(/^https?:\/\/[^/]+/, base));
await tap(client, 'send-code');
await client.waitForSelector(byTestId('code'));
const { bodyText } = await get<{ bodyText: string }>(wide, `/api/mailroom/${(await newest('own_code')).id}`);
await type(client, 'code', /\b\d{6}\b/.exec(bodyText)![0]);
await tap(client, 'give-code');
await client.waitForSelector(byTestId('own-packet'));
await shot(client, 'own-phone');

const sealed = await get<{ sent: { sealed: { documentId: string }[] } }>(wide, `/api/packets/${packetAt('Unit 3B')}`);
const file = await download(
  wide,
  `/api/packets/${packetAt('Unit 3B')}/sealed/${sealed.sent.sealed[0]!.documentId}`,
  path.join(dir, 'Agency disclosure (sealed).pdf'),
);
await wide.goto(`${base}/check`);
await chooseFile(wide, 'check-file', file);
await wide.waitForSelector(byTestId('outcome'));
await shot(wide, 'check-wide');

await browser.close();
stop();
rmSync(dir, { recursive: true, force: true });
