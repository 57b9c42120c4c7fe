/**
 * Working out a kit for a deal: who fills which slot, the papers it uses, and what has to be said before it is used.
 */
import { dayOf, dueDay, hourOf, sendingDay, shortDay } from '@gatepath/core/calendar';
import { applyEdits, type Draft, type DraftEdit } from '@gatepath/core/packet';
import { brokenLock, lockedWords } from '@gatepath/core/shelf';
import { sure } from '@gatepath/core/sure';
import { lowerFirst } from '@gatepath/core/text';
import type { TagDef } from '@gatepath/core/writing';
import type { KitUseBody } from '@gatepath/contract';
import type { Context } from '../context';
import { partiesOfDeal } from '../deal-records/party-queries';
import type * as deals from '../deal-records/queries';
import { factsOfDeal } from '../deal-records/deals';
import { dealOr404 } from '../deal-records/deals';
import { documentsByIds } from '../documents/queries';
import { factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { asPacketParty } from '../packets/draft-service';
import { notThen } from '../packets/later';
import { notFound, Problem } from '../problem';
import { itemOr404, usableForms } from './access';
import * as q from './queries';
import { onDeal, paperOnDeal, type FormPaper, type OnDeal, type SettledPapers } from './written';

/** What a member changes about a kit before using it. */
export type Changes = Omit<KitUseBody, 'send' | 'despiteWarnings' | 'saveValues' | 'forId'>;
interface Said {
  sentence: string;
  severity: 'stops' | 'warns';
}

/** A kit worked out for a deal. */
export interface Worked {
  kit: q.ShelfRow;
  edition: q.EditionRow;
  deal: deals.DealRow;
  forms: FormPaper[];
  /** Tags of its forms that have no value. */
  unknown: TagDef[];
  made: Awaited<ReturnType<typeof runKit>>;
  /** When it is sent, in the deal's time zone; null to send it at once. */
  later: { day: string; hour: number } | null;
  /** How many packets of the deal were made from it before. */
  uses: number;
  findings: Said[];
}

/** Makes a draft from a kit. @param kit with the member's changes */
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

/**
 * Works out a kit for a deal.
 *
 * @param o  `before`: papers typeset earlier for it; `isNotice`: it is sent with its notice, whatever the kit says
 * @throws Problem `not-found`, `not-on-shelf`, `reading`, `locked-setting`
 */
export async function workOut(
  ctx: Context,
  dealId: string,
  kitId: string,
  changes: Changes,
  member: Member,
  o: { before?: SettledPapers; isNotice?: boolean } = {},
): Promise<Worked> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, dealId);
  const kit = await itemOr404(db, kitId, member);
  if (kit.what !== 'kit') throw notFound('This kit');
  const edition = (await q.lastEditions(db, [kitId])).get(kitId);
  if (!edition || kit.retired_at)
    throw new Problem(
      'not-on-shelf',
      `The kit “${kit.name}” is not on the shelf. Put it there first, or choose another.`,
    );
  const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
  const sending = o.isNotice ? null : edition.draft.schedule.sending;
  const holidays = (await ctx.firm())?.holidays ?? [];
  const planned = sending ? sendingDay(sending, ctx.clock.now().toISOString(), deal.time_zone, holidays) : null;
  const later = changes.later === undefined ? planned : changes.later;
  const lastDay = lastDayOf(kit, later?.day ?? today, holidays);
  const start: Draft = { ...edition.draft, schedule: { ...edition.draft.schedule, lastDay } };
  const edits = editsOf(start, changes, planned);
  const broken = brokenLock(edits, kit.locks);
  if (broken) throw new Problem('locked-setting', lockedWords(broken));
  const kept = await formsOf(ctx, edition.draft);
  // Counted before the work, which takes a moment: a use meanwhile is found when the packet is saved.
  const used = await q.packetsOfKit(db, dealId, kitId);
  const people = (await partiesOfDeal(db, dealId)).map(asPacketParty);
  const { forms, unknown, unprintable } = await setForms(
    ctx,
    kept,
    await onDeal(ctx, deal, people, changes.values ?? {}),
    o.before,
  );
  const made = await runKit(ctx, { kit: applyEdits(start, edits), forms, people, deal });
  const findings = [
    ...ofHour(later ?? null, deal.time_zone, ctx.clock.now()),
    ...ofDay(made.draft, today),
    ...ofUse(used),
    ...ofSlots(made),
    ...ofTags(unknown),
    ...ofLetters(unprintable),
    ...(await ofForms(ctx, forms, today)),
    ...made.findings.map(({ sentence, severity }) => ({ sentence, severity })),
  ];
  return { kit, edition, deal, forms, unknown, made, later: later ?? null, uses: used.length, findings };
}

/** Returns the member's changes as edits; what they leave unchanged needs none. */
function editsOf(kit: Draft, c: Changes, planned: Changes['later']): DraftEdit[] {
  const edits: DraftEdit[] = [];
  for (const field of ['name', 'subject', 'message'] as const) {
    const value = c[field];
    if (value !== undefined && value !== kit[field]) edits.push({ op: 'set', field, value });
  }
  const lastDay = c.lastDay === undefined ? kit.schedule.lastDay : c.lastDay;
  // A time for this packet replaces the kit's.
  const own = c.later !== undefined && (c.later?.day !== planned?.day || c.later?.hour !== planned?.hour);
  if (lastDay !== kit.schedule.lastDay || own)
    edits.push({
      op: 'set',
      field: 'schedule',
      value: { ...kit.schedule, lastDay, ...(own ? { sending: null } : {}) },
    });
  if (c.reports && c.reports.join() !== (kit.reports ?? []).join())
    edits.push({ op: 'set', field: 'reports', value: c.reports });
  return edits;
}

function lastDayOf(kit: q.ShelfRow, from: string, holidays: readonly string[]): string | null {
  if (!kit.last_in) return null;
  return dueDay({ n: kit.last_in, unit: 'business_days', way: 'after', roll: true }, from, holidays).day;
}

function ofHour(later: Worked['later'], zone: string, now: Date): Said[] {
  const why = later && notThen(new Date(hourOf(later.day, later.hour, zone)), now);
  return why ? [{ sentence: why, severity: 'stops' }] : [];
}

const ofDay = ({ schedule: { lastDay } }: Draft, today: string): Said[] =>
  lastDay && lastDay < today
    ? [{ sentence: `The last day for signing, ${shortDay(lastDay, today)}, has passed.`, severity: 'stops' }]
    : [];

/** The status of a packet, in a few words. */
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
      sentence: `No one fills the place of ${s.slot.name}. Add a person to the deal, or send it without.`,
      severity: 'warns',
    }));

const ofTags = (unknown: readonly TagDef[]): Said[] =>
  unknown.map((t) => ({
    sentence:
      t.from === 'people'
        ? `A paper names someone who is not in the deal: ${lowerFirst(t.label)}. Add the person to the deal.`
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

/** Typesets the forms written here for a deal; other forms stay as they are. */
async function setForms(
  ctx: Context,
  kept: FormPaper[],
  on: OnDeal,
  before?: SettledPapers,
): Promise<{ forms: FormPaper[]; unknown: TagDef[]; unprintable: string[] }> {
  const forms: FormPaper[] = [];
  const missing = new Set<string>();
  const unprintable = new Set<string>();
  for (const form of kept) {
    if (!form.row.written) {
      forms.push(form);
      continue;
    }
    const set = await paperOnDeal(ctx, form, on, before);
    forms.push(set.form);
    for (const key of set.missing) missing.add(key);
    for (const letter of set.unprintable) unprintable.add(letter);
  }
  const unknown = [...missing].map((key): TagDef => on.tags.get(key) ?? goneTag(key));
  return { forms, unknown, unprintable: [...unprintable] };
}

/** Returns a tag whose fact the firm no longer asks for. */
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

/** Returns the forms of a kit, each in its last edition with its paper. */
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
