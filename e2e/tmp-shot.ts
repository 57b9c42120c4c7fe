import type { DealSummary, MessageSummary } from '@gatepath/contract';
import { byTestId, launch, openPage, PHONE, settled, signIn, tap, WIDE, type } from './browser';
const base = 'http://localhost:4400';
const browser = await launch();
const which = process.argv.slice(2);
const want = (n: string) => !which.length || which.includes(n);
const phone = await openPage(browser, { ...PHONE, deviceScaleFactor: 1 });
phone.on('pageerror', (e) => console.log('ERR', String(e)));
const get = <T>(u: string) => phone.evaluate(async (x) => (await (await fetch(x)).json()) as never, u) as Promise<T>;
await signIn(phone, base, 'odile@towpath-vane.example.com', 'towpath-demo');
const { items: deals } = await get<{ items: DealSummary[] }>('/api/deals');
const packetAt = (s: string) => deals.find((d) => d.address.startsWith(s))!.packets[0]!.id;
const mail = await get<{ items: MessageSummary[] }>('/api/mailroom?limit=100');
const link = (n: string, k: string) => mail.items.find((m) => m.toName === n && m.kind === k)!.link!;
const shot = async (p: typeof phone, n: string, full = false) => {
  await settled(p);
  await p.screenshot({ path: `/tmp/s/${n}.png` as `${string}.png`, fullPage: full });
};
if (want('packet')) {
  await phone.goto(`${base}/packets/${packetAt('14')}`);
  await phone.waitForSelector(byTestId('ledger'));
  await shot(phone, 'packet-phone');
  const wide = await openPage(browser, WIDE);
  await signIn(wide, base, 'odile@towpath-vane.example.com', 'towpath-demo');
  await wide.goto(`${base}/packets/${packetAt('14')}`);
  await wide.waitForSelector(byTestId('ledger'));
  await shot(wide, 'packet-wide');
}
if (want('sign')) {
  const c = await openPage(browser, { ...PHONE, deviceScaleFactor: 1 });
  c.on('pageerror', (e) => console.log('ERR', String(e)));
  await c.goto(link('Callum Alder', 'ask'));
  await c.waitForSelector(byTestId('fill'));
  await shot(c, 'sign');
  await tap(c, 'pages');
  await shot(c, 'sign-pages');
  await tap(c, 'back');
  await tap(c, 'more');
  await shot(c, 'sign-more');
}
if (want('desk')) {
  await phone.goto(`${base}/packets/${packetAt('7')}`);
  await phone.waitForSelector(byTestId('sheet'));
  await tap(phone, 'tab-path');
  await settled(phone);
  const h = await phone.evaluate(() => {
    const s = document.querySelector('[data-testid="schedule"]');
    s?.scrollIntoView();
    return !!s;
  });
  console.log('schedule', h);
  await tap(phone, 'nudges');
  await shot(phone, 'desk-path');
}
if (want('firm')) {
  await phone.goto(`${base}/firm`);
  await phone.waitForSelector(byTestId('notices'));
  await shot(phone, 'firm');
}
if (want('check')) {
  const c = await openPage(browser, WIDE);
  await c.goto(`${base}/check`);
  await c.waitForSelector(byTestId('choose-file'));
  const p = packetAt('Unit');
  const v = await get<{ sent: { sealed: { documentId: string }[] } }>(`/api/packets/${p}`);
  const b64 = await phone.evaluate(async (u) => {
    const b = new Uint8Array(await (await fetch(u)).arrayBuffer());
    let s = '';
    for (const x of b) s += String.fromCharCode(x);
    return btoa(s);
  }, `/api/packets/${p}/sealed/${v.sent.sealed[0]!.documentId}`);
  const { writeFileSync } = await import('node:fs');
  writeFileSync('/tmp/s/sealed.pdf', Buffer.from(b64, 'base64'));
  const input = await c.$(byTestId('check-file'));
  await (input as never as { uploadFile(f: string): Promise<void> }).uploadFile('/tmp/s/sealed.pdf');
  await c.waitForSelector(byTestId('outcome'));
  await shot(c, 'check');
}
await browser.close();
void type;
