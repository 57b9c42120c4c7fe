import { composed, slotPeople, tagDefs, namesBySide } from '../core/writing';
import { fillSlots, slotsOf } from '../core/shelf';
import { sure } from '../core/sure';
import { asPacketParty } from '../server/packets/draft-service';
import { partiesOfDeal } from '../server/deal-records/party-queries';
import { lastEditions } from '../server/shelf/queries';
import { setWritten } from '../server/typesetting/written';
import { noticeKit, tenancies } from '../server/test/notices';
import { wordsOf } from '../server/words';
import { addDays } from '../core/calendar';
import { withFirm } from './firm';
import { rowOf, type Row } from './measure';

const HOMES = 120;

/**
 * Measures a notice to many households, from the rows to the last message queued: worked out, checked, its papers set
 * and read, packets kept and sent. Against the bare making of the same PDFs with the same library, one after the other.
 */
export function rows(): Promise<Row[]> {
  return withFirm(async (desk, running) => {
    const { ctx } = running;
    const kit = await noticeKit(desk, 'receive');
    const homes = await tenancies(desk, HOMES);
    await ctx.jobs.idle('rules');
    await ctx.jobs.idle('deal');
    const from = addDays(ctx.clock.now().toISOString().slice(0, 10), 120);
    const run = async (rents: number, count: number) => {
      const notice = await desk.ok('newNotice', { body: { kitId: kit.id } });
      const params = { noticeId: notice.id };
      const table = ['Home,New rent,From', ...homes.slice(0, count).map((h, i) => `"${h}",${rents + i},${from}`)].join(
        '\n',
      );
      const start = performance.now();
      await desk.post('homeTable', params, 'homes.csv', Buffer.from(table), { take: 'true' });
      await ctx.jobs.idle('notice');
      await desk.ok('goNotice', { params });
      await ctx.jobs.idle('notice');
      const took = performance.now() - start;
      const { counts } = await desk.ok('notice', { params });
      if (counts.gone !== count) throw new Error(`${counts.gone} of ${count} went`);
      return took;
    };
    // Workers and libraries are warm in both.
    await run(1500, 12);
    await ctx.jobs.idle('mail');
    const ours = await run(2000, HOMES);
    const theirs = await bare(running, kit.id, HOMES, from);
    return [
      rowOf(
        `a notice to ${HOMES} homes, from the table to the last one gone`,
        ours,
        'its PDFs alone, with pdfmake',
        theirs,
      ),
    ];
  });
}

/** Returns the same papers and nothing else: composed and set in this process. */
async function bare(
  { ctx }: Parameters<Parameters<typeof withFirm>[0]>[1],
  kitId: string,
  count: number,
  from: string,
): Promise<number> {
  const db = ctx.database.pool;
  const kit = sure((await lastEditions(db, [kitId])).get(kitId), 'a kit');
  const formId = sure(kit.draft.documents[0], 'a form').id;
  const form = sure((await lastEditions(db, [formId])).get(formId), 'a form');
  const text = sure(form.written, 'a text');
  const words = wordsOf('en');
  const tags = new Map(tagDefs().map((t) => [t.key, t]));
  const slots = slotsOf(form.draft.parties);
  const deals = (
    await db.query<{ id: string; address: string }>(`select id, address from deal order by id limit ${count}`)
  ).rows;
  const papers: ReturnType<typeof composed>[] = [];
  for (const [i, d] of deals.entries()) {
    const people = (await partiesOfDeal(db, d.id)).map(asPacketParty);
    const facts = new Map<string, string | number>([
      ['address', d.address],
      ['rent', 1100 + i],
      ['paper.new_rent', 2000 + i],
      ['paper.from', from],
    ]);
    const who = slotPeople(fillSlots(slots, people), people, words);
    papers.push(composed(text, { words, tags, values: { facts, people: namesBySide(people) }, ...who }));
  }
  const set = (p: ReturnType<typeof composed>) =>
    setWritten({ title: form.draft.name, blocks: p.blocks, places: p.places });
  for (const p of papers.slice(0, 12)) await set(p);
  const start = performance.now();
  for (const p of papers) await set(p);
  return performance.now() - start;
}
