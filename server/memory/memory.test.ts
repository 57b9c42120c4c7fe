/** Documents seen before, against a real server: recognized, placed again for other people, not offered any more. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { editsOfRecalled } from '@gatepath/core/memory';
import type { DealView, DocumentView, PacketView } from '@gatepath/contract';
import type { DraftEdit } from '@gatepath/core/packet';
import { markEdit, serverAtNoon, type Way } from '../test/way';
import { ALL_DOCUMENTS } from './remember';

jest.setTimeout(120_000);

let way: Way;
serverAtNoon((started) => (way = started));

const CLAUSES = [
  'The seller tells what is known about old paint in the rooms of this home.',
  'Children who swallow flakes of it can fall ill and stay so for many years.',
  'The buyer has received the booklet about it before any offer was written.',
  'Whoever buys may have the walls inspected within ten days at their own cost.',
  'Nothing that is said here takes the place of an inspection by somebody trained.',
];
interface Print {
  title?: string;
  price?: string;
  clauses?: string[];
  font?: StandardFonts;
}
/** Returns a form of one page: a price to fill in, a line for the seller, one for the buyer, and one that nobody uses. */
async function disclosure({
  title = 'Disclosure of lead based paint',
  price = '',
  clauses = CLAUSES,
  font,
}: Print = {}) {
  const doc = await PDFDocument.create();
  const type = await doc.embedFont(font ?? StandardFonts.Helvetica);
  const page = doc.addPage([612, 792]);
  const put = (text: string, y: number, size = 10) => page.drawText(text, { x: 72, y, size, font: type });
  put(title, 720, 16);
  clauses.forEach((c, i) => put(c, 680 - 22 * i));
  put('Price agreed between them in dollars: ____________________', 540);
  if (price) page.drawText(price, { x: 270, y: 542, size: 10, font: type });
  put('Seller signature: ______________________________', 480);
  put('Buyer signature: ______________________________', 430);
  put('Reference of the office: ____________________', 380);
  return doc.save();
}

const LINES = { seller: { x: 160, y: 292, w: 150, h: 22 }, buyer: { x: 160, y: 342, w: 150, h: 22 } };
const newPacket = (deal: DealView, documents: DocumentView[]) =>
  way.server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Papers', documentIds: documents.map((d) => d.id) },
  });
const deals = async (address: string, seller: string, buyer: string) =>
  way.server.deal(address, [
    { side: 'seller', name: seller },
    { side: 'buyer', name: buyer },
  ]);
const of = (deal: DealView, side: string) => deal.parties.find((p) => p.side === side)!.id;

/** Sends the form in a deal, with marks placed by hand. */
async function sent(address: string, seller: string, buyer: string, print: Print = {}): Promise<PacketView> {
  const deal = await deals(address, seller, buyer);
  const doc = await way.server.uploadReady(deal.id, 'paint.pdf', await disclosure(print));
  const packet = await newPacket(deal, [doc]);
  const label: DraftEdit = {
    op: 'put',
    list: 'marks',
    item: {
      id: 'price',
      documentId: doc.id,
      page: 1,
      kind: 'text',
      partyId: of(deal, 'buyer'),
      rect: { x: 262, y: 238, w: 90, h: 16 },
      required: false,
      label: `Price for ${buyer}`,
      value: '412,000 as Wren wanted',
      readOnly: true,
    },
  };
  await way.server.edit(packet.id, [
    markEdit('s', doc.id, 1, 'signature', of(deal, 'seller'), LINES.seller),
    markEdit('b', doc.id, 1, 'signature', of(deal, 'buyer'), LINES.buyer),
    label,
  ]);
  return way.server.send(packet.id);
}

/** Opens a deal with a document, and returns what is remembered of it. */
async function brought(print: Print = {}, address = '9 Mill Cut', bytes?: Uint8Array) {
  const deal = await deals(address, 'Agnes Thorvald', 'Priya Nair');
  const doc = await way.server.uploadReady(deal.id, 'other-name.pdf', bytes ?? (await disclosure(print)));
  const packet = await newPacket(deal, [doc]);
  const params = { packetId: packet.id, documentId: doc.id };
  const { remembered } = await way.server.ok('remembered', { params });
  return { deal, doc, packet, params, remembered };
}

test('a document that was never sent is not remembered', async () => {
  expect((await brought()).remembered).toBeNull();
});

test('a document that was sent comes with its marks, for the people of the new deal and with nothing of the old one', async () => {
  await sent('26 Lock Hill', 'Wren Alder', 'Bo Quill');
  const { deal, doc, packet, remembered } = await brought({ price: '398,500' });
  expect(remembered).toMatchObject({
    kind: 'filled',
    gone: 0,
    added: 0,
    from: { kind: 'packet', name: 'paint', address: '26 Lock Hill', executed: false },
    times: 1,
    // The price is typed in this time: a mark on it would lie over print.
    uncertain: 1,
    lost: 0,
    unfilled: 0,
  });
  expect(remembered!.doubtful).toMatchObject([{ kind: 'text', partyId: of(deal, 'buyer') }]);
  expect(remembered!.marks.filter((m) => m.kind === 'signature')).toMatchObject([
    { documentId: doc.id, partyId: of(deal, 'seller'), rect: LINES.seller },
    { documentId: doc.id, partyId: of(deal, 'buyer'), rect: LINES.buyer },
  ]);
  expect(JSON.stringify(remembered)).not.toMatch(/Wren|Alder|Bo |Quill|412,000/);
  const { draft } = await way.server.ok('packet', { params: { packetId: packet.id } });
  await way.server.edit(packet.id, editsOfRecalled(draft!, remembered!));
  await way.signAll(
    (await way.server.send(packet.id)) && (await way.server.tokenFor(packet.id, 'Agnes Thorvald')),
    'Agnes Thorvald',
  );
});

test('an executed packet is preferred to one that was sent later', async () => {
  const first = await sent('3 Weir Terrace', 'Agnes Thorvald', 'Priya Nair');
  for (const name of ['Agnes Thorvald', 'Priya Nair'])
    await way.signAll(await way.server.tokenFor(first.id, name), name);
  await way.sealed(first.id);
  await sent('4 Weir Terrace', 'Agnes Thorvald', 'Priya Nair');
  const { remembered } = await brought();
  expect(remembered).toMatchObject({ kind: 'identical', from: { address: '3 Weir Terrace', executed: true } });
  expect(remembered!.times).toBeGreaterThanOrEqual(3);
});

test('what people have corrected is preferred to an executed packet, and the next document is read that way', async () => {
  const print = { title: 'Statement of the roof and of the attic' };
  const packetOf = async (address: string) => {
    const deal = await deals(address, 'Agnes Thorvald', 'Priya Nair');
    const doc = await way.server.uploadReady(deal.id, 'roof.pdf', await disclosure(print));
    return { deal, doc, packet: await newPacket(deal, [doc]), places: await placesOf(doc.id) };
  };
  const placesOf = async (documentId: string) =>
    (await way.server.ok('documentFacts', { params: { documentId } })).places;
  const accepted = async ({ deal, doc, packet, places }: Awaited<ReturnType<typeof packetOf>>, isSwapped: boolean) => {
    const signatures = places.flatMap((p, i) => (p.kind === 'signature' ? [{ ...p, i }] : []));
    await way.server.edit(
      packet.id,
      signatures.map(({ i, page, role, rect }): DraftEdit => {
        const edit = markEdit(
          `s${i}`,
          doc.id,
          page,
          'signature',
          of(deal, (role === 'seller') === isSwapped ? 'buyer' : 'seller'),
          rect,
        );
        return edit.op === 'put' && edit.list === 'marks'
          ? { ...edit, item: { ...edit.item, placeId: `${doc.id}.${page}.${i}` } }
          : edit;
      }),
    );
  };
  const asRead = await packetOf('31 Quarry Lane');
  expect(asRead.places.filter((p) => p.kind === 'signature').map((p) => p.role)).toEqual(['seller', 'buyer']);
  await accepted(asRead, false);
  await way.server.send(asRead.packet.id);
  for (const name of ['Agnes Thorvald', 'Priya Nair'])
    await way.signAll(await way.server.tokenFor(asRead.packet.id, name), name);
  await way.sealed(asRead.packet.id);
  const again = await packetOf('32 Quarry Lane');
  expect(again.places).toEqual(asRead.places);
  // Each signs on the other's line, and the office's reference is nothing to fill in.
  await accepted(again, true);
  const reference = again.places.findIndex((p) => p.label.includes('Reference'));
  expect(reference).toBeGreaterThan(0);
  await way.server.edit(again.packet.id, [
    { op: 'put', list: 'passed', item: { id: `${again.doc.id}.1.${reference}` } },
  ]);
  await way.server.send(again.packet.id);
  const next = await packetOf('33 Quarry Lane');
  expect(next.places.filter((p) => p.kind === 'signature').map((p) => [p.role, p.read?.role])).toEqual([
    ['buyer', 'seller'],
    ['seller', 'buyer'],
  ]);
  expect(next.places[reference]).toMatchObject({ dismissed: true });
  const params = { packetId: next.packet.id, documentId: next.doc.id };
  const { remembered } = await way.server.ok('remembered', { params });
  expect(remembered).toMatchObject({ from: { address: '32 Quarry Lane', executed: false } });
  expect(remembered!.marks.map((m) => m.partyId)).toEqual([of(next.deal, 'buyer'), of(next.deal, 'seller')]);
  // A packet that was withdrawn is not repeated while there is another one.
  await way.server.ok('withdrawPacket', { params: { packetId: again.packet.id }, body: { reason: 'Wrong person' } });
  const after = await packetOf('34 Quarry Lane');
  expect(after.places).toEqual(asRead.places);
});

test('another producer’s print of it is the same document, a changed clause makes another edition, another title another document', async () => {
  expect((await brought({ font: StandardFonts.TimesRoman })).remembered?.kind).toBe('identical');
  const changed = CLAUSES.map((c) => c.replace('ten days', 'two days'));
  expect((await brought({ clauses: changed })).remembered).toMatchObject({ kind: 'edition', gone: 1, added: 1 });
  const other = await brought({
    title: 'Waiver without warranty whatsoever today',
    clauses: [...CLAUSES].reverse().slice(2),
  });
  expect(other.remembered).toBeNull();
});

test('documents that are the same are known as one, also when they come at the same time', async () => {
  const deal = await deals('12 Basin Street', 'Agnes Thorvald', 'Priya Nair');
  const bytes = await disclosure({ title: 'Statement of sewer and septic lines' });
  const docs = await Promise.all([1, 2].map(() => way.server.uploadReady(deal.id, 'sewer.pdf', bytes)));
  await way.server.ctx.jobs.idle('remember');
  const { rows } = await way.server.ctx.database.pool.query<{ known_id: string | null }>(
    'select known_id from document where id = any($1::text[])',
    [docs.map((d) => d.id)],
  );
  expect(rows[0]!.known_id).not.toBeNull();
  expect(rows[1]!.known_id).toBe(rows[0]!.known_id);
});

test('documents that an earlier version has read are compared by a job', async () => {
  const { pool } = way.server.ctx.database;
  await pool.query('delete from known_document');
  expect((await pool.query('select 1 from document where known_id is not null')).rows).toEqual([]);
  await way.server.ctx.jobs.queueNow('memory', ALL_DOCUMENTS);
  await way.server.ctx.jobs.idle('memory');
  const { rows } = await pool.query<{ n: number; known: number }>(
    'select count(*)::int as n, count(distinct known_id)::int as known from document where known_id is not null',
  );
  expect(rows[0]!.n).toBeGreaterThan(8);
  expect(rows[0]!.known).toBeLessThan(rows[0]!.n);
  expect((await brought()).remembered?.from.address).toBe('3 Weir Terrace');
});

test('a form of the shelf is taken before packets, for whoever may use it', async () => {
  const shelved = await sent('5 Weir Terrace', 'Agnes Thorvald', 'Priya Nair');
  const form = await way.server.ok('addToShelf', {
    body: { packetId: shelved.id, documentId: shelved.draft!.documents[0]!.id, name: 'Paint form' },
  });
  expect((await brought()).remembered?.from.kind).toBe('packet');
  await way.server.ok('putOnShelf', { params: { shelfId: form.id }, body: { version: form.version } });
  expect((await brought()).remembered?.from).toMatchObject({ kind: 'form', name: 'Paint form', address: null });
  const tobias = await way.server.member('Tobias Vane', 'tobias@firm.test');
  const me = (await way.server.ok('session')).member!.id;
  await way.server.ok('setShelfItem', { params: { shelfId: form.id }, body: { users: [me], makers: [me] } });
  const odile = way.server.cookie;
  way.server.cookie = tobias.cookie;
  try {
    expect((await brought()).remembered?.from.kind).toBe('packet');
  } finally {
    way.server.cookie = odile;
  }
  await way.server.ok('setShelfItem', { params: { shelfId: form.id }, body: { retired: true } });
});

test('what is not to be offered is not, neither for the paper itself nor for another edition', async () => {
  const { params } = await brought();
  await way.server.ok('stopOffering', { params });
  expect((await way.server.ok('remembered', { params })).remembered).toBeNull();
  expect((await brought({ clauses: CLAUSES.map((c) => c.replace('ten', 'two')) })).remembered).toBeNull();
  // What another paper had on it is still offered.
  const kept = { title: 'Statement of every known leak', price: '1' };
  await sent('8 Weir Terrace', 'Agnes Thorvald', 'Priya Nair', kept);
  expect((await brought(kept)).remembered).not.toBeNull();
});

test('a document of another deal, or of none, is not found', async () => {
  const [a, b] = [await brought(), await brought()];
  const mixed = { packetId: a.packet.id, documentId: b.doc.id };
  for (const params of [mixed, { ...mixed, documentId: 'nothing' }, { ...mixed, packetId: 'nothing' }])
    for (const route of ['remembered', 'stopOffering'] as const)
      expect((await way.server.call(route, { params })).status).toBe(404);
});
