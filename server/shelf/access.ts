/** Access to forms and kits: what a member may not use does not exist for them. */
import { mayMake, mayUse } from '@gatepath/core/shelf';
import type { Db } from '../db/pool';
import type { Member } from '../firm/queries';
import { notFound, Problem } from '../problem';
import { sharingOf } from '../sharing/queries';
import * as q from './queries';

const what = 'This form or kit';

/**
 * Returns a form or kit that a member may use.
 *
 * @throws Problem `not-found`
 */
export async function itemOr404(db: Db, id: string, member: Member): Promise<q.ShelfRow> {
  const row = await q.itemById(db, id);
  if (!row || !mayUse(sharingOf(row), member.id)) throw notFound(what);
  return row;
}

/** Returns the same item, locked for a change by a member. @throws Problem `not-found`, `not-maker` */
export async function toChange(db: Db, id: string, member: Member): Promise<q.ShelfRow> {
  const row = await q.lockItem(db, id);
  if (!row || !mayUse(sharingOf(row), member.id)) throw notFound(what);
  if (!mayMake(sharingOf(row), member.id))
    throw new Problem(
      'not-maker',
      `“${row.name}” is yours to use, and not to change. Ask whoever made it, or make a copy.`,
    );
  return row;
}

/**
 * Refuses forms that a member may not put into a kit. Later users of the kit may use whatever is in it.
 *
 * @throws Problem `not-found`, `unknown-document`
 */
export async function requireForms(db: Db, ids: string[], member: Member): Promise<void> {
  const rows = await q.headsByIds(db, ids);
  if (rows.some((r) => !mayUse(sharingOf(r), member.id))) throw notFound('A form of this kit');
  if (ids.some((id) => !rows.some((r) => r.id === id && r.what === 'form')))
    throw new Problem('unknown-document', 'A form of this kit is not on the shelf any more. Load the page again.');
}

/**
 * Returns the last editions of forms that packets may use.
 *
 * @throws Problem `not-on-shelf` for a form without an edition, or a retired one
 */
export async function usableForms(db: Db, ids: string[]): Promise<Map<string, q.EditionRow>> {
  const rows = await q.headsByIds(db, ids);
  for (const id of ids) {
    const row = rows.find((r) => r.id === id);
    if (!row || row.what !== 'form')
      throw new Problem('not-on-shelf', 'A form of this kit is gone. Take it out of the kit.');
    if (row.retired_at)
      throw new Problem(
        'not-on-shelf',
        `The form “${row.name}” was retired. Take it out of the kit, or bring it back.`,
      );
    if (!row.edition)
      throw new Problem(
        'not-on-shelf',
        `The form “${row.name}” is not on the shelf yet. Finish it and put it there first.`,
      );
  }
  return q.lastEditions(db, ids);
}
