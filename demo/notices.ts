/** A notice to the homes of one house: most have it, one came back, one wants a letter, and two want mending. */
import { addDays } from '@gatepath/core/calendar';
import type { InProcess } from '../server/in-process';
import type { Context } from '../server/context';
import { noticeKit } from '../server/test/notices';

const HOUSE = '4 Basin Street';
const TENANTS = [
  ['Odile Barrow'],
  ['Kofi Ferreira', 'Lena Ferreira'],
  ['Hanne Holm'],
  ['Dirk Achterberg'],
  ['Petra Sallow'],
  ['Isamu Nakagawa'],
  ['Jomo Oyelaran'],
  ['Minh Tran', 'Lan Tran'],
  ['Rosa Quist'],
  ['Esi Danso'],
];
const addressOf = (name: string) => `${name.toLowerCase().replace(/ /g, '.')}@example.com`;

/** Opens ten tenancies and sends them a change of rent; messages are opened as people do. */
export async function loadNotice(desk: InProcess, ctx: Context): Promise<void> {
  const kit = await noticeKit(desk, 'receive');
  const rows = TENANTS.map((names, i) => {
    const people = names.map((n) => (n === 'Rosa Quist' ? n : `${n} <${addressOf(n)}>`)).join('; ');
    return `"Unit ${i + 1}, ${HOUSE}",Tern Lock,Tenancy,running,"${people}",${1150 + (i % 4) * 30}`;
  });
  const table = ['Address,City,Kind,Status,Tenant,Rent a month', ...rows].join('\n');
  await desk.post('importTable', { tableKind: 'deals' }, 'homes.csv', Buffer.from(table), { take: 'all' });
  await ctx.jobs.idle('rules');
  const notice = await desk.ok('newNotice', { body: { kitId: kit.id, name: `Rent from spring, ${HOUSE}` } });
  const params = { noticeId: notice.id };
  const from = addDays(ctx.clock.now().toISOString().slice(0, 10), 90);
  const homes = TENANTS.map((_, i) => {
    const rent = i === 3 ? '' : 1190 + (i % 4) * 30;
    // One would come too late for the firm's own rule.
    return `"Unit ${i + 1}, ${HOUSE}",${rent},${i === 4 ? addDays(from, -40) : from}`;
  });
  const asked = ['Home,New rent,From which day', ...homes].join('\n');
  await desk.post('homeTable', params, 'basin-street.csv', Buffer.from(asked), { take: 'true' });
  await ctx.jobs.idle('notice');
  await desk.ok('goNotice', { params });
  for (const job of ['notice', 'mail'] as const) await ctx.jobs.idle(job);
  const { items } = await desk.ok('mailroom', { query: { limit: '40' } });
  const of = (name: string) => items.find((m) => m.kind === 'deliver' && m.toName === name);
  for (const name of ['Odile Barrow', 'Kofi Ferreira', 'Lena Ferreira', 'Jomo Oyelaran']) {
    const link = of(name)?.link?.split('/sign/')[1];
    if (link) await desk.ok('signing', { params: { token: link }, as: 'nobody' });
  }
  const back = of('Hanne Holm');
  if (back) await desk.ok('returnMessage', { params: { messageId: back.id } });
}
