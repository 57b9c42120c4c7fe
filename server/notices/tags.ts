/** What the papers of a notice ask for, and values that are given for it. */
import { wrongWith, type FactValue } from '@gatepath/core/deal';
import { keysIn, tagDefs, type TagDef } from '@gatepath/core/writing';
import type { Context } from '../context';
import { ownFacts } from '../deal-records/queries';
import { Problem } from '../problem';
import * as shelf from '../shelf/queries';

/** Tags that say who somebody is, or whose firm it is: rows say nothing of them. */
const OWN = ['address', 'city', 'firm', 'today', 'kind', 'for_whom'];

/** The tags that the forms of a kit have in their texts, for rows to say; of forms of a paper there are none. */
export async function tagsOfKit(ctx: Context, kitId: string): Promise<TagDef[]> {
  const db = ctx.database.pool;
  const kit = (await shelf.lastEditions(db, [kitId])).get(kitId);
  const forms = await shelf.lastEditions(
    db,
    (kit?.draft.documents ?? []).map((d) => d.id),
  );
  const keys = new Set([...forms.values()].flatMap((f) => (f.written ? keysIn(f.written) : [])));
  return tagDefs(await ownFacts(db)).filter((t) => keys.has(t.key) && t.from !== 'people' && !OWN.includes(t.key));
}

/**
 * Values with changes made to them; null takes one away.
 *
 * @throws Problem `bad-fact` for what is no tag of these, or no value of one
 */
export function withValues(
  was: Record<string, FactValue>,
  changes: Record<string, FactValue | null>,
  tags: readonly TagDef[],
): Record<string, FactValue> {
  const out = { ...was };
  for (const [key, value] of Object.entries(changes)) {
    if (value === null) {
      delete out[key];
      continue;
    }
    const def = tags.find((t) => t.key === key);
    if (!def || def.type === 'names') throw new Problem('bad-fact', `No paper of this notice asks for “${key}”.`);
    const wrong = wrongWith({ ...def, type: def.type }, value);
    if (wrong) throw new Problem('bad-fact', wrong);
    out[key] = value;
  }
  return out;
}
