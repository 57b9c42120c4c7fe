/**
 * What of a packet can be used again: its forms, with roles in place of people, and nothing that belonged to that
 * deal alone.
 */
import { fold } from '../text/names';
import { NO_SCHEDULE } from '../calendar';
import { emptyDraft, type Draft } from '../packet/draft';
import type { Mark, PacketParty } from '../packet/types';
import { newSlot, slotsTogether, type Slot } from './slots';

/** Tags with their values in the packet's deal, as `tagValues` of merging returns them. */
export type Tags = ReadonlyMap<string, string>;

/** Returns the slot of each person. A person of no side stays the same person. Notes to a person are removed. */
export function slotsOfPeople(parties: readonly PacketParty[], newId: () => string): Map<string, Slot> {
  return new Map(parties.map((p) => [p.id, slotOf(p, newId())]));
}

function slotOf(p: PacketParty, id: string): Slot {
  if (p.side === 'other') {
    const { name, email, phone, side, ordinal, act, ink } = p;
    return { id, name, email, phone, side, ordinal, act, ink, slot: 'person' };
  }
  return {
    ...newSlot('one', p.side, p.ordinal, id, p.ink),
    act: p.act,
    ...(p.secondStep ? { secondStep: p.secondStep } : {}),
    ...(p.copyAt ? { copyAt: p.copyAt } : {}),
  };
}

interface From {
  draft: Draft;
  people: ReadonlyMap<string, Slot>;
  tags: Tags;
  newId: () => string;
}

/**
 * Returns what is on one document of a draft, as a form.
 *
 * @param to id of the form's own document
 */
export function formFrom({ draft, people, tags, newId }: From, documentId: string, to: string, name: string): Draft {
  const as = (partyId: string) => people.get(partyId)?.id ?? partyId;
  const rules = draft.rules.filter((r) => r.documentId === documentId);
  const marks = draft.marks.filter((m) => m.documentId === documentId);
  const there = new Set([...marks.map((m) => m.partyId), ...rules.flatMap((r) => r.partyIds)]);
  const place = (id: string) => (id.startsWith(`${documentId}.`) ? `${to}${id.slice(documentId.length)}` : id);
  return {
    ...emptyDraft(name),
    parties: [...people].filter(([id]) => there.has(id)).map(([, slot]) => slot),
    documents: [{ id: to }],
    marks: marks
      .flatMap((m) => withoutWords(m, draft.parties, tags))
      .map((m) => ({
        ...m,
        id: newId(),
        documentId: to,
        partyId: as(m.partyId),
        ...(m.placeId ? { placeId: place(m.placeId) } : {}),
      })),
    rules: rules.map((r) => ({
      ...r,
      id: `rule-${to}`,
      documentId: to,
      partyIds: r.partyIds.map(as),
      except: r.except.map((e) => ({ ...e, partyId: as(e.partyId) })),
      moved: r.moved.map((x) => ({ ...x, partyId: as(x.partyId) })),
    })),
    passed: draft.passed.filter((p) => p.id.startsWith(`${documentId}.`)).map((p) => ({ id: place(p.id) })),
  };
}

/** Returns a mark without text that was written for that deal; null for a label that was nothing else. */
function withoutWords(m: Mark, parties: readonly PacketParty[], tags: Tags): Mark[] {
  // The label of a choice is the form's own.
  if (!m.value || m.kind === 'choice') return [m];
  const value = asTags(m.value, parties, tags);
  if (value.includes('{')) return [{ ...m, value }];
  if (m.kind === 'label') return [];
  const { value: _value, readOnly: _readOnly, ...empty } = m;
  return [empty];
}

/** Returns a whole draft as a kit of forms. */
export function kitFrom({ draft, people, tags, newId }: From, formIds: readonly string[], name: string): Draft {
  return {
    ...emptyDraft(name),
    subject: asTags(draft.subject, draft.parties, tags) || `Please sign: ${name}`,
    message: asTags(draft.message, draft.parties, tags),
    // The last day was only for that packet.
    schedule: { ...NO_SCHEDULE, ...draft.schedule, lastDay: null },
    handOver: draft.handOver,
    readAlong: draft.readAlong ?? false,
    ...(draft.reports ? { reports: draft.reports } : {}),
    parties: slotsTogether([{ parties: [...people.values()] }]),
    documents: formIds.map((id) => ({ id })),
    gates: draft.gates.map((g) => ({
      ...g,
      id: newId(),
      partyIds: g.partyIds.flatMap((p) => people.get(p)?.id ?? []),
    })),
  };
}

/** Shorter values occur in other words by chance. */
const SHORTEST = 4;

/**
 * Returns text with tags in place of their values; empty if a person of the packet is still named in it, even by a
 * part of their name: nobody else may read that.
 */
export function asTags(text: string, parties: readonly PacketParty[], tags: Tags): string {
  // The longest first, and of those that say the same the one that names a single person.
  const known = [...tags]
    .filter(([, value]) => value.length >= SHORTEST)
    .sort(([a, x], [b, y]) => y.length - x.length || Number(/\d/.test(b)) - Number(/\d/.test(a)));
  let out = text;
  for (const [tag, value] of known) out = out.split(value).join(`{${tag}}`);
  const words = out.replace(/\{[^{}]{0,60}\}/g, ' ').split(/[^\p{L}\p{N}]+/u);
  const as = new Set(words);
  const inAnyCase = new Set(words.map(fold));
  // A short part of a name can be a common word in lower case ("Will", "An"): its capitals count.
  const isNamed = (part: string) => (part.length > 3 ? inAnyCase.has(fold(part)) : part.length > 1 && as.has(part));
  const named = parties.some(
    (p) =>
      p.side !== 'other' &&
      p.name.split(/[^\p{L}\p{N}]+/u).some((part) => isNamed(part) || isNamed(part.toUpperCase())),
  );
  return named ? '' : out;
}
