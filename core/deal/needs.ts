/**
 * What a deal needs by the firm's rules, the status of each document, and readiness. Has no clock: callers pass
 * today.
 */
import { dueDay, isDay, shortDay, type DueDay } from '../calendar/due';
import type { DocumentType } from '../reading/suggest';
import { count, firstName, listWords } from '../text/names';
import { canonicalJson } from '../proof';
import { isBroker, sideLabel, type Side } from '../text/sides';
import { factsIn, holds } from './conditions';
import type { Facts, FactValue } from './facts';
import { GOAL, type DealKind, type ForWhom, type KeyDate, type KeyDates } from './kinds';
import type { Rule, Term } from './rules';

/** What requirements are computed from. */
export interface NeedsDeal {
  kind: DealKind;
  forWhom: ForWhom;
  facts: Facts;
  dates: KeyDates;
  parties: { id: string; name: string; side: Side; ordinal: number }[];
}

/** How far a document of the deal has come, from the best to the least. */
export const DOCUMENT_STATUSES = ['executed', 'elsewhere', 'out', 'draft', 'here'] as const;
/** One of `DOCUMENT_STATUSES`. */
export type DocumentStatus = (typeof DOCUMENT_STATUSES)[number];

/** A document of the deal with its status in one packet; one entry per packet it is in. */
export interface DealDocument {
  documentId: string;
  name: string;
  type: DocumentType;
  status: DocumentStatus;
  packetId: string | null;
  /** For an executed document: how many required places are not filled. */
  gaps: number;
  /** People of the deal who signed it, in any round and on any returned sheet. */
  signedBy: string[];
  /** Sides for which somebody signed who is not one of the deal's people: the firm's own broker. */
  signedFor: Side[];
  /** Who holds it up, in words; empty if nobody does. */
  waits: string;
  /** The day it was executed, or signed elsewhere. */
  on: string | null;
}

/** A member's waiver of a required document. */
export interface Waiver {
  ruleId: string;
  reason: string;
  by: string;
  /** ISO 8601 in UTC. */
  at: string;
  /** The facts the rule depended on, as they were then; null for unknown ones. */
  facts: Record<string, FactValue | null>;
  /** The rule as it was when it was waived, as returned by `ruleAsWaived`. */
  rule: string;
}

/** The symbol in a document's corner on screens. */
export type Corner = 'needed' | 'draft' | 'out' | 'executed' | 'waived';

/** A document a deal needs because of a rule, and how far it is. */
export interface Requirement {
  ruleId: string;
  paper: DocumentType;
  title: string;
  reason: string;
  state: 'open' | 'met' | 'waived';
  corner: Corner;
  /** Its status in words: "out, waits for Priya". */
  words: string;
  due: DueDay | null;
  /** The key date it is counted from, while that is not known. */
  dueHangsOn: KeyDate | null;
  /** The document that meets or may meet it; null if there is none. */
  documentId: string | null;
  packetId: string | null;
  signers: Side[];
  waiver: { reason: string; by: string; at: string } | null;
}

/** An unknown fact on which rules depend. */
export interface Asked {
  fact: string;
  /** The papers of the rules that depend on it. */
  papers: string[];
}

/** Everything a deal needs: its requirements, and facts to ask for. */
export interface Needs {
  requirements: Requirement[];
  asked: Asked[];
}

/** Returns the facts of a deal with its other properties that rules can use. */
export function factsOf(deal: Pick<NeedsDeal, 'kind' | 'forWhom' | 'facts' | 'dates'>): Facts {
  const dates = Object.entries(deal.dates).map(([k, day]) => [`date.${k}`, day] as const);
  return { ...deal.facts, kind: deal.kind, for_whom: deal.forWhom, ...Object.fromEntries(dates) };
}

/** Returns the facts a rule depends on: a waiver is valid while they are unchanged. */
export function factsBehind(rule: Pick<Rule, 'when'>, facts: Facts): Record<string, FactValue | null> {
  return Object.fromEntries((rule.when ? factsIn(rule.when) : []).map((f) => [f, facts[f] ?? null]));
}

/**
 * Returns what of a rule a waiver is for, as text: its paper, title, condition and signers. Two rules with the same
 * text ask for the same.
 */
export const ruleAsWaived = ({ paper, title, when, signers }: Pick<Rule, 'paper' | 'title' | 'when' | 'signers'>) =>
  canonicalJson({ paper, title, when, signers: [...signers].sort() });

/** Returns why a waiver is no longer valid: the rule or its facts changed. Null while it is valid. */
function endedBy(waiver: Waiver, rule: Rule, facts: Facts): 'rule' | 'facts' | null {
  if (waiver.rule !== ruleAsWaived(rule)) return 'rule';
  const same = Object.entries(factsBehind(rule, facts)).every(([f, value]) => (waiver.facts[f] ?? null) === value);
  return same ? null : 'facts';
}

/**
 * Returns what a deal needs by the firm's rules.
 *
 * @param papers status of the deal's documents
 * @param holidays ISO days on which the firm does not work
 */
export function needsOf(o: {
  deal: NeedsDeal;
  rules: readonly Rule[];
  papers: readonly DealDocument[];
  waivers: readonly Waiver[];
  holidays: readonly string[];
}): Needs {
  const facts = factsOf(o.deal);
  const requirements: Requirement[] = [];
  const asked = new Map<string, string[]>();
  for (const rule of o.rules) {
    if (!rule.on || !rule.kinds.includes(o.deal.kind)) continue;
    const t = rule.when ? holds(rule.when, facts) : { is: true, hangs: [] };
    if (t.is === null) for (const f of t.hangs) asked.set(f, [...(asked.get(f) ?? []), rule.title]);
    if (t.is) requirements.push(requirementOf(rule, facts, o));
  }
  requirements.sort((a, b) => byDue(a, b) || a.title.localeCompare(b.title) || a.ruleId.localeCompare(b.ruleId));
  return {
    requirements,
    asked: [...asked]
      .map(([fact, papers]) => ({ fact, papers }))
      // A day is asked for if something due depends on it; whether one is set at all does not matter.
      .sort((a, b) => b.papers.length - a.papers.length || a.fact.localeCompare(b.fact)),
  };
}

/** Orders by due day; those without one come last. */
const byDue = (a: Requirement, b: Requirement) => (a.due?.day ?? '9999').localeCompare(b.due?.day ?? '9999');

function requirementOf(rule: Rule, facts: Facts, o: Parameters<typeof needsOf>[0]): Requirement {
  const { due: term } = rule;
  const from = term ? o.deal.dates[term.from] : undefined;
  const known = from !== undefined && isDay(from);
  const found = bestPaper(rule, o.deal, o.papers);
  const last = o.waivers.find((w) => w.ruleId === rule.id);
  const ended = last ? endedBy(last, rule, facts) : null;
  const waiver = last && !ended ? last : null;
  const met = found !== null && found.lacks === '';
  const corner: Corner = met ? 'executed' : waiver ? 'waived' : found ? CORNERS[found.paper.status] : 'needed';
  return {
    ruleId: rule.id,
    paper: rule.paper,
    title: rule.title,
    reason: rule.reason,
    state: met ? 'met' : waiver ? 'waived' : 'open',
    corner,
    words:
      waiver && !met
        ? `waived by ${waiver.by}: ${waiver.reason}`
        : wordsOf(found, last && ended ? { by: last.by, ended } : null),
    due: dueOf(term, o.deal.dates, o.holidays),
    dueHangsOn: term && !known ? term.from : null,
    documentId: found?.paper.documentId ?? null,
    packetId: found?.paper.packetId ?? null,
    signers: rule.signers,
    waiver: waiver && !met ? { reason: waiver.reason, by: waiver.by, at: waiver.at } : null,
  };
}

/**
 * Returns when something is due by a term; null without a term, or while its key date is unknown or cannot be counted
 * from.
 */
export function dueOf(term: Term | null, dates: KeyDates, holidays: readonly string[]): DueDay | null {
  const from = term ? dates[term.from] : undefined;
  return term && from && isDay(from) ? dueDay(term, from, holidays) : null;
}

const CORNERS: Record<DocumentStatus, Corner> = {
  executed: 'out',
  elsewhere: 'executed',
  out: 'out',
  draft: 'draft',
  here: 'needed',
};

interface Found {
  paper: DealDocument;
  /** What it lacks to meet the requirement; empty if nothing. */
  lacks: string;
}

/** Returns the document of a rule's type that has come furthest; one that meets the rule comes first. */
function bestPaper(rule: Rule, deal: NeedsDeal, papers: readonly DealDocument[]): Found | null {
  const all = papers
    .filter((p) => p.type === rule.paper)
    .map((paper) => ({ paper, lacks: lacks(rule, deal, paper) }))
    .sort(
      (a, b) =>
        Number(a.lacks !== '') - Number(b.lacks !== '') ||
        DOCUMENT_STATUSES.indexOf(a.paper.status) - DOCUMENT_STATUSES.indexOf(b.paper.status) ||
        b.paper.documentId.localeCompare(a.paper.documentId),
    );
  return all[0] ?? null;
}

function lacks(rule: Rule, deal: NeedsDeal, p: DealDocument): string {
  if (p.status === 'elsewhere') return '';
  if (!rule.signers.length) return '';
  if (p.status === 'executed') {
    if (p.gaps) return `executed with ${count(p.gaps, 'gap')}`;
    const missing = deal.parties.filter((x) => rule.signers.includes(x.side) && !p.signedBy.includes(x.id));
    if (missing.length) return `executed without ${listWords(missing.map((x) => firstName(x.name)))}`;
    const none = rule.signers.filter(
      (side) => !deal.parties.some((x) => x.side === side) && !(isBroker(side) && p.signedFor.includes(side)),
    );
    // A side without people in the deal can have signed nothing; it is said, and not passed over.
    return none.length
      ? `executed, but there is no ${none.map((s) => sideLabel(s, 1).toLowerCase()).join(' and no ')}`
      : '';
  }
  return p.status;
}

function wordsOf(found: Found | null, lapsed: { by: string; ended: 'rule' | 'facts' } | null): string {
  const again = lapsed ? `; waived by ${lapsed.by} before the ${lapsed.ended} changed` : '';
  if (!found) return `needed${again}`;
  const { paper } = found;
  const on = paper.on ? ` ${shortDay(paper.on)}` : '';
  switch (paper.status) {
    case 'executed':
      return found.lacks ? `${found.lacks}${again}` : `executed${on}, no gap`;
    case 'elsewhere':
      return `signed elsewhere${on}`;
    case 'out':
      return `out${paper.waits ? `: ${paper.waits}` : ''}${again}`;
    case 'draft':
      return `in draft${paper.gaps ? `, ${count(paper.gaps, 'gap')}` : ''}${again}`;
    case 'here':
      return found.lacks ? `here, in no packet yet${again}` : 'here';
  }
}

/** How ready a deal is. */
export interface Readiness {
  /** Number of met requirements among the needed ones; waived ones count for neither. */
  met: number;
  of: number;
  late: string[];
  /** Titles of open requirements that are due before the target date. */
  before: string[];
  sentence: string;
}

/** What readiness is computed from, without all requirements: small enough for lists. */
export interface Figures {
  met: number;
  of: number;
  /** Open requirements, soonest due first. */
  open: { title: string; day: string | null }[];
}

/** Returns the figures of a deal's needs. */
export function figuresOf(needs: Needs): Figures {
  const asked = needs.requirements.filter((r) => r.state !== 'waived');
  const open = asked.filter((r) => r.state === 'open');
  return {
    met: asked.length - open.length,
    of: asked.length,
    open: open.map((r) => ({ title: r.title, day: r.due?.day ?? null })),
  };
}

/**
 * Returns the readiness of a deal.
 *
 * @param today ISO day in the deal's time zone
 */
export function readinessOf(figures: Figures, deal: Pick<NeedsDeal, 'kind' | 'dates'>, today: string): Readiness {
  const { met, of, open } = figures;
  const goal = GOAL[deal.kind];
  const end = deal.dates[goal];
  const late = open.filter((r) => r.day && r.day < today).map((r) => r.title);
  const before = open.filter((r) => !end || !r.day || r.day <= end).map((r) => r.title);
  return { met, of, late, before, sentence: readinessWords(met, of, late, before, goal) };
}

function readinessWords(met: number, of: number, late: string[], before: string[], goal: KeyDate): string {
  if (!of) return 'The rules require nothing yet.';
  if (met === of) return of === 1 ? 'The one paper it needs is done.' : `All ${of} papers are done.`;
  const figure = `${met} of ${of} done.`;
  const some = (titles: string[]) =>
    titles.length > 2 ? [...titles.slice(0, 1), `${titles.length - 1} more`] : titles;
  if (late.length) return `${figure} ${listWords(some(late))} ${late.length === 1 ? 'is' : 'are'} late.`;
  if (before.length)
    return `${figure} Needed before ${goal === 'move_in' ? 'move-in' : 'closing'}: ${listWords(some(before))}.`;
  return figure;
}

/** A due day that moved because another day did. */
export interface Moved {
  title: string;
  from: string | null;
  to: string | null;
}

/** Returns which due days a change moved, and which requirements it added or removed. */
export function changedNeeds(before: Needs, after: Needs): { moved: Moved[]; added: string[]; gone: string[] } {
  const was = new Map(before.requirements.map((r) => [r.ruleId, r]));
  const is = new Map(after.requirements.map((r) => [r.ruleId, r]));
  const moved: Moved[] = [];
  for (const r of after.requirements) {
    const old = was.get(r.ruleId);
    if (old && old.due?.day !== r.due?.day)
      moved.push({ title: r.title, from: old.due?.day ?? null, to: r.due?.day ?? null });
  }
  return {
    moved,
    added: after.requirements.filter((r) => !was.has(r.ruleId)).map((r) => r.title),
    gone: before.requirements.filter((r) => !is.has(r.ruleId)).map((r) => r.title),
  };
}
