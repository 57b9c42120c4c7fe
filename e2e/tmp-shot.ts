import { byTestId, launch, openPage, PHONE, settled, signIn, tap, WIDE } from './browser';
import { longForm } from './long-form';
import { writeFileSync } from 'node:fs';
import sharp from 'sharp';
const base = 'http://localhost:4300';
writeFileSync('/tmp/Purchase_agreement.pdf', await longForm());
const browser = await launch();
const wide = await openPage(browser, WIDE);
wide.on('console', (m) => m.type() === 'error' && console.log(m.text().slice(0, 400)));
wide.on('pageerror', (e) => console.log('pageerror', (e as Error).message));
await signIn(wide, base, 'odile@towpath-vane.example.com', 'towpath-demo');
const dealId = await wide.evaluate(
  async (sellers: number) => {
    const r = await fetch('/api/deals', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        kind: 'sale',
        address: `${Date.now() % 1000} Lantern Row`,
        city: 'Tern Lock',
        parties: [
          ...['Wren Alder', 'Callum Alder', 'Priya Nair', 'Mateo Ibarra', 'Agnes Thorvald']
            .slice(0, sellers)
            .map((name) => ({ side: 'seller', name, email: name.split(' ')[0] + '@example.com' })),
          ...['Юрий Калина', 'Henrike Osei'].map((name, i) => ({ side: 'buyer', name, email: `b${i}@example.com` })),
        ],
      }),
    });
    return (await r.json()).id as string;
  },
  Number(process.argv[2] ?? 2),
);
await wide.goto(`${base}/deals/${dealId}`);
const input = await wide.waitForSelector('[data-testid="file-input"]');
await (input as any).uploadFile('/tmp/Purchase_agreement.pdf');
await wide.waitForSelector(`${byTestId('new-packet')}:not([aria-disabled="true"])`);
await tap(wide, 'new-packet');
await tap(wide, 'start-packet');
await wide.waitForSelector(byTestId('accept-all')).catch(async () => {
  await wide.screenshot({ path: '/tmp/s0.png' });
  console.log(wide.url());
});
await settled(wide);
await wide.screenshot({ path: '/tmp/s1.png' });
const url = wide.url();
const last = () => tap(wide, 'ledger-row-14').catch(() => undefined);
await wide.evaluate(() => {
  const b = document.querySelector('[aria-label="Page before"]') as HTMLElement;
  b.click();
});
await tap(wide, 'all-pages');
await tap(wide, 'thumb-14');
await settled(wide);
await wide.screenshot({ path: '/tmp/s1.png' });
await tap(wide, 'accept-all');
await settled(wide);
await wide.screenshot({ path: '/tmp/s2.png' });
console.log(url, last.name);
await tap(wide, 'see-as');
await settled(wide);
await wide.screenshot({ path: '/tmp/s4.png' });
await tap(wide, 'preview-close');
const phone = await openPage(browser, { ...PHONE, deviceScaleFactor: 1 });
await signIn(phone, base, 'odile@towpath-vane.example.com', 'towpath-demo');
await phone.goto(url);
await phone.waitForSelector(byTestId('sheet'));
await tap(phone, 'all-pages');
await tap(phone, 'thumb-14');
const shots: Buffer[] = [];
const snap = async () => {
  await settled(phone);
  shots.push(Buffer.from(await phone.screenshot()));
};
await tap(phone, 'mark-signature');
await snap();
await tap(phone, 'details');
await snap();
await phone.evaluate(() => {
  (
    Array.from(document.querySelectorAll('[role=button]')).find((e) => e.textContent === 'Cancel') as HTMLElement
  ).click();
});
await tap(phone, 'let-go');
await tap(phone, 'kind-strike');
const pad = await phone.waitForSelector(byTestId('strike-pad'));
const b = (await pad!.boundingBox())!;
await phone.mouse.move(b.x + 60, b.y + 82);
await phone.mouse.down();
await phone.mouse.move(b.x + 200, b.y + 90, { steps: 5 });
await phone.mouse.up();
await snap();
await tap(phone, 'tab-check');
await snap();
await sharp({ create: { width: 390 * shots.length, height: 844, channels: 3, background: '#fff' } })
  .composite(shots.map((input, i) => ({ input, left: i * 390, top: 0 })))
  .png()
  .toFile('/tmp/s3.png');
await browser.close();
