/** The values that the papers of a notice need, and setting them. */
import { wrongWith, type FactValue } from '@gatepath/core/deal';
import { keysIn, tagDefs, type TagDef } from '@gatepath/core/writing';
import type { Context } from '../context';
import { ownFacts } from '../deal-records/queries';
import { Problem } from '../problem';
import * as shelf from '../shelf/queries';

/** Tags about a person or the firm, which rows do not set. */
const OWN = ['address', 'city', 'firm', 'today', 'kind', 'for_whom'];

/** Returns the tags in the texts of a kit's written forms, for rows to set. */
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
 * Returns values with changes applied; null removes one.
 *
 * @throws Problem `bad-fact` for an unknown tag, or a value that does not fit
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
