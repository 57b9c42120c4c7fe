/** The day of the last signature: when an offer was accepted, or a lease signed. */
import type { DealKind } from '../deal';
import type { Sense } from '../reading/words';
import { isBroker, type Side } from '../text/sides';
import { roleNear } from './block';
import type { Piece } from './pieces';
import type { FieldKey, PersonRead, Source, StatedDay } from './types';
import type { SignedDay } from './values';

/**
 * Returns the day of the last signature of the parties; null if no day stands beside a signature. It is clear if each
 * main side has signed, everybody who is named has, and no day is in doubt.
 */
export function lastSignatureOf(
  pieces: readonly Piece[],
  signed: readonly SignedDay[],
  people: readonly PersonRead[],
  sense: Sense,
  kind: DealKind,
): { field: FieldKey; value: StatedDay; source: Source; clear: boolean } | null {
  if (kind === 'listing' || !signed.length) return null;
  const main: [Side, Side] = kind === 'sale' ? ['seller', 'buyer'] : ['landlord', 'tenant'];
  const lastPage = Math.max(...signed.map((s) => s.source.page));
  const of = signed
    .filter((s) => s.source.page >= lastPage - 1)
    .map((s) => ({ ...s, side: roleNear(pieces, s.at, sense)?.side ?? null }))
    .filter((s) => s.side === null || !isBroker(s.side));
  const parties = of.filter((s) => s.side !== null && main.includes(s.side));
  const from = parties.length ? parties : of;
  const last = [...from].sort((a, b) => b.day.localeCompare(a.day))[0];
  if (!last) return null;
  const enough = main.every((side) => {
    const named = people.filter((p) => p.side === side).length;
    return parties.filter((s) => s.side === side).length >= Math.max(1, named);
  });
  return {
    field: kind === 'sale' ? 'date.accepted' : 'date.lease_signed',
    value: { day: last.day },
    source: last.source,
    clear: enough && parties.every((s) => s.clear),
  };
}
