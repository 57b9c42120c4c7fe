/** The firm's shelf: forms with their places for roles, and kits made of them and of a packet that went well. */
import type { ShelfItemView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import { acceptEdits, isOwn, isSure, proposalsOf, type DraftEdit } from '@gatepath/core/packet';
import { newSlot } from '@gatepath/core/shelf';
import type { InProcess } from '../server/in-process';
import { newId } from '../server/ids';
import { PaperWriter } from './layout';
import { agencyDisclosure, sellersDisclosure } from './papers';

const put = (desk: InProcess, item: Pick<ShelfItemView, 'id' | 'version'>) =>
  desk.ok('putOnShelf', { params: { shelfId: item.id }, body: { version: item.version } });

/** Returns a disclosure about lead paint, in the firm's own words. */
async function leadPaint(): Promise<Uint8Array> {
  const w = await PaperWriter.begin('Lead paint disclosure', null, 0.92);
  w.head('Lead paint disclosure', 'For homes that were built before 1978');
  w.section('Why you get this paper');
  w.clause(
    'Paint in homes that were built before 1978 may hold lead. Dust and chips of it harm people, and children most of all. Whoever sells such a home says what is known of it, hands over what was found, and leaves the buyers time to have it looked at.',
  );
  w.section('What the sellers know');
  w.question('The sellers know of paint with lead in the home');
  w.question('The sellers have reports about it and have handed them over');
  w.blank('What is known, and where in the home');
  w.keep(330).section('Signatures');
  for (const who of ['Seller 1', 'Seller 2', 'Buyer 1', 'Buyer 2']) w.signature(who);
  return w.finish();
}

/** Brings a paper in as a form, takes its signature lines for the roles they name, and puts it on the shelf. */
async function form(
  desk: InProcess,
  name: string,
  bytes: Uint8Array,
  type: 'seller_disclosure' | 'lead_paint' | 'agency_disclosure',
): Promise<ShelfItemView> {
  const made = await desk.post('newForm', {}, `${name}.pdf`, bytes);
  if (made.status !== 200) throw new Error(made.raw.toString());
  const params = { shelfId: made.body.id };
  let item = made.body;
  while (!item.slots.length) {
    await new Promise((r) => setTimeout(r, 40));
    item = await desk.ok('shelfItem', { params });
  }
  const paper = item.documents[0];
  if (!paper) throw new Error('a form has a paper');
  await desk.ok('setDocument', { params: { documentId: paper.id }, body: { type } });
  const facts = unpackFacts(paper.id, paper.name, await desk.ok('documentFacts', { params: { documentId: paper.id } }));
  const own = proposalsOf(item.draft, [facts]).filter((p) => isSure(p) && isOwn(p.kind) && p.kind !== 'initials');
  const sellers = item.draft.parties.filter((p) => p.side === 'seller').map((p) => p.id);
  const edits: DraftEdit[] = [
    ...acceptEdits(own, item.draft.parties),
    {
      op: 'put',
      list: 'rules',
      item: {
        id: `rule-${paper.id}`,
        documentId: paper.id,
        partyIds: sellers,
        anchor: { fx: 1, fy: 1 },
        except: [],
        moved: [],
      },
    },
  ];
  const { version } = await desk.ok('editShelfItem', { params, body: { edits } });
  return put(desk, { id: item.id, version });
}

const t = (text: string) => ({ type: 'text', text });
const tag = (key: string) => ({ type: 'tag', attrs: { key } });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const row = (what: string, ...value: object[]) => ({
  type: 'tableRow',
  content: [
    { type: 'tableCell', content: [p(t(what))] },
    { type: 'tableCell', content: [p(...value)] },
  ],
});

/** Returns a form that is written here: what holds in a rented home, with a line about keys for each tenant. */
async function houseRules(desk: InProcess): Promise<ShelfItemView> {
  const made = await desk.ok('newWritten', { body: { name: 'Rules of the house' } });
  const params = { shelfId: made.id };
  const landlord = newSlot('one', 'landlord', 1, newId(), 0);
  const tenants = newSlot('every', 'tenant', 1, newId(), 1);
  const edits: DraftEdit[] = [
    ...[landlord, tenants].map((item): DraftEdit => ({ op: 'put', list: 'parties', item })),
    { op: 'put', list: 'gates', item: { id: newId(), partyIds: [tenants.id] } },
    { op: 'put', list: 'gates', item: { id: newId(), partyIds: [landlord.id] } },
    {
      op: 'put',
      list: 'rules',
      item: {
        id: newId(),
        documentId: made.documents[0]?.id ?? '',
        partyIds: [tenants.id],
        anchor: { fx: 1, fy: 1 },
        except: [],
        moved: [],
      },
    },
  ];
  await desk.ok('editShelfItem', { params, body: { edits } });
  const content = [
    { type: 'heading', attrs: { level: 1 }, content: [t('Rules of the house')] },
    p(
      t('These rules hold for '),
      tag('address'),
      t(' in '),
      tag('city'),
      t(', rented by '),
      tag('people.tenant'),
      t('.'),
    ),
    {
      type: 'table',
      content: [
        row('Rent a month', tag('rent')),
        row('Deposit', tag('deposit')),
        row('Moving in', tag('date.move_in')),
      ],
    },
    { type: 'heading', attrs: { level: 2 }, content: [t('Quiet, bins and boats')] },
    p(t('Between ten at night and seven in the morning the house is quiet. Bins stand at the towpath on Tuesdays.')),
    {
      type: 'when',
      attrs: { key: 'pets', is: 'there', value: '' },
      content: [p(t('Pets may live here. They are kept off the lock and its gates.'))],
    },
    {
      type: 'each',
      attrs: { side: 'tenant' },
      content: [
        p(
          tag('each.name'),
          t(' was given a key, number '),
          {
            type: 'place',
            attrs: { kind: 'number', slot: tenants.id, label: 'Number on your key', required: true, wide: false },
          },
          t('.'),
        ),
      ],
    },
    { type: 'heading', attrs: { level: 2 }, content: [t('Agreed')] },
    { type: 'signatures', attrs: { slots: [tenants.id, landlord.id], date: true } },
  ];
  const text = { language: 'en', doc: { type: 'doc', content } };
  let item = await desk.ok('saveWritten', { params, body: { version: made.written?.version ?? 1, text } });
  while (item.documents.some((d) => d.status === 'reading')) {
    await new Promise((r) => setTimeout(r, 40));
    item = await desk.ok('shelfItem', { params });
  }
  return put(desk, item);
}

/** Fills the shelf: three forms of papers and one that is written, a kit of two of them, one of the text, and one kept from a packet. */
export async function loadShelf(desk: InProcess, keep: { packetId: string; name: string }): Promise<void> {
  const disclosure = await form(
    desk,
    'Seller’s disclosure',
    await sellersDisclosure('The home named in the packet'),
    'seller_disclosure',
  );
  const lead = await form(desk, 'Lead paint disclosure', await leadPaint(), 'lead_paint');
  await form(desk, 'Agency disclosure', await agencyDisclosure(), 'agency_disclosure');
  const rules = await houseRules(desk);
  await put(desk, await desk.ok('newKit', { body: { name: 'Moving in', formIds: [rules.id] } }));
  const kit = await desk.ok('newKit', {
    body: { name: 'Older home, for the seller', formIds: [disclosure.id, lead.id] },
  });
  const params = { shelfId: kit.id };
  const { version } = await desk.ok('editShelfItem', {
    params,
    body: {
      edits: [
        { op: 'set', field: 'subject', value: 'The disclosures for {address}' },
        {
          op: 'set',
          field: 'message',
          value: 'These are the papers about {address} we talked about. Call me if anything is unclear.',
        },
        {
          op: 'set',
          field: 'schedule',
          value: { lastDay: null, warnDays: 1, nudge: { first: 2, every: 2, most: 3, businessDays: true } },
        },
      ],
    },
  });
  await desk.ok('setShelfItem', { params, body: { locks: ['path', 'schedule'], lastIn: 7 } });
  await put(desk, { id: kit.id, version });
  const kept = await desk.ok('addToShelf', { body: keep });
  await put(desk, kept);
}
