/** Who may use and who may change an item of the shelf. */
import { mayMake, mayUse, type Sharing } from '@gatepath/core/shelf';
import type { Db } from '../db/pool';

interface SharingRow {
  owner_id: string;
  users: Sharing['users'];
  makers: Sharing['makers'];
}

/** Returns who may do what with an item of the shelf. */
export const sharingOf = (row: SharingRow): Sharing => ({
  ownerId: row.owner_id,
  users: row.users,
  makers: row.makers,
});

async function sharingOfItem(db: Db, id: string): Promise<Sharing | null> {
  const sql = 'select owner_id, users, makers from shelf_item where id = $1';
  const row = (await db.query<SharingRow>(sql, [id])).rows[0];
  return row ? sharingOf(row) : null;
}

/** Returns whether an item exists and a member may use it. */
export async function mayUseItem(db: Db, id: string, memberId: string): Promise<boolean> {
  const s = await sharingOfItem(db, id);
  return s !== null && mayUse(s, memberId);
}

/** Returns whether an item exists and a member may change it. */
export async function mayChangeItem(db: Db, id: string, memberId: string): Promise<boolean> {
  const s = await sharingOfItem(db, id);
  return s !== null && mayMake(s, memberId);
}
