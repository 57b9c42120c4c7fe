/** What a member has accepted of a contract so far; it outlives the page, on this device. */
import { useEffect, useState } from 'react';
import { acceptedAtFirst, type Accepted } from '@gatepath/core/abstract';
import { DEAL_KINDS } from '@gatepath/core/deal';
import { isOneOf } from '@gatepath/core/sure';
import { fieldsOf, type ReadContract } from './read-contract';

const keyOf = (id: string) => `gatepath:incoming:${id}`;

function atFirst(view: ReadContract): Accepted {
  const start = acceptedAtFirst({ ...view.abstract, ...fieldsOf(view) });
  return { ...start, forWhom: view.abstract.forWhom ?? start.forWhom };
}

const isAccepted = (v: unknown): v is Accepted =>
  typeof v === 'object' &&
  v !== null &&
  'kind' in v &&
  isOneOf(DEAL_KINDS, v.kind) &&
  'fields' in v &&
  typeof v.fields === 'object' &&
  v.fields !== null &&
  'people' in v &&
  Array.isArray(v.people);

/** Returns what was stored on this device; null if nothing was, or it cannot be used. */
function stored(id: string): Accepted | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null');
    return isAccepted(kept) ? kept : null;
  } catch {
    return null;
  }
}

/** Removes what was stored of a contract that was opened or discarded. */
export function clearAccepted(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // A browser that stores nothing has nothing to remove.
  }
}

/** Returns what is accepted, and the function that changes a part of it. */
export function useAccepted(view: ReadContract): [Accepted, (more: Partial<Accepted>) => void] {
  const [accepted, setAccepted] = useState(() => stored(view.id) ?? atFirst(view));
  useEffect(() => {
    try {
      localStorage.setItem(keyOf(view.id), JSON.stringify(accepted));
    } catch {
      // Without storage the corrections last as long as the page.
    }
  }, [view.id, accepted]);
  return [accepted, (more) => setAccepted((all) => ({ ...all, ...more }))];
}
