/** The purchase of the long story: seven people, four gates, and a paper to be initialled on every page; not sent yet. */
import { unpackFacts, type DealView, type PackedFacts, type PacketView } from '@gatepath/contract';
import type { DraftEdit, MarkKind, PacketParty } from '@gatepath/core/packet';
import { FreeSpace, type Rect } from '@gatepath/core/paper';
import { longForm, LONG_PAGES } from './long-form';
import type { Office } from './office';

const PEOPLE = [
  { side: 'seller', name: 'Wren Alder', email: 'alders@example.com' },
  { side: 'seller', name: 'Callum Alder', email: 'alders@example.com' },
  { side: 'other', name: 'Ana Ruiz', email: 'ana@law.example.com' },
  { side: 'listing_broker', name: 'Tobias Mercer', email: '' },
  { side: 'buyer', name: 'Priya Nair', email: 'priya@wrong.example.com' },
  { side: 'buyer', name: 'Mateo Ibarra', email: 'mateo@example.com', phone: '555-0123' },
  { side: 'other', name: 'Escrow Desk', email: 'escrow@example.com' },
] as const;
/** Brings the people, the paper and the packet into a firm that is set up. */
export async function purchase(office: Office): Promise<{ deal: DealView; packet: PacketView }> {
  const deal = await office.deal('14 Lantern Row', [...PEOPLE]);
  const doc = await office.paper(deal.id, 'Purchase agreement.pdf', await longForm());
  const packet = await office.packet(deal.id, 'Purchase papers', [doc.id]);
  const id = (name: string) => deal.parties.find((p) => p.name.startsWith(name))!.id;
  const more: Record<string, Partial<PacketParty>> = {
    Callum: { language: 'es', note: 'Callum, call me if the Spanish reads oddly.' },
    Ana: { act: 'approve' },
    Tobias: { act: 'desk' },
    Priya: { act: 'sign', secondStep: 'email' },
    Mateo: { act: 'sign', secondStep: 'phone' },
    Escrow: { act: 'copy' },
  };
  const signers = ['Wren', 'Callum', 'Tobias', 'Priya', 'Mateo'];
  const packed = await office.call<PackedFacts>('GET', `/api/documents/${doc.id}/facts`);
  const { pages, places } = unpackFacts(doc.id, doc.name, packed);
  const printed = { Wren: ['seller', 1], Callum: ['seller', 2], Priya: ['buyer', 1], Mateo: ['buyer', 2] } as const;
  // The broker has no printed line: anywhere free of print and of what is printed for others.
  const taken = places.filter((x) => x.page === LONG_PAGES).map((x) => x.rect);
  const room = new FreeSpace(pages[LONG_PAGES - 1]!, taken).nearest({ w: 160, h: 28 }, { x: 330, y: 560 }, 900)!;
  const onPage = (kind: MarkKind, name: string, rect: Rect): DraftEdit => ({
    op: 'put',
    list: 'marks',
    item: {
      id: `${kind}-${name}`,
      documentId: doc.id,
      page: LONG_PAGES,
      kind,
      partyId: id(name),
      rect,
      required: true,
    },
  });
  await office.edit(packet.id, [
    ...packet.draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
    ...packet.draft.parties.map((p): DraftEdit => ({
      op: 'put',
      list: 'parties',
      item: { ...p, ...more[p.name.split(' ')[0]!] },
    })),
    ...[['Wren', 'Callum'], ['Ana'], ['Tobias'], ['Priya', 'Mateo']].map((names, i): DraftEdit => ({
      op: 'put',
      list: 'gates',
      item: { id: `g${i}`, partyIds: names.map(id) },
    })),
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'every',
        documentId: doc.id,
        partyIds: signers.map(id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    },
    ...Object.entries(printed).flatMap(([name, [role, ordinal]]) =>
      places
        .filter((x) => x.role === role && x.ordinal === ordinal && (x.kind === 'signature' || x.kind === 'date'))
        .map((x) => onPage(x.kind === 'date' ? 'date_signed' : 'signature', name, x.rect)),
    ),
    onPage('signature', 'Tobias', room),
    {
      op: 'set',
      field: 'schedule',
      value: { lastDay: null, warnDays: 0, nudge: { first: 1, every: 2, most: 3, businessDays: false } },
    },
  ]);
  return { deal, packet };
}
