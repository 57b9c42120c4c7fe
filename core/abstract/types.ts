/** What a contract says about its deal: each value with the words it was read from. */
import type { Count } from '../calendar';
import type { DealKind, FactValue, KeyDate } from '../deal';
import type { Rect } from '../paper/types';
import type { Side } from '../text/sides';

/** A page whose words are read. Lengths are points from the top left corner as displayed. */
export interface AbstractPage {
  words: { text: string; rect: Rect }[];
  /** Whether the words were recognized on a scan: they may be misread. */
  scanned: boolean;
}

/** Maximum number of sources stored for one value. A footer may repeat a value on a thousand pages. */
export const MOST_SOURCES = 8;

/** Where a value is printed. */
export interface Source {
  /** From 1. */
  page: number;
  rect: Rect;
  /** The words around it, as printed. */
  words: string;
}

/** How a day is stated: as a day of the calendar, or counted from another key date. */
export type StatedDay = { day: string } | { count: Count; from: KeyDate };

/** Returns whether a value is a stated or counted day. */
export const isStatedDay = (value: FactValue | StatedDay): value is StatedDay => typeof value === 'object';

/** What a field can be: the deal's kind, address or town, a fact, a key date. */
export type FieldKey = 'kind' | 'address' | 'city' | `fact.${string}` | `date.${KeyDate}`;

/** One value that was read for a field, and every place that states it. */
export interface Reading<V> {
  value: V;
  sources: Source[];
  /** Whether it may be used without a member's look: its words say clearly what it is. */
  clear: boolean;
}

/** A field with what was read for it. */
export interface FieldRead<V = FactValue | StatedDay> {
  field: FieldKey;
  /** The likeliest first. More than one clear reading contradict each other. */
  readings: Reading<V>[];
  /** Whether the first reading is offered as certain. */
  certain: boolean;
}

/** A person or company that the contract names. */
export interface PersonRead {
  side: Side;
  name: string;
  /** Whom they sign for; empty for themselves. */
  company: string;
  capacity: string;
  sources: Source[];
  certain: boolean;
}

/** What a contract says about its deal. */
export interface Abstract {
  /** What it most likely is. */
  kind: DealKind;
  kindCertain: boolean;
  people: PersonRead[];
  fields: FieldRead[];
  /** Captions whose value could not be read, as where it is written by hand. */
  unread: { field: FieldKey; source: Source }[];
}
