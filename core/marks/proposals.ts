/**
 * Proposals: what was read on the pages, matched to the people of a packet. A proposal is no
 * mark until somebody accepts it. Where a form has fewer lines than there are people, the
 * others get places of the same kinds in free space next to the printed ones.
 */
import type { PlaceKind, PlaceRole, PrintedPlace } from '../reading/types';
import type { PacketParty } from '../routing/types';
import type { Draft, DraftEdit } from './draft';
import { plain } from '../reading/words';
import { overlapArea } from './geometry';
import { partyOfPlace, roleHere, signersOf } from './place-party';
import type { DocumentFacts } from './resolve';
import { FreeSpace } from './space';
import type { Mark, MarkKind, Rect } from './types';

export interface Proposal {
  /** The place's id: document, page and place. */
  id: string;
  documentId: string;
  page: number;
  rect: Rect;
  kind: MarkKind;
  /** Whose it would be; null when the page does not say, or nobody in the packet fits. */
  partyId: string | null;
  /** Whether the page names somebody who is not in this packet. */
  stranger: boolean;
  label: string;
  place: PrintedPlace;
  state: 'open' | 'accepted' | 'passed';
  /** Boxes that answer one question and exclude each other. */
  group?: string;
  /** For a place beyond the printed ones: the printed place it stands beside. */
  beside?: string;
  /** For a place beyond the printed ones: where the name stands under it. */
  nameAt?: Rect;
}

const KINDS: Record<PlaceKind, MarkKind> = {
  signature: 'signature',
  initials: 'initials',
  date: 'date',
  name: 'printed_name',
  text: 'text',
  checkbox: 'tick',
};

interface Kept {
  marks: Mark[];
  passed: Set<string>;
  key: string;
  proposals: Proposal[];
}
const kept = new WeakMap<DocumentFacts, Kept>();

/**
 * All proposals of a draft, document by document in reading order; those beyond the printed places after them.
 *
 * @param marks  all marks of the draft, those made from rules included: a place they fill is decided on
 */
export function proposalsOf(draft: Draft, documents: DocumentFacts[], marks: Mark[] = draft.marks): Proposal[] {
  const inPacket = new Set(draft.documents.map((d) => d.id));
  const key = draft.parties.map((p) => `${p.id}/${p.side}/${p.ordinal}/${p.act}/${p.only?.join() ?? ''}`).join(';');
  const passed = new Set(draft.passed.map((p) => p.id));
  const byDocument = new Map<string, Mark[]>();
  for (const m of marks) {
    const list = byDocument.get(m.documentId);
    if (list) list.push(m);
    else byDocument.set(m.documentId, [m]);
  }
  return documents.flatMap((doc) => {
    if (!inPacket.has(doc.id) || !doc.places.length) return [];
    const here = byDocument.get(doc.id) ?? [];
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

const sameSet = (a: Set<string>, b: Set<string>) => a.size === b.size && [...a].every((x) => b.has(x));

function ofDocument(doc: DocumentFacts, parties: PacketParty[], marks: Mark[], passed: Set<string>): Proposal[] {
  const accepted = new Set(marks.flatMap((m) => m.placeId ?? []));
  const state = (id: string, rect: Rect, page: number, kind: MarkKind): Proposal['state'] =>
    passed.has(id)
      ? 'passed'
      : accepted.has(id) || marks.some((m) => m.page === page && fills(m, kind, rect))
        ? 'accepted'
        : 'open';
  const answers = answerGroups(doc);
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
      state: state(id, place.rect, place.page, kind),
      ...(group ? { group } : {}),
    };
  });
  return [
    ...printed,
    ...extras(doc, parties, marks, printed, (id, rect, page, kind) =>
      passed.has(id) ? 'passed' : accepted.has(id) ? 'accepted' : state(id, rect, page, kind),
    ),
  ];
}

/** Whether a mark that stands on the page already does what a place asks for. */
function fills(m: Mark, kind: MarkKind, rect: Rect): boolean {
  if (m.kind === 'label') return false;
  const personal = kind === 'signature' || kind === 'initials';
  if (personal !== (m.kind === 'signature' || m.kind === 'initials')) return false;
  return overlapArea(m.rect, rect) > 0.3 * Math.min(m.rect.w * m.rect.h, rect.w * rect.h);
}

function kindOf(place: PrintedPlace, known: boolean): MarkKind {
  if (place.kind === 'date') return known ? 'date_signed' : 'date';
  if (place.kind === 'checkbox' && place.field?.group) return 'choice';
  if (place.kind === 'text' && place.field && place.field.options.length > 1) return 'list';
  return KINDS[place.kind];
}

const ANSWER = /^(?:yes|no|unknown|n\/?a|not applicable|si|no se|none)\W*$/;

/** Boxes side by side that say yes, no or unknown: one question, of which one box is ticked. */
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

/** How far from a signature, in points, its date and name may stand. */
const BLOCK = 110;

interface Block {
  role: PlaceRole;
  page: number;
  /** Greatest ordinal printed in this block. */
  lines: number;
  /** The places of the last printed one. */
  group: Proposal[];
}

/** Blocks of printed places, each with what its last person has: a signature with date and name, or initials. */
function blocks(printed: Proposal[], roleOf: (p: Proposal) => PlaceRole): Block[] {
  const out: Block[] = [];
  const heads = printed.filter(
    (p) => (p.kind === 'signature' || p.kind === 'initials') && p.place.ordinal !== null && roleOf(p) !== 'unknown',
  );
  const open = new Map<string, { block: Block; last: Proposal }>();
  for (const p of heads) {
    const key = `${p.page}/${roleOf(p)}/${p.kind}`;
    const at = open.get(key);
    const anew =
      !at ||
      p.place.ordinal! <= at.last.place.ordinal! ||
      p.rect.y - at.last.rect.y > (p.kind === 'initials' ? 60 : 190);
    const group = [p, ...(p.kind === 'signature' ? companions(p, printed) : [])];
    if (anew) {
      const block: Block = { role: roleOf(p), page: p.page, lines: p.place.ordinal!, group };
      out.push(block);
      open.set(key, { block, last: p });
    } else {
      at.block.lines = Math.max(at.block.lines, p.place.ordinal!);
      at.block.group = group;
      at.last = p;
    }
  }
  return out;
}

function companions(sign: Proposal, printed: Proposal[]): Proposal[] {
  return printed.filter(
    (q) =>
      q !== sign &&
      q.page === sign.page &&
      (q.place.kind === 'date' || q.place.kind === 'name') &&
      q.place.role === sign.place.role &&
      q.place.ordinal === sign.place.ordinal &&
      Math.abs(q.rect.y - sign.rect.y) < BLOCK,
  );
}

/** Points that the name under an added place takes. */
const NAME_HEIGHT = 9;
/** How much smaller than the printed ones added places may be. */
const SCALES = [1, 0.85, 0.7, 0.58];
const LEAST: Partial<Record<MarkKind, { w: number; h: number }>> = {
  signature: { w: 84, h: 15 },
  initials: { w: 30, h: 13 },
  date_signed: { w: 56, h: 11 },
  date: { w: 56, h: 11 },
  printed_name: { w: 70, h: 11 },
};

function extras(
  doc: DocumentFacts,
  parties: PacketParty[],
  marks: Mark[],
  printed: Proposal[],
  state: (id: string, rect: Rect, page: number, kind: MarkKind) => Proposal['state'],
): Proposal[] {
  const out: Proposal[] = [];
  const roleOf = (p: Proposal) => roleHere(p.place, doc.id, parties);
  const spaces = new Map<number, FreeSpace>();
  const spaceOf = (page: number) => {
    let s = spaces.get(page);
    if (!s) {
      s = new FreeSpace(doc.pages[page - 1]!, [
        ...marks
          .filter(
            (m) => m.page === page && !/\.x\./.test(m.placeId ?? '') && !(m.kind === 'label' && /\.x\./.test(m.id)),
          )
          .map((m) => m.rect),
        ...printed.filter((p) => p.page === page).map((p) => p.rect),
      ]);
      spaces.set(page, s);
    }
    return s;
  };
  blocks(printed, roleOf).forEach((block, n) => {
    const people = signersOf(block.role, doc.id, parties);
    let last = boxOf(block.group.map((p) => p.rect));
    for (const party of people.slice(block.lines)) {
      const placed = placeGroup(spaceOf(block.page), block.group, last);
      if (!placed) continue;
      last = boxOf([...placed.rects, ...placed.names]);
      block.group.forEach((p, i) => {
        const id = `${doc.id}.${block.page}.x.${n}.${p.kind}.${party.id}`;
        const rect = placed.rects[i]!;
        out.push({
          ...p,
          id,
          rect,
          partyId: party.id,
          stranger: false,
          label: p.label,
          place: {
            ...p.place,
            ordinal: people.indexOf(party) + 1,
            rect,
            confidence: Math.min(p.place.confidence, 0.8),
          },
          state: state(id, rect, block.page, p.kind),
          beside: p.id,
          nameAt: i === 0 ? placed.names[0] : undefined,
        });
      });
    }
  });
  return out;
}

function boxOf(rects: Rect[]): Rect {
  const x = Math.min(...rects.map((r) => r.x));
  const y = Math.min(...rects.map((r) => r.y));
  return { x, y, w: Math.max(...rects.map((r) => r.x + r.w)) - x, h: Math.max(...rects.map((r) => r.y + r.h)) - y };
}

/** Places a person's group near the last one: as it is printed where that fits, else smaller, else piece by piece. */
function placeGroup(space: FreeSpace, group: Proposal[], last: Rect): { rects: Rect[]; names: Rect[] } | null {
  const box = boxOf(group.map((p) => p.rect));
  const below = { x: last.x, y: last.y + last.h + 6 };
  const beside = { x: last.x + last.w + 8, y: last.y };
  // Initials go on in their row, signatures in their column.
  const wishes = group[0]!.kind === 'initials' ? [beside, below] : [below, beside];
  const reach = [60, 130, 260, 2000];
  for (const far of reach)
    for (const scale of SCALES) {
      const sizes = group.map((p) => shrink(p, scale));
      // As printed: the same arrangement, only smaller, with room for the name.
      const w = Math.max(...group.map((p, i) => (p.rect.x - box.x) * scale + sizes[i]!.w));
      const h = Math.max(...group.map((p, i) => (p.rect.y - box.y) * scale + sizes[i]!.h)) + NAME_HEIGHT;
      for (const wish of wishes) {
        const at = space.nearest({ w, h }, wish, far, 18, 0.7);
        if (!at) continue;
        const rects = group.map((p, i) => ({
          x: round(at.x + (p.rect.x - box.x) * scale),
          y: round(at.y + (p.rect.y - box.y) * scale),
          w: round(sizes[i]!.w),
          h: round(sizes[i]!.h),
        }));
        const head = rects[0]!;
        const name = { x: head.x, y: round(head.y + head.h), w: head.w, h: NAME_HEIGHT };
        // A block whose pieces lie on each other once shrunk is no block.
        if (
          rects.some(
            (r, i) => rects.some((o, k) => k > i && overlapArea(r, o) > 0.5) || (i > 0 && overlapArea(r, name) > 0.5),
          )
        )
          continue;
        space.take({ ...at, h });
        return { rects, names: [name] };
      }
    }
  return placePieces(space, group, last);
}

function placePieces(space: FreeSpace, group: Proposal[], last: Rect): { rects: Rect[]; names: Rect[] } | null {
  const rects: Rect[] = [];
  const names: Rect[] = [];
  let wish = { x: last.x, y: last.y + last.h + 4 };
  for (const [i, p] of group.entries()) {
    const size = shrink(p, SCALES[SCALES.length - 1]!);
    const at = space.nearest({ w: size.w, h: size.h + (i === 0 ? NAME_HEIGHT : 0) }, wish, 2000, 14);
    if (!at) return null;
    space.take(at);
    rects.push({ x: at.x, y: at.y, w: size.w, h: size.h });
    if (i === 0) names.push({ x: at.x, y: round(at.y + size.h), w: size.w, h: NAME_HEIGHT });
    wish = { x: at.x + at.w + 4, y: at.y };
  }
  return { rects, names };
}

const round = (n: number) => Math.round(n * 10) / 10;

function shrink(p: Proposal, scale: number): { w: number; h: number } {
  const least = LEAST[p.kind] ?? { w: 40, h: 11 };
  return { w: round(Math.max(least.w, p.rect.w * scale)), h: round(Math.max(least.h, p.rect.h * scale)) };
}

/** Whether a proposal can be accepted as it stands: it has somebody, and nobody decided on it yet. */
export function canAccept(p: Proposal): boolean {
  return p.state === 'open' && p.partyId !== null;
}

/**
 * The edits that make marks of proposals. Accepting twice puts the same marks again.
 *
 * @param correct  another party or kind than was read
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
    const kind = correct.kind ?? p.kind;
    const field = p.place.field;
    const personal = ['signature', 'initials', 'date_signed', 'printed_name'].includes(kind);
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

/** The edits that leave proposals out knowingly. */
export function passEdits(proposals: Proposal[]): DraftEdit[] {
  return proposals
    .filter((p) => p.state === 'open')
    .map((p): DraftEdit => ({ op: 'put', list: 'passed', item: { id: p.id } }));
}
