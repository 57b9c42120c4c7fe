/** Using a kit on a deal: what it would make of it, and making it, sent or as a draft. */
import { dayOf, dueDay, shortDay } from '@gatepath/core/calendar';
import { PACKET_LIMITS, applyEdits, overLimit, type Draft, type DraftEdit } from '@gatepath/core/packet';
import { brokenLock, fillSlots, lockedWords, sameSlot, slotsOf, withDocuments } from '@gatepath/core/shelf';
import { dateOfKey } from '@gatepath/core/deal';
import { lowerFirst } from '@gatepath/core/text';
import type { TagDef } from '@gatepath/core/writing';
import type { DealPatch, KitsView, KitTrial, KitUseBody } from '@gatepath/contract';
import { mergeTags, tagValues } from '@gatepath/core/merge';
import { sure } from '@gatepath/core/sure';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { partiesOfDeal } from '../deals/party-queries';
import { changeDeal } from '../deals/changes';
import * as deals from '../deals/queries';
import { dealOr404, factsOfDeal } from '../deals/service';
import { lookAgain, NO_STANDING } from '../deals/standing';
import { documentsByIds, insertDocument } from '../documents/queries';
import { factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { asPacketParty } from '../packets/draft-service';
import { insertPacket } from '../packets/queries';
import { sendPacket } from '../packets/service';
import { notFound, Problem } from '../problem';
import { itemOr404, usableForms } from './access';
import * as q from './queries';
import { locksView, slotView } from './views';
import { onDeal, paperOnDeal, type FormPaper, type OnDeal } from './written';

type Changes = Omit<KitUseBody, 'send' | 'despiteWarnings' | 'keepValues'>;
interface Said {
  sentence: string;
  severity: 'stops' | 'warns';
}

/** A kit worked out for a deal. */
interface Worked {
  kit: q.ShelfRow;
  edition: q.EditionRow;
  deal: deals.DealRow;
  forms: FormPaper[];
  /** Tags of its forms for which there is nothing. */
  unknown: TagDef[];
  made: Awaited<ReturnType<typeof runKit>>;
  /** How many packets of the deal were made of it before. */
  before: number;
  findings: Said[];
}

/** @param kit  with the changes of who uses it */
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
  const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
  const lastDay = await lastDayOf(ctx, kit, today);
  const start: Draft = { ...edition.draft, schedule: { ...edition.draft.schedule, lastDay } };
  const edits = editsOf(start, changes);
  const broken = brokenLock(edits, kit.locks);
  if (broken) throw new Problem('locked-setting', lockedWords(broken));
  const kept = await formsOf(ctx, edition.draft);
  // Counted before the work, which takes a moment: a use that comes meanwhile is met when the packet is kept.
  const before = await q.packetsOfKit(db, dealId, kitId);
  const people = (await partiesOfDeal(db, dealId)).map(asPacketParty);
  const { forms, unknown, unprintable } = await setForms(
    ctx,
    kept,
    await onDeal(ctx, deal, people, changes.values ?? {}),
  );
  const made = await runKit(ctx, { kit: applyEdits(start, edits), forms, people, deal });
  const findings = [
    ...ofDay(made.draft, today),
    ...ofUse(before),
    ...ofSlots(made),
    ...ofTags(unknown),
    ...ofLetters(unprintable),
    ...(await ofForms(ctx, forms, today)),
    ...made.findings.map(({ sentence, severity }) => ({ sentence, severity })),
  ];
  return { kit, edition, deal, forms, unknown, made, before: before.length, findings };
}

/** Changes of who uses a kit as edits: of what they leave as it is there is none. */
function editsOf(kit: Draft, c: Changes): DraftEdit[] {
  const edits: DraftEdit[] = [];
  for (const field of ['name', 'subject', 'message'] as const) {
    const value = c[field];
    if (value !== undefined && value !== kit[field]) edits.push({ op: 'set', field, value });
  }
  if (c.lastDay !== undefined && c.lastDay !== kit.schedule.lastDay)
    edits.push({ op: 'set', field: 'schedule', value: { ...kit.schedule, lastDay: c.lastDay } });
  return edits;
}

async function lastDayOf(ctx: Context, kit: q.ShelfRow, today: string): Promise<string | null> {
  if (!kit.last_in) return null;
  const count = { n: kit.last_in, unit: 'business_days', way: 'after', roll: true } as const;
  return dueDay(count, today, (await ctx.firm())?.holidays ?? []).day;
}

const ofDay = ({ schedule: { lastDay } }: Draft, today: string): Said[] =>
  lastDay && lastDay < today
    ? [{ sentence: `The last day for signing, ${shortDay(lastDay, today)}, has passed.`, severity: 'stops' }]
    : [];

/** How a packet stands, in few words. */
const STANDS: Record<string, string> = { drafting: 'is in draft', at_gate: 'is on its way', executed: 'is executed' };

const ofUse = ([newest]: { name: string; status: string }[]): Said[] =>
  newest
    ? [
        {
          sentence: `This kit was used on this deal already: “${newest.name}” ${STANDS[newest.status] ?? 'is there'}.`,
          severity: 'warns',
        },
      ]
    : [];

const ofSlots = ({ slots }: Worked['made']): Said[] =>
  slots
    .filter((s) => s.empty === 'nobody')
    .map((s) => ({
      sentence: `Nobody fills the place of ${s.slot.name}. Add a person to the deal, or send it without.`,
      severity: 'warns',
    }));

const ofTags = (unknown: readonly TagDef[]): Said[] =>
  unknown.map((t) => ({
    sentence:
      t.from === 'people'
        ? `A paper names somebody who is not in the deal: ${lowerFirst(t.label)}. Add the person to the deal.`
        : `${t.label} is not known, and a paper needs it. Fill it in here, or in the deal.`,
    severity: 'stops',
  }));

const ofLetters = (letters: readonly string[]): Said[] =>
  letters.length
    ? [
        {
          sentence: `A paper cannot print “${letters.slice(0, 6).join(' ')}”. Write the name or the value another way.`,
          severity: 'stops',
        },
      ]
    : [];

/** The papers of forms written here, set for a deal; those of others stay as they are. */
async function setForms(
  ctx: Context,
  kept: FormPaper[],
  on: OnDeal,
): Promise<{ forms: FormPaper[]; unknown: TagDef[]; unprintable: string[] }> {
  const forms: FormPaper[] = [];
  const missing = new Set<string>();
  const unprintable = new Set<string>();
  for (const form of kept) {
    if (!form.row.written) {
      forms.push(form);
      continue;
    }
    const set = await paperOnDeal(ctx, form, on);
    forms.push(set.form);
    for (const key of set.missing) missing.add(key);
    for (const letter of set.unprintable) unprintable.add(letter);
  }
  const unknown = [...missing].map((key): TagDef => on.tags.get(key) ?? goneTag(key));
  return { forms, unknown, unprintable: [...unprintable] };
}

/** A tag whose fact the firm asks for no more. */
const goneTag = (key: string): TagDef => ({ key, label: `The tag “${key}”`, type: 'text', from: 'firm' });

async function ofForms(ctx: Context, forms: Worked['forms'], today: string): Promise<Said[]> {
  const ids = forms.map((f) => f.row.item_id);
  return (await q.headsByIds(ctx.database.pool, ids)).flatMap((f): Said[] =>
    f.ends_on && f.ends_on < today
      ? [
          {
            sentence: `“${f.name}” may be used until ${shortDay(f.ends_on, today)}, which has passed. Look whether there is a newer edition.`,
            severity: 'warns',
          },
        ]
      : [],
  );
}

/** The forms of a kit, each in its last edition with the paper of it. */
async function formsOf(ctx: Context, kit: Draft): Promise<Worked['forms']> {
  const db = ctx.database.pool;
  const ids = kit.documents.map((d) => d.id);
  const editions = await usableForms(db, ids);
  const paperOf = (row: q.EditionRow) => row.draft.documents[0]?.id ?? '';
  const papers = new Map((await documentsByIds(db, [...editions.values()].map(paperOf))).map((d) => [d.id, d]));
  return ids.map((id) => {
    const row = sure(editions.get(id), 'an edition');
    const document = papers.get(paperOf(row));
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
  const { kit, edition, deal, forms, before, findings } = worked;
  const { draft } = worked.made;
  const tags = tagValues(factsOfDeal(deal), draft.parties);
  const says = (text: string) => mergeTags(text, tags).text;
  const types = new Set(forms.map((f) => f.document.type));
  const standing = (await deals.standingOf(ctx.database.pool, dealId)) ?? NO_STANDING;
  return {
    kit: { id: kit.id, name: kit.name, edition: edition.edition },
    address: deal.address,
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
    unknown: worked.unknown,
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
  const { send, despiteWarnings, keepValues, ...changes } = body;
  if (keepValues && changes.values) await changeDeal(ctx, dealId, ofDeal(changes.values), member);
  const worked = await workOut(ctx, dealId, kitId, changes, member);
  if (send) requireClean(worked.findings, despiteWarnings);
  const full = overLimit(worked.made.draft);
  if (full)
    throw new Problem(
      'over-limits',
      `A packet takes at most ${PACKET_LIMITS[full]} ${full}, and this kit would make more. Make two kits of it.`,
    );
  const id = await inTransaction(ctx.database.pool, (tx) => keepPacket(ctx, tx, worked, member));
  // Its warnings were answered above, those of the kit among them.
  if (send) await sendPacket(ctx, id, { version: 1, despiteWarnings: true }, member);
  return id;
}

/** Values of tags as facts and days of a deal. */
function ofDeal(values: NonNullable<Changes['values']>): Pick<DealPatch, 'facts' | 'dates' | 'city'> {
  const facts: NonNullable<DealPatch['facts']> = {};
  const dates: NonNullable<DealPatch['dates']> = {};
  const { city, ...known } = values;
  for (const [key, value] of Object.entries(known)) {
    const date = dateOfKey(key);
    if (!date) facts[key] = value;
    else if (typeof value === 'string') dates[date] = value;
  }
  return { facts, dates, ...(typeof city === 'string' ? { city } : {}) };
}

/** @throws Problem `changed-meanwhile` where the kit was used on the deal since it was worked out: one act is one packet */
async function keepPacket(ctx: Context, tx: Tx, worked: Worked, member: Member): Promise<string> {
  const { kit, edition, deal, forms, made } = worked;
  const id = newId();
  await deals.lockDeal(tx.db, deal.id);
  if ((await q.packetsOfKit(tx.db, deal.id, kit.id)).length !== worked.before)
    throw new Problem('changed-meanwhile', 'This kit was used on this deal just now. Look at the deal again.');
  const ids = new Map<string, string>();
  for (const f of forms) ids.set(f.document.id, await copyToDeal(tx.db, f, deal.id, ctx.clock.now()));
  await insertPacket(tx.db, {
    id,
    deal_id: deal.id,
    name: made.draft.name,
    draft: withDocuments(made.draft, (of) => ids.get(of) ?? of),
    created_by: member.id,
    at: ctx.clock.now(),
    kit: { id: kit.id, edition: edition.edition, locks: kit.locks },
  });
  await lookAgain(ctx, tx, deal.id);
  tx.afterCommit(() => ctx.live.tell(topics.deal(deal.id)));
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
  const types = await q.typesOfForms(db, formIds);
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
