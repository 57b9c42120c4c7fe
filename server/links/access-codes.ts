/** Keyed hashes of the codes and proofs of a second step. */
import type { Context } from '../context';
import { hashSecret } from '../ids';

/** Returns the keyed hash of a secret. `purpose` keeps hashes of equal secrets apart. */
export const hashFor = (ctx: Context, purpose: string, secret: string): string =>
  hashSecret(`${purpose}:${secret}`, ctx.config.sessionSecret);

/** Returns the stored form of an access code told in person. Spaces and capitals do not matter when it is entered. */
export function accessHash(ctx: Context, accessedFor: string, code: string): string {
  return hashFor(ctx, `access:${accessedFor}`, code.replace(/\s+/g, '').toLowerCase());
}

/** Returns the party an access code is hashed for: two parties with the same code have different hashes. */
export const accessFor = (packetId: string, partyId: string) => `${packetId}:${partyId}`;
