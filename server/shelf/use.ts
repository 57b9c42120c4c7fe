/** Using a kit on a deal: the preview, and making the packet, sent or as a draft. */
import { dateOfKey } from '@gatepath/core/deal';
import { mergeTags, tagValues } from '@gatepath/core/merge';
import { PACKET_LIMITS, overLimit, type Delivery } from '@gatepath/core/packet';
import { fillSlots, sameSlot, slotsOf, withDocuments } from '@gatepath/core/shelf';
import { isOfPaper } from '@gatepath/core/writing';
import type { DealPatch, KitsView, KitTrial, KitUseBody } from '@gatepath/contract';
import type { Context } from '../context';
import { deleteDraft } from '../packets/draft-service';
import { inTransaction, type Tx } from '../db/tx';
import { changeDeal } from '../deals/changes';
import { partiesOfDeal } from '../deal-records/party-queries';
import * as deals from '../deal-records/queries';
import { factsOfDeal } from '../deal-records/deals';
import { dealOr404 } from '../deal-records/deals';
import { NOTHING_COMPUTED } from '../deals/status';
import { queueDealStatus } from '../jobs/deal-status';
import { insertDocument } from '../documents/queries';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { asPacketParty } from '../packets/draft-service';
import { insertPacket } from '../packets/queries';
import { sendLater } from '../packets/later';
import { inNameOf, sendPacket } from '../packets/service';
import { Problem } from '../problem';
import * as q from './queries';
import { locksView, slotView } from './views';
import { workOut, type Changes, type Worked } from './work-out';
import type { FormPaper } from './written';

/** Returns a preview of a kit on a deal; nothing is saved. */
export async function tryKit(
  ctx: Context,
  dealId: string,
  kitId: string,
  changes: Changes,
  member: Member,
): Promise<KitTrial> {
  const worked = await workOut(ctx, dealId, kitId, changes, member);
  const { kit, edition, deal, forms, uses, findings } = worked;
  const { draft } = worked.made;
  const tags = tagValues(factsOfDeal(deal), draft.parties);
  const says = (text: string) => mergeTags(text, tags).text;
  const types = new Set(forms.map((f) => f.document.type));
  const computed = (await deals.computedOf(ctx.database.pool, dealId)) ?? NOTHING_COMPUTED;
  return {
    kit: { id: kit.id, name: kit.name, edition: edition.edition },
    address: deal.address,
    name: draft.name,
    subject: draft.subject,
    message: draft.message,
    says: { subject: says(draft.subject), message: says(draft.message) },
    lastDay: draft.schedule.lastDay,
    nudges: draft.schedule.nudge !== null,
    later: worked.later,
    timeZone: deal.time_zone,
    reports: draft.reports ?? [],
    papers: forms.length,
    pages: forms.reduce((sum, f) => sum + f.document.pages.length, 0),
    slots: slotsTold(worked),
    people: peopleTold(worked),
    gates: draft.gates.map((g) => g.partyIds),
    findings,
    unknown: worked.unknown,
    uses,
    meets: computed.needs.requirements.filter((r) => r.state === 'open' && types.has(r.paper)).map((r) => r.title),
    locks: locksView(kit.locks),
  };
}

/** Returns the kit's slots with the people who fill them, and how many papers have something for each. */
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

/** Returns everyone in the packet, with what they will have to do. */
function peopleTold({ made }: Worked): KitTrial['people'] {
  return made.draft.parties.map((p) => {
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
 * Makes a packet from a kit, and sends it if asked to. A problem stops it before anything is saved.
 *
 * @returns the packet's id
 * @throws Problem `over-limits`, `gate-check`, `warnings`, `changed-meanwhile`
 */
export async function useKit(
  ctx: Context,
  dealId: string,
  kitId: string,
  body: KitUseBody,
  member: Member,
): Promise<string> {
  const { send, despiteWarnings, saveValues, forId, uses, ...changes } = body;
  const worked = await workOut(ctx, dealId, kitId, changes, member);
  if (uses !== undefined && worked.uses > uses) throw usedMeanwhile();
  if (send) requireClean(worked.findings, despiteWarnings);
  if (send && forId && forId !== member.id) await inNameOf(ctx.database.pool, forId, member);
  const full = overLimit(worked.made.draft);
  if (full)
    throw new Problem(
      'over-limits',
      `A packet takes at most ${PACKET_LIMITS[full]} ${full}, and this kit would make more. Make two kits of it.`,
    );
  if (saveValues && changes.values) await changeDeal(ctx, dealId, ofDeal(changes.values), member);
  const id = await inTransaction(ctx.database.pool, (tx) => savePacketOfKit(ctx, tx, worked, member));
  // Its warnings were accepted above, including those of the kit.
  const how = { version: 1, despiteWarnings: true, ...(forId ? { forId } : {}) };
  try {
    if (send && worked.later) await sendLater(ctx, id, { ...how, ...worked.later }, member);
    else if (send) await sendPacket(ctx, id, how, member, { isDue: true });
  } catch (error) {
    // Nothing was sent: asking again makes this packet, not a second one.
    await deleteDraft(ctx, id);
    throw error;
  }
  return id;
}

/** Returns values of tags as facts and days of a deal. */
function ofDeal(values: NonNullable<Changes['values']>): Pick<DealPatch, 'facts' | 'dates' | 'city'> {
  const facts: NonNullable<DealPatch['facts']> = {};
  const dates: NonNullable<DealPatch['dates']> = {};
  const { city, ...known } = values;
  for (const [key, value] of Object.entries(known)) {
    if (isOfPaper(key)) continue;
    const date = dateOfKey(key);
    if (!date) facts[key] = value;
    else if (typeof value === 'string') dates[date] = value;
  }
  return { facts, dates, ...(typeof city === 'string' ? { city } : {}) };
}

/**
 * Saves a packet made from a kit. @throws Problem `changed-meanwhile` if the kit was used on the deal since the
 * preview: one act makes one packet
 */
export async function savePacketOfKit(
  ctx: Context,
  tx: Tx,
  worked: Worked,
  member: Member,
  of: { noticeId?: string; delivery?: Delivery } = {},
): Promise<string> {
  const { kit, edition, deal, forms, made } = worked;
  const id = newId();
  await deals.lockDeal(tx.db, deal.id);
  if ((await q.packetsOfKit(tx.db, deal.id, kit.id)).length !== worked.uses) throw usedMeanwhile();
  const ids = new Map<string, string>();
  for (const f of forms) ids.set(f.document.id, await copyToDeal(tx.db, f, deal.id, ctx.clock.now()));
  await insertPacket(tx.db, {
    id,
    deal_id: deal.id,
    name: made.draft.name,
    draft: {
      ...withDocuments(made.draft, (doc) => ids.get(doc) ?? doc),
      ...(of.delivery ? { delivery: of.delivery } : {}),
    },
    created_by: member.id,
    at: ctx.clock.now(),
    kit: { id: kit.id, edition: edition.edition, locks: kit.locks },
    ...(of.noticeId ? { noticeId: of.noticeId } : {}),
  });
  await queueDealStatus(ctx, tx, deal.id);
  tx.afterCommit(() => ctx.live.notify(topics.deal(deal.id)));
  return id;
}

const usedMeanwhile = () =>
  new Problem('changed-meanwhile', 'This kit was used on this deal just now. Look at the deal again.');

function requireClean(findings: Worked['findings'], despiteWarnings: boolean): void {
  const stop = findings.find((f) => f.severity === 'stops');
  if (stop) throw new Problem('gate-check', stop.sentence);
  const warning = findings[0];
  if (warning && !despiteWarnings)
    throw new Problem('warnings', `The gate check has a warning: ${warning.sentence} Send anyway if that is intended.`);
}

/** Saves the paper of a form as a document of a deal, with the same files. */
async function copyToDeal(
  db: Parameters<typeof insertDocument>[0],
  { row, document }: FormPaper,
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

/** Maximum number of kits considered for a deal. */
const MOST_KITS = 200;

/** Returns kits for a deal: first those that meet most of what it needs, and of those the ones that miss nobody. */
export async function kitsForDeal(ctx: Context, dealId: string, member: Member): Promise<KitsView> {
  const db = ctx.database.pool;
  await dealOr404(db, dealId);
  const kits = await q.usableKits(db, member.id, MOST_KITS);
  const editions = await q.lastEditions(
    db,
    kits.map((k) => k.id),
  );
  const formIds = [...new Set([...editions.values()].flatMap((e) => e.draft.documents.map((d) => d.id)))];
  const types = await q.typesOfForms(db, formIds);
  const people = (await partiesOfDeal(db, dealId)).map(asPacketParty);
  const { needs } = (await deals.computedOf(db, dealId)) ?? NOTHING_COMPUTED;
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
