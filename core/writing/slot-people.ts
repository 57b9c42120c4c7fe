/** The people in the slots of a written form: of a deal, or a sample while writing. */
import type { PacketParty } from '../packet/types';
import { sideIn, type Words } from '../words';
import type { Filling } from '../shelf/fill';
import type { Slot } from '../shelf/slots';
import { SIDES, sideLabel, type Side } from '../text/sides';
import type { ComposeFor, SlotPerson } from './compose';
import type { TagDef, TagValues } from './tags';

type Who = Pick<ComposeFor, 'slots' | 'everyOf' | 'sides'>;

const everyOf = (slots: readonly Slot[]) =>
  new Map(slots.flatMap((s): [string, Side][] => (s.slot === 'every' ? [[s.id, s.side]] : [])));

/**
 * Returns the people of a deal in a form's slots. A slot for one person stays a slot, to be filled by whoever uses the
 * kit; a slot for everybody becomes its people, each with places of their own.
 *
 * @param people  everybody of the deal
 * @param words   of the paper's language
 */
export function slotPeople(filling: Filling, people: readonly PacketParty[], words: Words): Who {
  const slotPerson = (p: PacketParty, partyId: string): SlotPerson => ({
    partyId,
    name: p.company ? `${p.company}: ${p.name}` : p.name,
    under: sideIn(words, p),
  });
  const slots = new Map<string, SlotPerson[]>();
  const idOf = new Map<string, string>();
  for (const { slot, people: here } of filling.slots) {
    slots.set(
      slot.id,
      here.map((p) => slotPerson(p, slot.slot === 'every' ? p.id : slot.id)),
    );
    if (slot.slot === 'one') for (const p of here) idOf.set(p.id, slot.id);
  }
  return {
    slots,
    everyOf: everyOf(filling.slots.map((f) => f.slot)),
    sides: new Map(
      SIDES.map((side) => [side, inOrder(people, side).map((p) => slotPerson(p, idOf.get(p.id) ?? p.id))]),
    ),
  };
}

const inOrder = (people: readonly PacketParty[], side: Side) =>
  people.filter((p) => p.side === side).sort((a, b) => a.ordinal - b.ordinal);

/** Returns the names of a deal's people for tags. */
export const namesBySide = (people: readonly PacketParty[]): TagValues['people'] =>
  new Map(SIDES.map((side) => [side, inOrder(people, side).map((p) => p.company || p.name)]));

/** Returns each slot once, by its name: how the paper looks while it is written. */
export function sampleFor(slots: readonly Slot[], tags: ReadonlyMap<string, TagDef>, words: Words): ComposeFor {
  const one = (s: Slot): SlotPerson => ({ partyId: s.id, name: `‹${s.name}›`, under: '' });
  return {
    words,
    tags,
    values: { facts: new Map(), people: new Map() },
    slots: new Map(slots.map((s) => [s.id, [one(s)]])),
    everyOf: everyOf(slots),
    sides: new Map(
      SIDES.map((side) => {
        const every = slots.find((s) => s.slot === 'every' && s.side === side);
        return [side, [every ? one(every) : { partyId: '', name: `‹${sideLabel(side, 1)}›`, under: '' }]];
      }),
    ),
    sample: true,
  };
}
