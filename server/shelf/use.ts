/** Using a kit on a deal: what it would make of it, and making it, sent or as a draft. */
import { dayOf, dueDay } from '@gatepath/core/calendar';
import { DRAFT_LISTS, PACKET_LIMITS, type Draft, type DraftEdit } from '@gatepath/core/packet';
import { brokenLock, fillSlots, lockedWords, sameSlot, slotsOf, withDocuments } from '@gatepath/core/shelf';
import type { KitsView, KitTrial, KitUseBody } from '@gatepath/contract';
import { mergeTags, tagValues } from '@gatepath/core/merge';
import { sure } from '@gatepath/core/sure';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { partiesOfDeal } from '../deals/party-queries';
import * as deals from '../deals/queries';
import { dealOr404, factsOfDeal } from '../deals/service';
import { lookAgain, NO_STANDING } from '../deals/standing';
import { documentsOnShelf, insertDocument, type DocumentRow } from '../documents/queries';
import { factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { asPacketParty } from '../packets/draft-service';
import { insertPacket } from '../packets/queries';
import { sendPacket } from '../packets/service';
import { notFound, Problem } from '../problem';
import * as q from './queries';
import { itemOr404, locksView, slotView, usableForms } from './service';

type Changes = Omit<KitUseBody, 'send' | 'despiteWarnings'>;

/** A kit worked out for a deal. */
interface Worked {
  kit: q.ShelfRow;
  edition: q.EditionRow;
  deal: deals.DealRow;
  forms: { row: q.EditionRow; document: DocumentRow }[];
  /** With the changes of who uses it; its documents are the forms'. */
  draft: Draft;
  made: Awaited<ReturnType<typeof runKit>>;
  /** How many packets of the deal were made of it before. */
  before: number;
  findings: { sentence: string; severity: 'stops' | 'warns' }[];
}

const runKit = (
  ctx: Context,
  t: { kit: Draft; forms: Worked['forms']; people: Draft['parties']; deal: deals.DealRow },
) =>
  ctx.work.run(
    'kit',
    {
      kit: t.kit,
      forms: t.forms.map((f) => ({
        draft: f.row.draft,
        document: sure(factsFiles(ctx, [f.document])[0], 'its facts'),
      })),
      people: t.people,
      facts: factsOfDeal(t.deal),
    },
    t.deal.id,
  );

/** How a packet stands, in few words. */
const STANDS: Record<string, string> = { drafting: 'is in draft', at_gate: 'is on its way', executed: 'is executed' };

/** @throws Problem `not-found`, `not-on-shelf`, `reading`, `locked-setting` */
async function workOut(ctx: Context, dealId: string, kitId: string, changes: Changes, member: Member): Promise<Worked> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, dealId);
  const kit = await itemOr404(db, kitId, member);
  if (kit.what !== 'kit') throw notFound('This kit');
  const edition = (await q.lastEditions(db, [kitId])).get(kitId);
  if (!edition || kit.retired_at)
    throw new Problem(
      'not-on-shelf',
      `The kit “${kit.name}” is not on the shelf. Put it there first, or take another.`,
    );
  const edits = editsOf(edition.draft, changes);
  const broken = brokenLock(edits, kit.locks);
  if (broken) throw new Problem('locked-setting', lockedWords(broken));
  const forms = await formsOf(ctx, edition.draft);
  const people = (await partiesOfDeal(db, dealId)).map(asPacketParty);
  const made = await runKit(ctx, { kit: edition.draft, forms, people, deal });
  const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
  const lastDay = await lastDayOf(ctx, kit, today);
  const schedule = { ...made.draft.schedule, ...(lastDay ? { lastDay } : {}) };
  const draft = {
    ...made.draft,
    schedule,
    ...(changes.name === undefined ? {} : { name: changes.name }),
    ...(changes.subject === undefined ? {} : { subject: changes.subject }),
    ...(changes.message === undefined ? {} : { message: changes.message }),
    ...(changes.lastDay === undefined ? {} : { schedule: { ...schedule, lastDay: changes.lastDay } }),
  };
  const forItems = await q.itemsByIds(
    db,
    forms.map((f) => f.row.item_id),
  );
  const before = await q.packetsOfKit(db, dealId, kitId);
  const findings = [
    ...before.slice(0, 1).map((x) => ({
      sentence: `This kit was used on this deal already: “${x.name}” ${STANDS[x.status] ?? 'is there'}.`,
      severity: 'warns' as const,
    })),
    ...made.slots
      .filter((s) => s.empty === 'nobody')
      .map((s) => ({
        sentence: `Nobody fills the place of ${s.slot.name}. Add a person to the deal, or send it without.`,
        severity: 'warns' as const,
      })),
    ...forItems
      .filter((f) => f.ends_on && f.ends_on < today)
      .map((f) => ({
        sentence: `This edition of “${f.name}” held until ${f.ends_on}. Look whether there is a newer one.`,
        severity: 'warns' as const,
      })),
    ...made.findings.map(({ sentence, severity }) => ({ sentence, severity })),
  ];
  return { kit, edition, deal, forms, draft, made, before: before.length, findings };
}

/** Changes of who uses a kit, as the edits they would be. */
const editsOf = (kit: Draft, c: Changes): DraftEdit[] => [
  ...(c.name === undefined || c.name === kit.name ? [] : [{ op: 'set', field: 'name', value: c.name } as const]),
  ...(c.subject === undefined || c.subject === kit.subject
    ? []
    : [{ op: 'set', field: 'subject', value: c.subject } as const]),
  ...(c.message === undefined || c.message === kit.message
    ? []
    : [{ op: 'set', field: 'message', value: c.message } as const]),
  ...(c.lastDay === undefined
    ? []
    : [{ op: 'set', field: 'schedule', value: { ...kit.schedule, lastDay: c.lastDay } } as const]),
];

async function lastDayOf(ctx: Context, kit: q.ShelfRow, today: string): Promise<string | null> {
  if (!kit.last_in) return null;
  const count = { n: kit.last_in, unit: 'business_days', way: 'after', roll: true } as const;
  return dueDay(count, today, (await ctx.firm())?.holidays ?? []).day;
}

/** The forms of a kit, each in its last edition with the paper of it. */
async function formsOf(ctx: Context, kit: Draft): Promise<Worked['forms']> {
  const db = ctx.database.pool;
  const ids = kit.documents.map((d) => d.id);
  const editions = await usableForms(db, ids);
  const papers = new Map((await documentsOnShelf(db, ids)).map((d) => [d.id, d]));
  return ids.map((id) => {
    const row = sure(editions.get(id), 'an edition');
    const document = papers.get(row.draft.documents[0]?.id ?? '');
    if (!document)
      throw new Problem('not-on-shelf', `The paper of “${row.draft.name}” is gone. Bring the form in again.`);
    return { row, document };
  });
}

/** What a kit would make of a deal; nothing is kept. */
export async function tryKit(
  ctx: Context,
  dealId: string,
  kitId: string,
  changes: Changes,
  member: Member,
): Promise<KitTrial> {
  const worked = await workOut(ctx, dealId, kitId, changes, member);
  const { kit, edition, deal, forms, draft, before, findings } = worked;
  const tags = tagValues(factsOfDeal(deal), draft.parties);
  const says = (text: string) => mergeTags(text, tags).text;
  const types = new Set(forms.map((f) => f.document.type));
  const standing = (await deals.standingOf(ctx.database.pool, dealId)) ?? NO_STANDING;
  return {
    kit: { id: kit.id, name: kit.name, edition: edition.edition },
    name: draft.name,
    subject: draft.subject,
    message: draft.message,
    says: { subject: says(draft.subject), message: says(draft.message) },
    lastDay: draft.schedule.lastDay,
    nudges: draft.schedule.nudge !== null,
    papers: forms.length,
    pages: forms.reduce((sum, f) => sum + f.document.pages.length, 0),
    slots: slotsTold(worked),
    people: peopleTold(worked),
    gates: draft.gates.map((g) => g.partyIds),
    findings,
    used: before > 0,
    meets: standing.needs.requirements.filter((r) => r.state === 'open' && types.has(r.paper)).map((r) => r.title),
    locks: locksView(kit.locks),
  };
}

/** The kit's slots with whoever fills them, and how many papers have something for each. */
function slotsTold({ forms, made }: Worked): KitTrial['slots'] {
  const wanted = forms.flatMap(({ row: { draft } }) => {
    const ids = new Set([...draft.marks.map((m) => m.partyId), ...draft.rules.flatMap((r) => r.partyIds)]);
    return slotsOf(draft.parties).filter((s) => ids.has(s.id));
  });
  return made.slots.map(({ slot, people, empty }) => ({
    ...slotView(slot),
    side: slot.side,
    people: people.map((p) => p.id),
    empty,
    papers: wanted.filter((w) => sameSlot(w, slot)).length,
  }));
}

/** Everybody of the packet, with what they will have to do. */
function peopleTold({ draft, made }: Worked): KitTrial['people'] {
  return draft.parties.map((p) => {
    const does = made.doing.find((d) => d.partyId === p.id);
    return {
      id: p.id,
      name: p.name,
      ink: p.ink,
      side: p.side,
      act: p.act,
      signatures: does?.signatures ?? 0,
      initials: does?.initials ?? 0,
      others: does?.others ?? 0,
      beyond: made.beyond.find((b) => b.partyId === p.id)?.documentIds.length ?? 0,
    };
  });
}

/**
 * Makes a packet of a kit, and sends it when that is wished. What stops it stops it before anything is kept.
 *
 * @returns the packet's id
 */
export async function useKit(
  ctx: Context,
  dealId: string,
  kitId: string,
  body: KitUseBody,
  member: Member,
): Promise<string> {
  const { send, despiteWarnings, ...changes } = body;
  const { kit, edition, deal, forms, draft, findings } = await workOut(ctx, dealId, kitId, changes, member);
  if (send) requireClean(findings, despiteWarnings);
  for (const list of DRAFT_LISTS)
    if (draft[list].length > PACKET_LIMITS[list])
      throw new Problem(
        'over-limits',
        `A packet takes at most ${PACKET_LIMITS[list]} ${list}, and this kit would make more. Make two kits of it.`,
      );
  const id = newId();
  await inTransaction(ctx.database.pool, async (tx) => {
    const ids = new Map<string, string>();
    for (const f of forms) ids.set(f.document.id, await copyToDeal(tx.db, f, dealId, ctx.clock.now()));
    await insertPacket(tx.db, {
      id,
      deal_id: dealId,
      name: draft.name,
      draft: withDocuments(draft, (of) => ids.get(of) ?? of),
      created_by: member.id,
      at: ctx.clock.now(),
      kit: { id: kit.id, edition: edition.edition, locks: kit.locks },
    });
    await lookAgain(ctx, tx, deal.id);
    tx.afterCommit(() => ctx.live.tell(topics.deal(dealId)));
  });
  // Its warnings were answered above, those of the kit among them.
  if (send) await sendPacket(ctx, id, { version: 1, despiteWarnings: true }, member);
  return id;
}

function requireClean(findings: Worked['findings'], despiteWarnings: boolean): void {
  const stop = findings.find((f) => f.severity === 'stops');
  if (stop) throw new Problem('gate-check', stop.sentence);
  const warning = findings[0];
  if (warning && !despiteWarnings)
    throw new Problem('warnings', `The gate check has a warning: ${warning.sentence} Send anyway if that is meant.`);
}

/** The paper of a form as a document of a deal: the same files, and where they come from. */
async function copyToDeal(
  db: Parameters<typeof insertDocument>[0],
  { row, document }: Worked['forms'][number],
  dealId: string,
  at: Date,
): Promise<string> {
  const id = newId();
  await insertDocument(db, {
    ...document,
    id,
    deal_id: dealId,
    shelf_id: null,
    name: row.draft.name,
    bytes: Number(document.bytes),
    created_at: at,
    replaced_by: null,
    form_id: row.item_id,
    form_edition: row.edition,
  });
  return id;
}

/** As many kits as are looked through for a deal. */
const MOST_KITS = 200;

/** Kits for a deal: those first that meet most of what it needs, and of those that miss nobody. */
export async function kitsForDeal(ctx: Context, dealId: string, member: Member): Promise<KitsView> {
  const db = ctx.database.pool;
  await dealOr404(db, dealId);
  const kits = await q.usableKits(db, member.id, MOST_KITS);
  const editions = await q.lastEditions(
    db,
    kits.map((k) => k.id),
  );
  const formIds = [...new Set([...editions.values()].flatMap((e) => e.draft.documents.map((d) => d.id)))];
  const types = new Map((await documentsOnShelf(db, formIds)).map((d) => [d.shelf_id, d.type]));
  const people = (await partiesOfDeal(db, dealId)).map(asPacketParty);
  const { needs } = (await deals.standingOf(db, dealId)) ?? NO_STANDING;
  const items = kits.flatMap((k) => {
    const draft = editions.get(k.id)?.draft;
    if (!draft) return [];
    const papers = new Set(draft.documents.map((d) => types.get(d.id)));
    const slots = slotsOf(draft.parties);
    return [
      {
        id: k.id,
        name: k.name,
        papers: draft.documents.length,
        slots: slots.map(slotView),
        gates: draft.gates.map((g) => g.partyIds),
        meets: needs.requirements.filter((r) => r.state === 'open' && papers.has(r.paper)).map((r) => r.title),
        missing: fillSlots(slots, people)
          .slots.filter((s) => s.empty === 'nobody')
          .map((s) => s.slot.name),
      },
    ];
  });
  items.sort((a, b) => b.meets.length - a.meets.length || a.missing.length - b.missing.length);
  return { items };
}
