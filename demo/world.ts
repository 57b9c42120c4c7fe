/** The demo world: a firm in Tern Lock, its year, and three deals that are shown closely. Made through the real routes. */
import type { DealView, DocumentView, HandBody } from '@gatepath/contract';
import type { DraftEdit, MarkKind } from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import { addDays, dayOf } from '@gatepath/core/calendar';
import type { Running } from '../server/app';
import { findFirm, insertMember, listMembers } from '../server/firm/queries';
import { hashPassword } from '../server/firm/password';
import { demoSignInsOf } from '../server/firm/service';
import { InProcess } from '../server/in-process';
import { newId } from '../server/ids';
import { documentById } from '../server/documents/queries';
import { captionsOn } from './captions';
import { loadNotice } from './notices';
import { loadShelf } from './shelf';
import { loadYear } from './year';
import { agencyDisclosure, listingAgreement, sellersDisclosure } from './papers';

const PASSWORD = 'towpath-demo';
const MEMBERS = [
  { name: 'Odile Farrant', email: 'odile@towpath-vane.example.com' },
  { name: 'Tobias Mercer', email: 'tobias@towpath-vane.example.com' },
];

/** Puts the demo's members on the sign-in screen, and returns them. */
export function announceSignIns(running: Running) {
  const signIns = MEMBERS.map((m) => ({ ...m, password: PASSWORD }));
  demoSignInsOf(running.ctx).push(...signIns);
  return signIns;
}

export async function isLoaded(running: Running): Promise<boolean> {
  return (await findFirm(running.ctx.database.pool)) !== null;
}

const typed = (
  signature: string,
  initials: string,
  face: 'caveat' | 'dancing-script' | 'la-belle-aurore' = 'caveat',
): HandBody => ({ form: 'typed', face, signature, initials });

interface Person {
  side: 'seller' | 'buyer' | 'landlord' | 'tenant' | 'listing_broker' | 'manager' | 'other';
  name: string;
  email: string;
  phone?: string;
}

const mark = (documentId: string, page: number, kind: MarkKind, partyId: string, rect: Rect): DraftEdit => ({
  op: 'put',
  list: 'marks',
  item: { id: newId(), documentId, page, kind, partyId, rect, required: true },
});
const rule = (documentId: string, partyIds: string[], fx: number): DraftEdit => ({
  op: 'put',
  list: 'rules',
  item: { id: `rule-${documentId}`, documentId, partyIds, anchor: { fx, fy: 1 }, except: [], moved: [] },
});

const A_YEAR_AGO = 340 * 86_400_000;

export async function loadWorld(running: Running, say: (step: string) => void): Promise<void> {
  const desk = new InProcess(() => running.app);
  say('Setting up Towpath & Vane Realty');
  // The firm is older than its oldest deal: its seal is valid from then on.
  running.ctx.clock.forward(-A_YEAR_AGO);
  const setup = await desk.call('setup', {
    body: { firmName: 'Towpath & Vane Realty', timeZone: 'America/New_York', ...MEMBERS[0], password: PASSWORD },
  });
  if (setup.status !== 200) throw new Error(setup.raw.toString());
  desk.cookie = setup.cookie!;
  const db = running.ctx.database.pool;
  const firmId = (await listMembers(db))[0]!.firm_id;
  await insertMember(db, {
    id: newId(),
    firm_id: firmId,
    ...MEMBERS[1]!,
    role: 'member',
    password_hash: await hashPassword(PASSWORD),
    at: running.ctx.clock.now(),
  });

  running.ctx.clock.forward(A_YEAR_AGO);
  const members = await listMembers(db);
  const open = async (kind: DealView['kind'], address: string, parties: Person[], papers: [string, Uint8Array][]) => {
    const deal = await desk.ok('newDeal', { body: { kind, address, city: 'Tern Lock', parties } });
    const docs: DocumentView[] = [];
    for (const [name, bytes] of papers) docs.push(await desk.uploadReady(deal.id, name, bytes));
    return { deal, docs };
  };
  const start = async (deal: DealView, name: string, docs: DocumentView[]) =>
    desk.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name, documentIds: docs.map((d) => d.id) },
    });

  await loadYear(
    {
      desk,
      running,
      signBlock: (doc, page, captions, ids) => signBlock(running, doc, page, captions, ids),
      async signIn() {
        const answer = await desk.call('signIn', {
          body: { email: MEMBERS[0]!.email, password: PASSWORD },
          as: 'nobody',
        });
        desk.cookie = answer.cookie!;
      },
    },
    say,
  );

  const today = dayOf(running.ctx.clock.now().toISOString(), 'America/New_York');
  const know = (dealId: string, body: object) => desk.ok('setDeal', { params: { dealId }, body });

  say('Opening Unit 3B, Cooper’s Wharf (executed)');
  {
    const { deal, docs } = await open(
      'tenancy',
      'Unit 3B, Cooper’s Wharf',
      [
        { side: 'landlord', name: 'Henrike Osei', email: 'henrike.osei@example.com', phone: '555-0131' },
        { side: 'tenant', name: 'Юрий Калина', email: 'yuri.kalina@example.com', phone: '555-0132' },
      ],
      [['Agency disclosure.pdf', await agencyDisclosure()]],
    );
    await know(deal.id, {
      status: 'agreed',
      facts: {
        rent: 1_850,
        deposit: 3_700,
        year_built: 2004,
        pets: false,
        units: 12,
        furnished: false,
        guaranteed: false,
      },
      dates: { lease_signed: addDays(today, 1), move_in: addDays(today, 12), end: addDays(today, 377) },
    });
    const packet = await start(deal, 'Agency disclosure', docs);
    const [landlord, tenant] = deal.parties;
    const doc = docs[0]!.id;
    await desk.edit(packet.id, [
      rule(doc, [landlord!.id, tenant!.id], 1),
      ...(await signBlock(running, doc, 2, ['Seller or landlord', 'Buyer or tenant'], [landlord!.id, tenant!.id])),
    ]);
    await desk.send(packet.id);
    await desk.sign(await desk.tokenFor(packet.id, landlord!.name), typed('Henrike Osei', 'HO', 'la-belle-aurore'));
    await desk.sign(await desk.tokenFor(packet.id, tenant!.name), typed('Юрий Калина', 'ЮК'));
    await desk.until(packet.id, (p) => !!p.sent?.sealed);
  }

  say('Opening 7 Weir Terrace (on the desk)');
  {
    const { deal, docs } = await open(
      'sale',
      '7 Weir Terrace',
      [
        { side: 'seller', name: 'Agnes Thorvald', email: 'agnes.thorvald@example.com', phone: '555-0121' },
        { side: 'buyer', name: 'Priya Nair', email: 'priya.nair@example.com', phone: '555-0122' },
        { side: 'buyer', name: 'Mateo Ibarra', email: 'mateo.ibarra@example.com', phone: '555-0123' },
      ],
      [['Seller’s property disclosure.pdf', await sellersDisclosure('7 Weir Terrace')]],
    );
    await know(deal.id, {
      status: 'under_contract',
      facts: { price: 412_000, year_built: 1962, association: false, water: 'well', waste: 'sewer', tank: false },
      dates: {
        accepted: addDays(today, -2),
        inspection: addDays(today, 5),
        loan: addDays(today, 14),
        closing: addDays(today, 30),
      },
    });
    const packet = await start(deal, 'Seller’s disclosure', docs);
    const doc = docs[0]!;
    const last = doc.pages.length;
    const [agnes, priya] = deal.parties;
    await desk.edit(packet.id, [
      rule(doc.id, [agnes!.id, priya!.id], 1),
      ...(await signBlock(running, doc.id, last, ['Seller 1'], [agnes!.id])),
    ]);
  }

  say('Opening 14 Lantern Row (waiting for the second seller)');
  {
    const { deal, docs } = await open(
      'listing',
      '14 Lantern Row',
      [
        { side: 'seller', name: 'Wren Alder', email: 'alders@example.com', phone: '555-0111' },
        { side: 'seller', name: 'Callum Alder', email: 'alders@example.com', phone: '555-0112' },
        { side: 'listing_broker', name: 'Tobias Mercer', email: 'tobias@towpath-vane.example.com' },
        { side: 'other', name: 'Tern Lock Escrow', email: 'desk@ternlock-escrow.example.com' },
      ],
      [
        ['Listing agreement.pdf', await listingAgreement('14 Lantern Row')],
        ['Seller’s property disclosure.pdf', await sellersDisclosure('14 Lantern Row')],
      ],
    );
    await know(deal.id, {
      status: 'active',
      facts: { price: 415_000, year_built: 1985, association: true, water: 'town', commission: 5 },
      dates: { listed: addDays(today, 4) },
      tags: ['canal side'],
    });
    const packet = await start(deal, 'Listing papers', docs);
    const [wren, callum, tobias] = deal.parties.map((p) => p.id) as [string, string, string];
    const [agreement, disclosure] = docs as [DocumentView, DocumentView];
    const a = agreement.pages.length;
    const d = disclosure.pages.length;
    await desk.edit(packet.id, [
      rule(agreement.id, [wren, callum, tobias], 1),
      rule(disclosure.id, [wren, callum], 1),
      ...(await signBlock(
        running,
        agreement.id,
        a,
        ['Seller 1', 'Seller 2', 'Listing broker'],
        [wren, callum, tobias],
      )),
      ...(await signBlock(running, disclosure.id, d, ['Seller 1', 'Seller 2'], [wren, callum])),
      ...packet.draft.parties.flatMap((p): DraftEdit[] =>
        p.id === callum
          ? [{ op: 'put', list: 'parties', item: { ...p, language: 'es' } }]
          : p.id === tobias
            ? [{ op: 'put', list: 'parties', item: { ...p, memberId: members[1]!.id } }]
            : [],
      ),
      {
        op: 'set',
        field: 'schedule',
        value: {
          lastDay: addDays(dayOf(running.ctx.clock.now().toISOString(), deal.timeZone), 8),
          warnDays: 1,
          nudge: { first: 2, every: 2, most: 3, businessDays: true },
        },
      },
      { op: 'set', field: 'handOver', value: true },
      {
        op: 'set',
        field: 'message',
        value:
          'Wren and Callum, these are the listing papers we talked about on Friday. Call me if anything is unclear.',
      },
    ]);
    await desk.send(packet.id);
    await desk.sign(await desk.tokenFor(packet.id, 'Wren Alder'), typed('Wren Alder', 'WA', 'dancing-script'));
    await desk.sign(await desk.tokenFor(packet.id, 'Callum Alder'), typed('Callum Alder', 'CA'), 4);
    await desk.ok('askQuestion', {
      params: { token: await desk.tokenFor(packet.id, 'Callum Alder') },
      body: { actId: newId(), text: '¿El cobertizo del jardín está incluido en la venta?' },
      as: 'nobody',
    });
    say('Filling the shelf');
    await loadShelf(desk, { packetId: packet.id, name: 'Listing papers' });
    say('Sending a notice to ten homes');
    await loadNotice(desk, running.ctx);
  }
}

/** Returns signature and date marks on the printed lines above the given captions, found by their words. */
async function signBlock(
  running: Running,
  doc: string,
  page: number,
  captions: string[],
  partyIds: string[],
): Promise<DraftEdit[]> {
  const row = (await documentById(running.ctx.database.pool, doc))!;
  const found = await captionsOn(await running.ctx.files.read(row.sha256), page, captions);
  return captions.flatMap((caption, i) => {
    const at = found.get(caption);
    if (!at) throw new Error(`the demo paper has no “${caption}” on page ${page}`);
    const id = partyIds[i]!;
    return [
      mark(doc, page, 'signature', id, { x: at.x + 4, y: at.y - 32, w: 170, h: 27 }),
      mark(doc, page, 'date_signed', id, { x: at.x + 314, y: at.y - 22, w: 96, h: 17 }),
    ];
  });
}
