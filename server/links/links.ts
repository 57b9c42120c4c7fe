/** Signing links: a party's own secret address into one packet. Only a keyed hash of the secret is stored. */
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { hashSecret, newId, newSecret } from '../ids';
import { endLinksOf, insertLink } from './queries';

/** Makes a link with a secret of 192 random bits. @returns the secret, which is not stored */
export async function makeLinkSecret(
  ctx: Context,
  tx: Tx,
  packetId: string,
  partyId: string,
  hostId: string | null = null,
  own = false,
): Promise<string> {
  const secret = newSecret();
  await insertLink(tx.db, {
    id: newId(),
    packet_id: packetId,
    party_id: partyId,
    token_hash: hashSecret(secret, ctx.config.sessionSecret),
    host_id: hostId,
    own,
    at: ctx.clock.now(),
  });
  return secret;
}

/** Makes a signing link. @returns its address */
export async function makeLink(ctx: Context, tx: Tx, packetId: string, partyId: string): Promise<string> {
  return `${ctx.config.publicUrl}/sign/${await makeLinkSecret(ctx, tx, packetId, partyId)}`;
}

/** Ends all links of a party, or of everyone: from then on they open nothing. */
export function endLinks(ctx: Context, tx: Tx, packetId: string, partyId: string | null): Promise<void> {
  return endLinksOf(tx.db, packetId, partyId, ctx.clock.now());
}
