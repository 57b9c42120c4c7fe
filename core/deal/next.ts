/** What to do next in a deal: the acts that help most, each one tap away. */
import { daysBetween } from '../calendar';
import { lowerFirst } from '../text/ends';
import { firstName, listWords } from '../text/names';
import { factsByKey, type FactDef } from './facts';
import { DATE_WORDS, type DealKind, type KeyDate } from './kinds';
import type { Needs } from './needs';

/** What the next acts depend on in a packet. */
export interface PacketNow {
  id: string;
  name: string;
  status: 'drafting' | 'at_gate' | 'executed' | 'declined' | 'withdrawn' | 'lapsed';
  /** The people it waits for. */
  waits: {
    partyId: string;
    name: string;
    /** The day they were last seen, or asked. */
    since: string;
    /** "has not opened it", "has 3 places to go". */
    words: string;
    /** Whether their message came back. */
    bounced: boolean;
    /** Address in lower case: a member who finds their own address must sign. */
    email: string;
    phone: string | null;
    /** Whether they act at a member's desk. */
    desk: boolean;
  }[];
  questions: { id: string; partyId: string; name: string; day: string; text: string }[];
  lastDay: string | null;
  /** The day it was sent; for a draft, the day it was started. */
  since: string;
  documents: number;
  path: {
    gates: string[][];
    gate: number;
    parties: { id: string; name: string; ink: number; act: string; done: boolean }[];
  };
}

/** How an act is carried out. */
export type NextAct =
  | { do: 'answer'; packetId: string; questionId: string; partyId: string; text: string }
  | { do: 'sign'; packetId: string; partyId: string }
  | { do: 'host'; packetId: string; partyId: string }
  | { do: 'nudge'; packetId: string; partyId: string }
  | { do: 'address'; packetId: string; partyId: string }
  | { do: 'send'; packetId: string }
  | { do: 'prepare'; ruleId: string; documentId: string; name: string }
  | { do: 'bring'; ruleId: string }
  | { do: 'fact'; fact: string }
  | { do: 'date'; date: KeyDate }
  | { do: 'stated'; documentId: string };

/** An act that would help a deal. */
export interface Next {
  /** Identifies it among all acts of the deal; stable across computations. */
  id: string;
  act: NextAct;
  /** Starts with a verb: "Nudge Priya". */
  title: string;
  /** Why, and since when: "has not opened it, 3 days". */
  detail: string;
  /** The day by which it should be done; null if none is set. */
  due: string | null;
  /** The day since which it waits; null if that says nothing. */
  since: string | null;
  /** Greater for acts that help more; orders acts. */
  weight: number;
}

/** A document that states something otherwise than the deal. */
export interface Stating {
  documentId: string;
  /** "Extension". */
  name: string;
  /** "It says closing Fri, Jan 15; the deal says Tue, Jan 12". */
  words: string;
  /** ISO day on which it was added. */
  since: string;
}

/** Days after which a person who is waited for should be nudged. */
export const STANDS_STILL = 1;

/** Returns how urgent a day is: more the sooner within a week, most if late. */
const urgency = (day: string | null, today: string) =>
  day ? Math.max(-7, Math.min(60, 7 - daysBetween(today, day))) : 0;

/** Returns an age in words: "today", "since yesterday", "3 days". */
export const daysWords = (days: number) => (days <= 0 ? 'today' : days === 1 ? 'since yesterday' : `${days} days`);

/**
 * Returns everything that could be done next in a deal, most helpful first.
 *
 * @param me address of the member who asks, in lower case
 * @param own facts the firm added
 * @param today ISO day in the deal's time zone
 */
export function nextActs(o: {
  kind: DealKind;
  needs: Needs;
  packets: readonly PacketNow[];
  own: readonly FactDef[];
  /** Documents that state something otherwise than the deal. */
  stated?: readonly Stating[];
  me: string;
  today: string;
}): Next[] {
  return [
    ...(o.stated ?? []).map(statedAct),
    ...o.packets.flatMap((p) => packetActs(p, o.me, o.today)),
    ...paperActs(o.needs, o.today),
    ...askedActs(o),
  ].sort((a, b) => b.weight - a.weight || a.id.localeCompare(b.id));
}

function statedAct({ documentId, name, words, since }: Stating): Next {
  return {
    id: `stated ${documentId}`,
    act: { do: 'stated', documentId },
    title: `Review what “${name}” says`,
    detail: words,
    due: null,
    since,
    weight: 86,
  };
}

function packetActs(p: PacketNow, me: string, today: string): Next[] {
  const out: Next[] = [];
  for (const q of p.questions)
    out.push({
      id: `answer ${p.id} ${q.id}`,
      act: { do: 'answer', packetId: p.id, questionId: q.id, partyId: q.partyId, text: q.text },
      title: `Answer ${firstName(q.name)}`,
      detail: `“${q.text.length > 80 ? `${q.text.slice(0, 79)}…` : q.text}”`,
      due: null,
      since: q.day,
      weight: 90 + Math.min(9, daysBetween(q.day, today)),
    });
  if (p.status === 'drafting')
    return [
      ...out,
      {
        id: `send ${p.id}`,
        act: { do: 'send', packetId: p.id },
        title: `Continue with ${p.name}`,
        detail: `in draft, ${daysWords(daysBetween(p.since, today))}`,
        due: null,
        since: p.since,
        weight: 40,
      },
    ];
  if (p.status !== 'at_gate') return out;
  for (const w of p.waits) {
    const act = waitAct(p, w, me, today);
    if (act) out.push(act);
  }
  return out;
}

/** Returns what can be done about one person who is waited for; null while it is too soon. */
function waitAct(p: PacketNow, w: PacketNow['waits'][number], me: string, today: string): Next | null {
  const days = daysBetween(w.since, today);
  const about = { detail: `${p.name}: ${w.words}, ${daysWords(days)}`, due: p.lastDay, since: w.since };
  const part = { packetId: p.id, partyId: w.partyId };
  const id = `${p.id} ${w.partyId}`;
  const name = firstName(w.name);
  const rush = urgency(p.lastDay, today) * 2;
  if (w.bounced)
    return {
      ...about,
      id: `address ${id}`,
      act: { do: 'address', ...part },
      title: `Correct ${name}’s address`,
      detail: `${p.name}: the message came back`,
      weight: 88 + rush,
    };
  if (w.email && w.email === me)
    return {
      ...about,
      id: `sign ${id}`,
      act: { do: 'sign', ...part },
      title: `Sign ${p.name}`,
      detail: `waiting for you, ${daysWords(days)}`,
      weight: 80 + rush,
    };
  if (w.desk)
    return {
      ...about,
      id: `host ${id}`,
      act: { do: 'host', ...part },
      title: `Let ${name} sign at the desk`,
      weight: 50 + rush,
    };
  if (days < STANDS_STILL) return null;
  return {
    ...about,
    id: `nudge ${id}`,
    act: { do: 'nudge', ...part },
    title: `Nudge ${name}`,
    weight: 45 + Math.min(20, 3 * days) + rush,
  };
}

function paperActs(needs: Needs, today: string): Next[] {
  const out: Next[] = [];
  for (const r of needs.requirements) {
    // The packet says what is out or in draft.
    if (r.state !== 'open' || r.corner !== 'needed') continue;
    const due = r.due?.day ?? null;
    const why = [r.reason, r.signers.length ? '' : 'no one signs it'].filter(Boolean).join('; ');
    const weight = 55 + 3 * urgency(due, today);
    out.push(
      r.documentId
        ? {
            id: `prepare ${r.ruleId}`,
            act: { do: 'prepare', ruleId: r.ruleId, documentId: r.documentId, name: r.title },
            title: `Put the ${lowerFirst(r.title)} into a packet`,
            detail: why,
            due,
            since: null,
            weight: weight + 2,
          }
        : {
            id: `bring ${r.ruleId}`,
            act: { do: 'bring', ruleId: r.ruleId },
            title: `Add the ${lowerFirst(r.title)}`,
            detail: why,
            due,
            since: null,
            weight,
          },
    );
  }
  return out;
}

function askedActs({ needs, own }: { needs: Needs; own: readonly FactDef[] }): Next[] {
  const facts = factsByKey(own);
  const out: Next[] = [];
  for (const a of needs.asked) {
    const def = facts.get(a.fact);
    if (!def || a.fact.startsWith('date.')) continue;
    out.push({
      id: `fact ${a.fact}`,
      act: { do: 'fact', fact: a.fact },
      title: `Fill in: ${lowerFirst(def.label)}`,
      detail: `${listWords(a.papers.slice(0, 3))} ${a.papers.length === 1 ? 'hangs' : 'hang'} on it`,
      due: null,
      since: null,
      weight: 30 + 3 * Math.min(5, a.papers.length),
    });
  }
  const dates = new Map<KeyDate, string[]>();
  for (const r of needs.requirements)
    if (r.state === 'open' && r.dueHangsOn) dates.set(r.dueHangsOn, [...(dates.get(r.dueHangsOn) ?? []), r.title]);
  for (const [date, titles] of dates)
    out.push({
      id: `date ${date}`,
      act: { do: 'date', date },
      title: `Set the day: ${DATE_WORDS[date].toLowerCase()}`,
      detail: `${listWords(titles.slice(0, 3))} ${titles.length === 1 ? 'is' : 'are'} counted from it`,
      due: null,
      since: null,
      weight: 28 + 2 * Math.min(5, titles.length),
    });
  return out;
}
