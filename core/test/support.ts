/** Builders for tests of the core: small packets that are whole unless told otherwise. */
import { NO_SCHEDULE } from '../calendar';
import type { Draft } from '../packet/draft';
import type { PacketNow } from '../deal';
import type { DocumentFacts } from '../packet/resolve';
import type { Mark, MarkKind, PacketParty, Plan } from '../packet/types';
import type { PageFacts, Rect } from '../paper/types';
import { emptyGrid, inkRect } from '../paper/ink';
import type { PrintedPlace } from '../reading/types';
import type { Side } from '../text/sides';

export function party(id: string, more: Partial<PacketParty> = {}): PacketParty {
  return {
    id,
    name: `${id[0]!.toUpperCase()}${id.slice(1)} Alder`,
    email: `${id}@example.com`,
    phone: null,
    side: 'seller' as Side,
    ordinal: 1,
    act: 'sign',
    ink: 0,
    ...more,
  };
}

export function mark(
  id: string,
  partyId: string,
  kind: MarkKind,
  page = 1,
  rect: Rect = { x: 100, y: 600, w: 120, h: 26 },
): Mark {
  return { id, documentId: 'doc', page, kind, partyId, rect, required: true };
}

/** Returns a page with the given boxes printed on it; each is both ink and words. */
export function page(print: Rect[] = [], width = 612, height = 792): PageFacts {
  const ink = emptyGrid(width, height);
  for (const r of print) inkRect(ink, r);
  return { width, height, ink, print, words: print.map((_, i) => `word${i}`) };
}

/** Returns a signature line of the first seller, printed on page 1. */
export const printedPlace = (change: Partial<PrintedPlace> = {}): PrintedPlace => ({
  page: 1,
  kind: 'signature',
  role: 'seller',
  ordinal: 1,
  rect: { x: 72, y: 600, w: 200, h: 20 },
  label: 'Signature',
  source: 'print',
  confidence: 1,
  ...change,
});

/** Returns a packet that has waited for its buyer Priya since December 1, as the next steps of a deal see it. */
export const waitingPacket = (change: Partial<PacketNow> = {}): PacketNow => ({
  id: 'p1',
  name: 'Purchase papers',
  status: 'at_gate',
  waits: [
    {
      partyId: 'priya',
      name: 'Priya Nair',
      since: '2026-12-01',
      words: 'has not opened it',
      bounced: false,
      email: 'priya@example.com',
      phone: null,
      desk: false,
    },
  ],
  questions: [],
  lastDay: null,
  since: '2026-11-30',
  documents: 1,
  path: { gates: [['priya']], gate: 0, parties: [] },
  ...change,
});

export function facts(
  pages: PageFacts[],
  id = 'doc',
  name = 'Disclosure',
  places: DocumentFacts['places'] = [],
): DocumentFacts {
  return { id, name, pages, places };
}

/** Returns two sellers who sign page 1 and initial every page: nothing for the gate check to find. */
export function cleanDraft(): Draft {
  return {
    name: 'Papers',
    subject: 'Please sign',
    message: '',
    parties: [party('wren'), party('callum', { ordinal: 2, ink: 1 })],
    documents: [{ id: 'doc' }],
    gates: [{ id: 'g1', partyIds: ['wren', 'callum'] }],
    marks: [mark('s1', 'wren', 'signature'), mark('s2', 'callum', 'signature', 1, { x: 300, y: 600, w: 120, h: 26 })],
    rules: [
      { id: 'rule', documentId: 'doc', partyIds: ['wren', 'callum'], anchor: { fx: 0, fy: 1 }, except: [], moved: [] },
    ],
    redlines: [],
    passed: [],
    schedule: NO_SCHEDULE,
    handOver: false,
  };
}

/** Returns a plan of `gates`, each a list of party ids; every party signs once and initials once. */
export function planOf(gates: string[][], acts: Record<string, PacketParty['act']> = {}): Plan {
  const ids = gates.flat();
  return {
    packetName: 'Papers',
    dealName: '14 Lantern Row',
    timeZone: 'America/New_York',
    subject: 'Please sign',
    message: '',
    parties: ids.map((id, i) => party(id, { act: acts[id] ?? 'sign', ink: i })),
    gates: gates.map((partyIds, i) => ({ id: `g${i}`, partyIds })),
    documents: [{ id: 'doc', name: 'Disclosure', sha256: '0'.repeat(64), pages: [{ width: 612, height: 792 }] }],
    redlines: [],
    marks: ids
      .filter((id) => ['sign', 'desk'].includes(acts[id] ?? 'sign'))
      .flatMap((id, i) => [
        mark(`${id}-i`, id, 'initials', 1, { x: 20 + i * 60, y: 740, w: 54, h: 22 }),
        mark(`${id}-s`, id, 'signature', 1, { x: 20, y: 40 + i * 40, w: 150, h: 28 }),
        mark(`${id}-d`, id, 'date_signed', 1, { x: 200, y: 40 + i * 40, w: 90, h: 18 }),
      ]),
  };
}
