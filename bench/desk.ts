import { spawnSync } from 'node:child_process';
import { byTestId, launch, openPage, signIn, tap, WIDE } from '../e2e/browser';
import type { Running } from '../server/app';
import type { InProcess } from '../server/in-process';
import type { DealView } from '@gatepath/contract';
import { MEMBER } from './firm';
import { rowOf, type Row } from './measure';

export interface DeskView {
  row: Row;
  /** Pages in the packet, and how many rows and thumbnails the browser holds at once. */
  pages: number;
  rows: number;
  thumbs: number;
}

/** Measures the desk of a packet with everything in it, against the desk of its first document alone; in Chromium. */
export async function deskRow(running: Running, desk: InProcess, deal: DealView): Promise<DeskView> {
  if (spawnSync(process.execPath, ['scripts/build-web.mjs'], { stdio: 'ignore' }).status !== 0)
    throw new Error('the web application cannot be built');
  await running.app.listen({ port: 0, host: '127.0.0.1' });
  const address = running.app.server.address() as { port: number };
  const base = `http://localhost:${address.port}`;
  await desk.ok('addParty', {
    params: { dealId: deal.id },
    body: { side: 'seller', name: 'Wren Alder', email: 'wren@example.com' },
  });
  const packet = (ids: string[], name: string) =>
    desk.ok('newPacket', { params: { dealId: deal.id }, body: { name, documentIds: ids } });
  const ids = deal.documents.map((d) => d.id);
  const all = await packet(ids, 'Everything');
  const one = await packet(ids.slice(0, 1), 'One');
  const browser = await launch();
  try {
    const page = await openPage(browser, WIDE);
    page.setDefaultTimeout(120_000);
    await signIn(page, base, MEMBER.email, MEMBER.password);
    const open = async (id: string) => {
      const start = performance.now();
      await page.goto(`${base}/packets/${id}`);
      await page.waitForSelector(byTestId('ledger-row-1'));
      await page.waitForSelector(byTestId('accept-all'));
      return performance.now() - start;
    };
    const small: number[] = [];
    const large: number[] = [];
    for (let i = 0; i < 3; i++) {
      small.push(await open(one.id));
      large.push(await open(all.id));
    }
    const middle = (a: number[]) => a.sort((x, y) => x - y)[1]!;
    // Memory is looked at in a window of its own: one that was used before keeps pages for going back.
    await page.browserContext().close();
    const fresh = await openPage(browser, WIDE);
    fresh.setDefaultTimeout(120_000);
    await signIn(fresh, base, MEMBER.email, MEMBER.password);
    await fresh.goto(`${base}/packets/${all.id}`);
    await fresh.waitForSelector(byTestId('accept-all'));
    const rows = await fresh.$$eval('[data-testid^="ledger-row-"]', (e) => e.length);
    await tap(fresh, 'all-pages');
    await fresh.waitForSelector('[data-testid="thumb-1"]');
    const thumbs = await fresh.$$eval('[data-testid^="thumb-"]', (e) => e.length);
    // What is held, not what waits to be collected.
    await (await fresh.createCDPSession()).send('HeapProfiler.collectGarbage');
    const memory = (await fresh.metrics()).JSHeapUsedSize ?? 0;
    return {
      row: {
        ...rowOf('open the desk of 60 documents, 1,000 pages', middle(large), 'the desk of one of them', middle(small)),
        memory: Math.round(memory / 1024 / 1024),
      },
      pages: deal.documents.reduce((n, d) => n + d.pages.length, 0),
      rows,
      thumbs,
    };
  } finally {
    await browser.close();
  }
}
