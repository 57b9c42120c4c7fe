/** What a party has to do, one after another: one mark each, but the choices of a group together. */
import type { SigningView } from '@gatepath/contract';
import type { OwnMark } from './own-rules';

export interface SigningPlace {
  key: string;
  /** One mark, or the choices of a group. */
  marks: OwnMark[];
  required: boolean;
  done: boolean;
}

/** Returns places in reading order, without marks that fill themselves. */
export function signingPlaces(view: Pick<SigningView, 'marks'>): SigningPlace[] {
  const out: SigningPlace[] = [];
  const groups = new Map<string, SigningPlace>();
  for (const m of view.marks) {
    if (m.automatic) continue;
    const group = m.group ? groups.get(m.group) : undefined;
    if (group) {
      group.marks.push(m);
      group.required ||= m.required;
      group.done ||= m.done;
      continue;
    }
    const place = { key: m.group ?? m.id, marks: [m], required: m.required, done: m.done };
    out.push(place);
    if (m.group) groups.set(m.group, place);
  }
  return out;
}
