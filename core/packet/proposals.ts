/**
 * Proposals: what was read on the pages, matched to the people of a packet. A proposal is no
 * mark until somebody accepts it. Where a form has fewer lines than there are people, the
 * others get places of the same kinds in free space next to the printed ones.
 */
import { isSenders, takesHand, isOwn } from './kinds';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import type { PacketParty, Mark, MarkKind } from './types';
import type { Draft, DraftEdit } from './draft';
import { DOUBT } from '../reading/types';
import { plain } from '../reading/words';
import { overlapArea } from '../paper/geometry';
import { groupBy } from '../sure/group';
import { extraPlaces } from './extra-places';
import type { Proposal } from './proposal';
import { partyOfPlace } from './place-party';
import type { DocumentFacts } from './resolve';
import type { Rect } from '../paper/types';

/** The kind of mark that a printed place of a kind asks for. */
export const KIND_OF_PLACE: Readonly<Record<PlaceKind, MarkKind>> = {
  signature: 'signature',
  initials: 'initials',
  date: 'date',
  name: 'printed_name',
  text: 'text',
  checkbox: 'tick',
};

/** The kind of printed place that a kind of mark fills; a kind that is printed nowhere has none. */
export const PLACE_KIND_OF: Readonly<Partial<Record<MarkKind, PlaceKind>>> = {
  signature: 'signature',
  initials: 'initials',
  date_signed: 'date',
  date: 'date',
  printed_name: 'name',
  text: 'text',
  number: 'text',
  money: 'text',
  tick: 'checkbox',
  choice: 'checkbox',
};

interface Cached {
  marks: Mark[];
  passed: Set<string>;
  key: string;
  proposals: Proposal[];
}
const kept = new WeakMap<DocumentFacts, Cached>();

/**
 * Returns all proposals of a draft, document by document in reading order; those beyond the printed places come last.
 *
 * @param marks  all marks of the draft, those made from rules included: a place they fill is decided on
 */
export function proposalsOf(draft: Draft, documents: DocumentFacts[], marks: Mark[] = draft.marks): Proposal[] {
  return proposalsByDocument(
    draft,
    documents,
    groupBy(marks, (m) => m.documentId),
  ).flat();
}

/** Returns the proposals of each document. A document that did not change keeps the same list. */
export function proposalsByDocument(
  draft: Draft,
  documents: DocumentFacts[],
  marks: ReadonlyMap<string, Mark[]>,
): Proposal[][] {
  const inPacket = new Set(draft.documents.map((d) => d.id));
  const key = draft.parties.map((p) => `${p.id}/${p.side}/${p.ordinal}/${p.act}/${p.only?.join() ?? ''}`).join(';');
  const passed = new Set(draft.passed.map((p) => p.id));
  return documents.map((doc) => {
    if (!inPacket.has(doc.id) || !doc.places.length) return NO_PROPOSALS;
    const here = marks.get(doc.id) ?? [];
    const last = kept.get(doc);
    if (
      last &&
      last.key === key &&
      last.marks.length === here.length &&
      last.marks.every((m, i) => m === here[i]) &&
      sameSet(last.passed, passed)
    )
      return last.proposals;
    const proposals = ofDocument(doc, draft.parties, here, passed);
    kept.set(doc, { marks: here, passed, key, proposals });
    return proposals;
  });
}

const NO_PROPOSALS: Proposal[] = [];

const sameSet = (a: Set<string>, b: Set<string>) => a.size === b.size && [...a].every((x) => b.has(x));

function ofDocument(doc: DocumentFacts, parties: PacketParty[], marks: Mark[], passed: Set<string>): Proposal[] {
  const accepted = new Set(marks.flatMap((m) => m.placeId ?? []));
  const state = (id: string, rect: Rect, page: number, kind: MarkKind, dismissed = false): Proposal['state'] =>
    passed.has(id)
      ? 'passed'
      : accepted.has(id) || marks.some((m) => m.page === page && fills(m, kind, rect))
        ? 'accepted'
        : dismissed
          ? 'passed'
          : 'open';
  const answers = answerGroups(doc);
  const otherOf = (place: PrintedPlace, kind: MarkKind): Pick<Proposal, 'other'> => {
    if (!place.other) return {};
    const meant = { ...place, ...place.other };
    const party = partyOfPlace(meant, doc.id, parties);
    const otherKind = kindOf(meant, party !== null);
    const isSame = otherKind === kind && party?.id === partyOfPlace(place, doc.id, parties)?.id;
    return party && !isSame ? { other: { kind: otherKind, partyId: party.id } } : {};
  };
  const printed = doc.places.map((place, i): Proposal => {
    const id = `${doc.id}.${place.page}.${i}`;
    const party = partyOfPlace(place, doc.id, parties);
    const group = answers.get(place);
    const kind = group ? 'choice' : kindOf(place, party !== null);
    return {
      id,
      documentId: doc.id,
      page: place.page,
      rect: place.rect,
      kind,
      partyId: party?.id ?? null,
      stranger: place.role !== 'unknown' && party === null,
      label: place.label,
      place,
      state: state(id, place.rect, place.page, kind, place.dismissed),
      ...(place.confidence <= DOUBT && (party || isPersonal(kind))
        ? { doubtful: true as const, ...otherOf(place, kind) }
        : {}),
      ...(group ? { group } : {}),
    };
  });
  return [
    ...printed,
    ...extraPlaces(doc, parties, marks, printed, (id, rect, page, kind) =>
      passed.has(id) ? 'passed' : accepted.has(id) ? 'accepted' : state(id, rect, page, kind),
    ),
  ];
}

/** Returns whether a place of a kind must be somebody's: a hand's, or the day of signing. It is in doubt without a person too. */
const isPersonal = (kind: MarkKind): boolean => takesHand(kind) || kind === 'date_signed';

/** Returns whether a mark on the page already does what a place asks for. */
function fills(m: Mark, kind: MarkKind, rect: Rect): boolean {
  if (isSenders(m.kind)) return false;
  const personal = takesHand(kind);
  if (personal !== takesHand(m.kind)) return false;
  return overlapArea(m.rect, rect) > 0.3 * Math.min(m.rect.w * m.rect.h, rect.w * rect.h);
}

function kindOf(place: PrintedPlace, known: boolean): MarkKind {
  // Documents read before the difference was known: a date that belongs to a person is the date of signing.
  if (place.kind === 'date') return known && (place.signed ?? true) ? 'date_signed' : 'date';
  if (place.kind === 'checkbox' && place.field?.group) return 'choice';
  if (place.kind === 'text' && place.field && place.field.options.length > 1) return 'list';
  return KIND_OF_PLACE[place.kind];
}

const ANSWER = /^(?:yes|no|unknown|n\/?a|not applicable|si|no se|none)\W*$/;

/**
 * Returns the groups of boxes side by side that say yes, no or unknown. Each group is one question, of which one box is
 * ticked.
 */
function answerGroups(doc: DocumentFacts): Map<PrintedPlace, string> {
  const rows = new Map<string, PrintedPlace[]>();
  for (const p of doc.places) {
    if (p.kind !== 'checkbox' || p.source !== 'print' || !ANSWER.test(plain(p.label))) continue;
    const key = `${p.page}.${Math.round((p.rect.y + p.rect.h / 2) / 4)}`;
    rows.set(key, [...(rows.get(key) ?? []), p]);
  }
  const out = new Map<PrintedPlace, string>();
  for (const [key, boxes] of rows) {
    // Each answer once: a row with two questions on it would have two of the same.
    const words = new Set(boxes.map((b) => plain(b.label)));
    if (boxes.length > 1 && words.size === boxes.length) for (const b of boxes) out.set(b, `${doc.id}.row.${key}`);
  }
  return out;
}

/** Returns whether a proposal can be accepted as it is: it has a party, and no decision was made yet. */
export function canAccept(p: Proposal): boolean {
  return p.state === 'open' && p.partyId !== null;
}

/** Returns whether a proposal can be accepted together with others, without being reviewed. */
export function isSure(p: Proposal): boolean {
  return canAccept(p) && !p.doubtful;
}

/** How far apart, in points, the same spot of two pages may be. */
const SAME_SPOT = 3;

/** How far apart, in points, the lower edges of a signature and the day on its row may be. */
const SAME_ROW = 10;

/**
 * Returns an uncertain proposal with those that are decided with it: those at the same spot of other pages that were read
 * alike, as a foot or margin is the same everywhere, and the uncertain days of signing on their rows. A proposal that is not
 * uncertain is returned alone.
 */
export function twinsOf(p: Proposal, all: readonly Proposal[]): Proposal[] {
  if (!p.doubtful) return [p];
  const near = (a: number, b: number) => Math.abs(a - b) <= SAME_SPOT;
  const alike = (o: Proposal) =>
    o.doubtful &&
    o.state === p.state &&
    o.documentId === p.documentId &&
    o.partyId === p.partyId &&
    o.other?.partyId === p.other?.partyId;
  const twins = all.filter(
    (o) =>
      o === p ||
      (alike(o) &&
        o.page !== p.page &&
        o.kind === p.kind &&
        o.other?.kind === p.other?.kind &&
        near(o.rect.x, p.rect.x) &&
        near(o.rect.y, p.rect.y) &&
        near(o.rect.w, p.rect.w)),
  );
  if (!takesHand(p.kind)) return twins;
  const foot = (o: Proposal) => o.rect.y + o.rect.h;
  const days = all.filter(
    (o) =>
      o.kind === 'date_signed' &&
      alike(o) &&
      twins.some((t) => t.page === o.page && Math.abs(foot(t) - foot(o)) <= SAME_ROW),
  );
  return [...twins, ...days];
}

/**
 * Returns the edits that make marks of proposals. Accepting twice results in the same marks.
 *
 * @param correct  another party than was read; another kind than that of the first proposal, for all of its kind
 */
export function acceptEdits(
  proposals: Proposal[],
  parties: Pick<PacketParty, 'id' | 'name'>[],
  correct: { partyId?: string; kind?: MarkKind } = {},
): DraftEdit[] {
  const edits: DraftEdit[] = [];
  for (const p of proposals) {
    const partyId = correct.partyId ?? p.partyId;
    if (!partyId) continue;
    const kind = correct.kind && p.kind === proposals[0]?.kind ? correct.kind : p.kind;
    const field = p.place.field;
    const personal = isOwn(kind);
    edits.push({
      op: 'put',
      list: 'marks',
      item: {
        id: `m.${p.id}`,
        documentId: p.documentId,
        page: p.page,
        kind,
        partyId,
        rect: p.rect,
        required: field ? field.required || personal : personal,
        placeId: p.id,
        ...(personal || !p.label ? {} : { label: p.label.slice(0, 200) }),
        ...(field?.multiline && kind === 'text' ? { lines: 'several' as const } : {}),
        ...(field?.maxLength && kind === 'text' ? { check: { maxLength: field.maxLength } } : {}),
        ...(kind === 'list' ? { options: field?.options ?? [] } : {}),
        ...(kind === 'choice'
          ? {
              group: p.group ?? `${p.documentId}.${(field?.group ?? p.id).replace(/[^\w.:-]+/g, '-')}`.slice(0, 100),
              value: field?.options[0] ?? p.label,
            }
          : {}),
      },
    });
    const name = parties.find((q) => q.id === partyId)?.name;
    if (p.nameAt && name)
      edits.push({
        op: 'put',
        list: 'marks',
        item: {
          id: `m.${p.id}.name`,
          documentId: p.documentId,
          page: p.page,
          kind: 'label',
          partyId,
          rect: p.nameAt,
          required: false,
          value: name,
        },
      });
    if (p.state === 'passed') edits.push({ op: 'drop', list: 'passed', id: p.id });
  }
  return edits;
}

/** Returns the edits that dismiss proposals. */
export function leaveOutEdits(proposals: Proposal[]): DraftEdit[] {
  return proposals
    .filter((p) => p.state === 'open')
    .map((p): DraftEdit => ({ op: 'put', list: 'passed', item: { id: p.id } }));
}
