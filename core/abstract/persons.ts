/** The people of a contract, put together from everything that mentions them. */
import { fold } from '../text/names';
import { isBroker, type Side } from '../text/sides';
import { MOST_SOURCES, type PersonRead, type Source } from './types';

/** A name with its side and where it stands. */
export interface Mention {
  side: Side;
  ordinal: number | null;
  name: string;
  company: boolean;
  capacity: string;
  source: Source;
  clear: boolean;
}

/** Returns people by side from their mentions: one with the same name is one person. */
export function peopleOf(mentions: readonly Mention[], sides: readonly Side[]): PersonRead[] {
  const out = new Map<string, PersonRead & { ordinal: number | null; at: number }>();
  const sideOf = new Map<string, Set<Side>>();
  mentions.forEach((m, at) => {
    if (!sides.includes(m.side)) return;
    const key = fold(m.name).replace(/[^\p{L}\d]+/gu, ' ');
    sideOf.set(key, (sideOf.get(key) ?? new Set()).add(m.side));
    const known = out.get(`${m.side} ${key}`);
    if (known) {
      if (known.sources.length < MOST_SOURCES) known.sources.push(m.source);
      known.certain ||= m.clear;
      known.ordinal ??= m.ordinal;
      known.capacity ||= m.capacity;
      return;
    }
    out.set(`${m.side} ${key}`, {
      side: m.side,
      name: m.name,
      company: m.company ? m.name : '',
      capacity: m.capacity,
      sources: [m.source],
      certain: m.clear,
      ordinal: m.ordinal,
      at,
    });
  });
  return [...out.entries()]
    .map(([key, p]) => {
      // The same name on both sides: one of them was read wrong. A broker may act for both.
      const other = [...(sideOf.get(key.slice(p.side.length + 1)) ?? [])].filter((s) => s !== p.side && !isBroker(s));
      return { ...p, certain: p.certain && (!other.length || isBroker(p.side)) };
    })
    .sort(
      (a, b) => sides.indexOf(a.side) - sides.indexOf(b.side) || (a.ordinal ?? 99) - (b.ordinal ?? 99) || a.at - b.at,
    )
    .map(({ ordinal: _, at: __, ...p }) => p);
}
