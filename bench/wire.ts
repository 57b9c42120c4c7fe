/** What a signing link brings over the wire before the first act: its JavaScript against a bare shell of the same
 *  router, Paper and Query built by the same bundler, and everything together; counted in Chromium. */
import { spawnSync } from 'node:child_process';
import { createReadStream, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { byTestId, launch, openPage, PHONE } from '../e2e/browser';
import { makeLinkSecret } from '../server/links/links';
import { inTransaction } from '../server/db/tx';
import { withFirm } from './firm';
import { rowOf, type Row } from './measure';

/** What everything before the first act may be, in bytes. */
const ALL = 550_000;

interface Wire {
  /** All JavaScript as brotli sends it, in bytes. */
  js: number;
  /** Everything that came, as it came. */
  all: number;
}

/** Opens a page with nothing kept from before, and counts until `ready` is there and the line is quiet. */
async function count(url: string, ready: string): Promise<Wire> {
  const browser = await launch();
  try {
    const page = await openPage(browser, PHONE);
    const line = await page.createCDPSession();
    await line.send('Network.enable');
    let all = 0;
    line.on('Network.loadingFinished', (e) => (all += e.encodedDataLength));
    const bodies: Promise<Buffer>[] = [];
    page.on('response', (r) => {
      if (new URL(r.url()).pathname.endsWith('.js')) bodies.push(r.buffer().then((b) => Buffer.from(b)));
    });
    await page.goto(url);
    await page.waitForSelector(ready);
    await page.waitForNetworkIdle({ concurrency: 1 });
    const params = { [constants.BROTLI_PARAM_QUALITY]: 9 };
    const js = (await Promise.all(bodies)).reduce((n, b) => n + brotliCompressSync(b, { params }).length, 0);
    return { js, all };
  } finally {
    await browser.close();
  }
}

/** Builds our own web application, or bundles the one in a folder to another. */
function build(...args: [] | [dir: string, out: string]): void {
  const r = spawnSync(process.execPath, ['scripts/build-web.mjs', ...args], { encoding: 'utf8' });
  if (r.status !== 0) throw new Error(r.stderr);
}

/** Returns a signing link of a packet of one page, on a server of its own. */
function link(): Promise<Wire> {
  return withFirm(async (desk, running) => {
    const deal = await desk.ok('newDeal', {
      body: {
        kind: 'sale',
        address: '14 Lantern Row',
        parties: [{ side: 'buyer', name: 'Wren Alder', email: 'wren@example.com' }],
      },
    });
    const doc = await PDFDocument.create();
    const font = await doc.embedFont(StandardFonts.Helvetica);
    const page = doc.addPage([612, 792]);
    for (let y = 720; y > 200; y -= 18)
      page.drawText('The roof, drains and cellar are as described in this paper.', { x: 72, y, size: 11, font });
    const paper = await desk.uploadReady(deal.id, 'Paper.pdf', await doc.save());
    const packet = await desk.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name: 'Papers', documentIds: [paper.id] },
    });
    const partyId = packet.draft.parties[0]!.id;
    const rect = { x: 72, y: 100, w: 160, h: 26 };
    await desk.edit(packet.id, [
      {
        op: 'put',
        list: 'marks',
        item: { id: 's', documentId: paper.id, page: 1, kind: 'signature', partyId, rect, required: true },
      },
    ]);
    await desk.send(packet.id);
    const token = await inTransaction(running.ctx.database.pool, (tx) =>
      makeLinkSecret(running.ctx, tx, packet.id, partyId),
    );
    await running.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = running.app.server.address() as AddressInfo;
    return count(`http://localhost:${port}/sign/${token}`, byTestId('agree'));
  });
}

/** Returns the bare shell, built and served from a folder of its own. */
async function shell(): Promise<Wire> {
  const out = mkdtempSync(path.join(os.tmpdir(), 'gatepath-shell-'));
  build(path.join(import.meta.dirname, 'shell'), out);
  const server = createServer((request, response) => {
    const name = decodeURIComponent(new URL(request.url!, 'http://localhost').pathname);
    if (name === '/answer') return void response.end('Here');
    const type = name.endsWith('.js') ? 'text/javascript' : 'text/html';
    response.setHeader('content-type', type);
    createReadStream(path.join(out, name === '/' ? 'index.html' : name))
      .on('error', () => response.writeHead(404).end())
      .pipe(response);
  }).listen(0);
  try {
    return await count(`http://localhost:${(server.address() as AddressInfo).port}/`, byTestId('answer'));
  } finally {
    server.close();
    rmSync(out, { recursive: true, force: true });
  }
}

export async function rows(): Promise<Row[]> {
  build();
  const ours = await link();
  const bare = await shell();
  return [
    { ...rowOf('JavaScript of a signing link', ours.js, 'a bare shell of the same parts', bare.js), unit: 'bytes' },
    { ...rowOf('everything before the first act', ours.all, 'the bound of 550 kB', ALL), unit: 'bytes' },
  ];
}
