/** Which files of the store something refers to: documents, packets, binders, and hands. */
import type { Db } from '../db/pool';

/** Returns whether anything refers to a file. Must be called before a file is deleted. */
export async function isInUse(db: Db, sha256: string): Promise<boolean> {
  const r = await db.query(
    `select 1 where exists (select 1 from document where original_sha256 = $1)
       or exists (select 1 from document where sha256 = $1)
       or exists (select 1 from document where facts_sha256 = $1)
       or exists (select 1 from packet_file where sha256 = $1)
       or exists (select 1 from binder where sha256 = $1)
       or exists (select 1 from hand_picture where sha256 = $1)
       or exists (select 1 from saved_hand where signature_sha256 = $1 or initials_sha256 = $1)`,
    [sha256],
  );
  return r.rows.length > 0;
}
