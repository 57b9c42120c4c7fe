/** A firm with tenancies and a kit for notices, for tests and for measuring. */
import type { ShelfItemView } from '@gatepath/contract';
import type { Act, DraftEdit } from '@gatepath/core/packet';
import { newSlot } from '@gatepath/core/shelf';
import { newId } from '../ids';
import type { InProcess } from '../in-process';

const t = (text: string) => ({ type: 'text', text });
const tag = (key: string) => ({ type: 'tag', attrs: { key } });
const p = (...content: object[]) => ({ type: 'paragraph', content });

/** Returns what the notice of a change of rent says; with signatures when it is to be signed. */
const rentText = (tenants: string, signed: boolean) => ({
  type: 'doc',
  content: [
    { type: 'heading', attrs: { level: 1 }, content: [t('Notice of a change of rent')] },
    p(t('To '), tag('people.tenant'), t(', at '), tag('address'), t('.')),
    p(
      t('The rent a month is '),
      tag('rent'),
      t(' now. From '),
      tag('paper.from'),
      t(' on it will be '),
      tag('paper.new_rent'),
      t('.'),
    ),
    p(
      t(
        'Nothing else of the lease changes. If anything about this is not clear, write to us or come by; we are glad to help.',
      ),
    ),
    ...(signed ? [{ type: 'signatures', attrs: { slots: [tenants], date: true } }] : []),
  ],
});

/** What these need of a server: in this process, or over the wire. */
export type Desk = Pick<InProcess, 'ok' | 'post'>;

/** Returns a kit of one written form, for every tenant, who signs it or only has it delivered. */
export async function noticeKit(server: Desk, act: Act, name = 'Change of rent'): Promise<ShelfItemView> {
  let form = await server.ok('newWritten', { body: { name } });
  const params = { shelfId: form.id };
  const tenants = { ...newSlot('every', 'tenant', 1, newId(), 0), act };
  const edits: DraftEdit[] = [
    { op: 'put', list: 'parties', item: tenants },
    { op: 'put', list: 'gates', item: { id: 'g', partyIds: [tenants.id] } },
  ];
  await server.ok('editShelfItem', { params, body: { edits } });
  const text = { language: 'en', doc: rentText(tenants.id, act === 'sign') };
  form = await server.ok('saveWritten', { params, body: { version: 1, text } });
  while (!form.documents.every((d) => d.status === 'ready')) {
    await new Promise((r) => setTimeout(r, 50));
    form = await server.ok('shelfItem', { params });
  }
  form = await server.ok('putOnShelf', { params, body: { version: form.version } });
  const kit = await server.ok('newKit', { body: { name, formIds: [form.id] } });
  return server.ok('putOnShelf', { params: { shelfId: kit.id }, body: { version: kit.version } });
}

/** Returns tenancies at units of a street, brought in as a table; each with one tenant, every seventh with two. */
export async function tenancies(server: Desk, count: number, street = '4 Basin Street'): Promise<string[]> {
  const homes = Array.from({ length: count }, (_, i) => `Unit ${i + 1}, ${street}`);
  const rows = homes.map((home, i) => {
    const second = i % 7 === 6 ? `; Rowan Tran ${i + 1} <rowan${i + 1}@example.com>` : '';
    return `"${home}",Tenancy,running,"Ines Moor ${i + 1} <ines${i + 1}@example.com>${second}",${1100 + i}`;
  });
  const table = ['Address,Kind,Status,Tenant,Rent a month', ...rows].join('\n');
  const done = await server.post('importTable', { tableKind: 'deals' }, 'homes.csv', Buffer.from(table), {
    take: 'all',
  });
  if (done.status !== 200) throw new Error(done.raw.toString());
  return homes;
}
