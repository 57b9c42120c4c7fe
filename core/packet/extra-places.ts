/** More people than lines: finding room beside the print, in the printed arrangement. */
import type { PlaceRole } from '../reading/types';
import type { PacketParty, Mark, MarkKind } from './types';
import { overlapArea } from '../paper/geometry';
import { roleHere, signersOf } from './place-party';
import type { Proposal } from './proposal';
import type { DocumentFacts } from './resolve';
import { FreeSpace } from '../paper/space';
import type { PageFacts, Rect } from '../paper/types';
import { itemAt } from '../sure';

/** How far from a signature, in points, its date and name may be. */
const BLOCK = 110;

interface Block {
  role: PlaceRole;
  page: number;
  kind: MarkKind;
  /** Lowest and highest number printed in this block. */
  first: number;
  lines: number;
  /** The places of the last printed person. */
  group: Proposal[];
}

/**
 * Returns blocks of printed places, each with what its last person has: a signature with date and name, or initials.
 */
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
      const n = p.place.ordinal!;
      const block: Block = { role: roleOf(p), page: p.page, kind: p.kind, first: n, lines: n, group };
      out.push(block);
      open.set(key, { block, last: p });
    } else {
      at.block.lines = Math.max(at.block.lines, p.place.ordinal!);
      at.block.group = group;
      at.last = p;
    }
  }
  // A block that another continues has space for all of them together.
  for (const block of [...out].reverse()) {
    const next = out.find((b) => b.role === block.role && b.kind === block.kind && b.first === block.lines + 1);
    if (next) block.lines = next.lines;
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

/** Height of the name under an added place, in points. */
const NAME_HEIGHT = 9;
/** Sizes of added places relative to the printed ones. */
const SCALES = [1, 0.85, 0.7, 0.58];
const LEAST: Partial<Record<MarkKind, { w: number; h: number }>> = {
  signature: { w: 84, h: 15 },
  initials: { w: 30, h: 13 },
  date_signed: { w: 56, h: 11 },
  date: { w: 56, h: 11 },
  printed_name: { w: 70, h: 11 },
};

/**
 * Returns places for the people of a role for whom a form has no line: the same kinds as on the last printed line, in
 * free space beside the printed places, with the name underneath.
 *
 * @param marks    marks that stand on the document; those accepted for such places do not count
 * @param printed  proposals of the printed places
 * @param state    what was decided about a place
 */
export function extraPlaces(
  doc: DocumentFacts,
  parties: PacketParty[],
  marks: Mark[],
  printed: Proposal[],
  state: (id: string, rect: Rect, page: number, kind: MarkKind) => Proposal['state'],
): Proposal[] {
  const all = blocks(printed, (p) => roleHere(p.place, doc.id, parties)).map((block, n) => {
    const people = signersOf(block.role, doc.id, parties);
    return { block, n, people, more: people.slice(block.lines) };
  });
  const spots = new Map<Block, (Spot | null)[]>();
  for (const page of new Set(all.filter((b) => b.more.length).map((b) => b.block.page))) {
    const here = all.filter((b) => b.block.page === page);
    const taken = [
      ...marks
        .filter((m) => m.page === page && !/\.x\./.test(m.placeId ?? '') && !(m.kind === 'label' && /\.x\./.test(m.id)))
        .map((m) => m.rect),
      ...printed.filter((p) => p.page === page).map((p) => p.rect),
    ];
    const found = spotsOf(
      itemAt(doc.pages, page - 1),
      taken,
      here.map((b) => ({ group: b.block.group.map(({ rect, kind }) => ({ rect, kind })), people: b.more.length })),
    );
    here.forEach((b, i) => spots.set(b.block, itemAt(found, i)));
  }
  return all.flatMap(({ block, n, people, more }) =>
    more.flatMap((party, k) => {
      const spot = spots.get(block)?.[k];
      if (!spot) return [];
      return block.group.map((p, i): Proposal => {
        const id = `${doc.id}.${block.page}.x.${n}.${p.kind}.${party.id}`;
        const rect = itemAt(spot.rects, i);
        return {
          ...p,
          id,
          rect,
          partyId: party.id,
          stranger: false,
          label: p.label,
          // What the printed place may be instead says nothing of the place beside it.
          other: undefined,
          place: {
            ...p.place,
            other: undefined,
            ordinal: people.indexOf(party) + 1,
            rect,
            confidence: Math.min(p.place.confidence, 0.8),
          },
          state: state(id, rect, block.page, p.kind),
          beside: p.id,
          nameAt: i === 0 ? spot.names[0] : undefined,
        };
      });
    }),
  );
}

/** A printed place, as far as the search for room needs it. */
type Piece = Pick<Proposal, 'rect' | 'kind'>;
/** Where a person's places are, and the name under the first. */
interface Spot {
  rects: Rect[];
  names: Rect[];
}
interface Ask {
  group: Piece[];
  people: number;
}

/** Cached results per page: most edits leave nearly all pages unchanged, and the search is slow. */
const kept = new WeakMap<PageFacts, { key: string; spots: (Spot | null)[][] }>();

/** Returns for each block of a page a spot for each of its people, or null where there is no room. */
function spotsOf(page: PageFacts, taken: Rect[], asks: Ask[]): (Spot | null)[][] {
  const key = JSON.stringify([taken, asks]);
  const last = kept.get(page);
  if (last?.key === key) return last.spots;
  const space = new FreeSpace(page, taken);
  const spots = asks.map(({ group, people }) => {
    let beside = boxOf(group.map((p) => p.rect));
    return Array.from({ length: people }, () => {
      const spot = placeGroup(space, group, beside);
      if (spot) beside = boxOf([...spot.rects, ...spot.names]);
      return spot;
    });
  });
  kept.set(page, { key, spots });
  return spots;
}

function boxOf(rects: Rect[]): Rect {
  const x = Math.min(...rects.map((r) => r.x));
  const y = Math.min(...rects.map((r) => r.y));
  return { x, y, w: Math.max(...rects.map((r) => r.x + r.w)) - x, h: Math.max(...rects.map((r) => r.y + r.h)) - y };
}

/**
 * Returns a spot for a person's group near the last one: as printed if that fits, otherwise smaller; null if there is
 * no room.
 */
function placeGroup(space: FreeSpace, group: Piece[], last: Rect): Spot | null {
  const box = boxOf(group.map((p) => p.rect));
  const below = { x: last.x, y: last.y + last.h + 6 };
  const beside = { x: last.x + last.w + 8, y: last.y };
  // Initials continue in their row, signatures in their column.
  const wishes = itemAt(group, 0).kind === 'initials' ? [beside, below] : [below, beside];
  // Further away it would be beside something else; a page of its own is offered instead.
  const reach = [60, 130];
  for (const far of reach)
    for (const scale of SCALES) {
      const sizes = group.map((p) => shrink(p, scale));
      // As printed: the same arrangement, only smaller, with room for the name.
      const w = Math.max(...group.map((p, i) => (p.rect.x - box.x) * scale + itemAt(sizes, i).w));
      const h = Math.max(...group.map((p, i) => (p.rect.y - box.y) * scale + itemAt(sizes, i).h)) + NAME_HEIGHT;
      for (const wish of wishes) {
        const at = space.nearest({ w, h }, wish, far, 18, 0.7);
        if (!at) continue;
        const rects = group.map((p, i) => ({
          x: round(at.x + (p.rect.x - box.x) * scale),
          y: round(at.y + (p.rect.y - box.y) * scale),
          w: round(itemAt(sizes, i).w),
          h: round(itemAt(sizes, i).h),
        }));
        const head = itemAt(rects, 0);
        const name = { x: head.x, y: round(head.y + head.h), w: head.w, h: NAME_HEIGHT };
        // A block whose pieces overlap once shrunk is no block.
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
  return null;
}

const round = (n: number) => Math.round(n * 10) / 10;

function shrink(p: Piece, scale: number): { w: number; h: number } {
  const least = LEAST[p.kind] ?? { w: 40, h: 11 };
  return { w: round(Math.max(least.w, p.rect.w * scale)), h: round(Math.max(least.h, p.rect.h * scale)) };
}
