import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { DealView, PacketView } from '@gatepath/contract';
import { firstBreak } from '@gatepath/core/proof';
import { sha256 } from './ids';
import { loadEvents, rebuild } from './packets/log';
import { eventsAfter } from './packets/log-queries';
import { readModelOf } from './packets/read-model-queries';
import { verifySealed } from './pdf-sealing/verify';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';
import { judged, sound } from './test/judges';

jest.setTimeout(120_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const wren = { side: 'seller', name: 'Wren Alder', email: 'alders@example.com' };
const callum = { side: 'seller', name: 'Callum Alder', email: 'alders@example.com' };
const tobias = { side: 'listing_broker', name: 'Tobías Muñoz', email: 'tobias@example.com' };

async function newPacket(pages: number): Promise<{ deal: DealView; packet: PacketView; documentId: string }> {
  const deal = await server.ok('newDeal', {
    body: { kind: 'listing', address: '14 Lantern Row', city: 'Tern Lock', parties: [wren, callum, tobias] },
  });
  const doc = await server.uploadReady(deal.id, 'listing_agreement.pdf', await paper({ pages }));
  expect(doc.status).toBe('ready');
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Listing papers', documentIds: [doc.id] },
  });
  await server.edit(packet.id, [
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'every',
        documentId: doc.id,
        partyIds: deal.parties.map((p) => p.id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    },
    ...deal.parties.map((p, i) => ({
      op: 'put' as const,
      list: 'marks' as const,
      item: {
        id: `sig${i}`,
        documentId: doc.id,
        page: pages,
        kind: 'signature' as const,
        partyId: p.id,
        rect: { x: 72 + i * 150, y: 690, w: 140, h: 26 },
        required: true,
      },
    })),
  ]);
  return { deal, packet, documentId: doc.id };
}

test('a packet goes from draft to sealed copies that other tools call valid', async () => {
  const { packet, documentId } = await newPacket(3);
  const sent = await server.send(packet.id);
  expect(sent.status).toBe('at_gate');
  expect(sent.sent!.plan.marks.filter((m) => m.kind === 'initials')).toHaveLength(9);
  expect(sent.draft.gates.map((g) => g.partyIds.length)).toEqual([2, 1]);

  await expect(server.tokenFor(packet.id, 'Tobías Muñoz')).rejects.toThrow('no message');
  await server.sign(await server.tokenFor(packet.id, 'Wren Alder'), typedHand('Wren Alder', 'WA'));
  await server.sign(await server.tokenFor(packet.id, 'Callum Alder'), {
    form: 'drawn',
    signature: { width: 300, height: 100, strokes: [[10, 10, 60, 80, 120, 20, 200, 90]] },
    initials: {
      width: 100,
      height: 60,
      strokes: [
        [10, 10, 60, 50, 80, 20],
        [30, 30],
      ],
    },
    initialsText: 'CA',
  });
  const half = await server.ok('packet', { params: { packetId: packet.id } });
  expect(half.sent!.gate).toBe(1);
  expect(half.sent!.holdUp.sentence).toBe('Tobías has not opened it yet.');
  await server.sign(await server.tokenFor(packet.id, 'Tobías Muñoz'), typedHand('Tobías Muñoz', 'TM'));
  const done = await server.until(packet.id, (p) => p.sent!.sealed !== null);
  expect(done.status).toBe('executed');
  expect(done.sent!.ledger.done).toBe(done.sent!.ledger.total);

  const copy = await server.call('sealedCopy', { params: { packetId: packet.id, documentId } });
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'sealed-')), 'copy.pdf');
  writeFileSync(file, new Uint8Array(copy.raw));
  expect(judged(copy.raw)).toEqual(sound(4));
  for (const page of ['1', '2', '3']) {
    const text = execFileSync('pdftotext', ['-f', page, '-l', page, file, '-']).toString();
    for (const initials of ['WA', 'CA', 'TM']) expect(text).toContain(initials);
  }
  expect(verifySealed(copy.raw).whole).toBe(true);
  const everyone = await Promise.all(
    ['Wren Alder', 'Callum Alder', 'Tobías Muñoz'].map((n) => server.tokenFor(packet.id, n, 'executed')),
  );
  for (const token of everyone) {
    const mine = await server.call('signingFile', { params: { token, documentId }, as: 'nobody' });
    expect(mine.raw.equals(new Uint8Array(copy.raw))).toBe(true);
  }

  const db = server.ctx.database.pool;
  const before = await readModelOf(db, packet.id);
  await rebuild(db, packet.id);
  expect(await readModelOf(db, packet.id)).toEqual(before);
  const rows = await eventsAfter(db, packet.id, 0);
  const events = await loadEvents(db, packet.id);
  expect(
    firstBreak(
      rows.map((r, i) => ({ event: events[i]!, prevHash: r.prev_hash, hash: r.hash })),
      sha256,
    ),
  ).toBeNull();
  await expect(db.query(`update packet_event set at = 'never' where packet_id = $1`, [packet.id])).rejects.toThrow(
    'append-only',
  );
});
