/** Hands: set for a packet, made from a picture, and saved for other packets only if the person says so. */
import type { Hand, PacketParty, Picture } from '@gatepath/core/packet';
import { MAX_PICTURE } from '@gatepath/contract';
import type { Context } from '../context';
import type { Upload } from '../http/upload';
import { hashSecret } from '../ids';
import { notFound } from '../problem';
import { enterAnew, enterProved } from './entry';
import * as q from '../links/queries';
import { clientProblem, type Visit } from './visit';
import { chunksOf } from '../files/chunks';

/**
 * Removes the paper background from a photo of writing and stores the result.
 *
 * @throws Problem `no-picture`
 */
export async function addPicture(ctx: Context, visit: Visit, upload: Upload): Promise<Picture> {
  const { words, link } = await enterProved(ctx, visit);
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of chunksOf(upload.stream)) {
    size += chunk.length;
    if (size <= MAX_PICTURE) chunks.push(chunk);
  }
  const no = (
    key: 'problem.no_picture' | 'problem.picture_empty' | 'problem.picture_small' | 'problem.file_too_large',
  ) => clientProblem(words, 'no-picture', key, { name: upload.name });
  if (size > MAX_PICTURE) throw no('problem.file_too_large');
  const made = await ctx.work.run('picture', { bytes: new Uint8Array(Buffer.concat(chunks)) });
  if (!made.ok)
    throw no(
      made.problem === 'no_picture'
        ? 'problem.no_picture'
        : made.problem === 'small'
          ? 'problem.picture_small'
          : 'problem.picture_empty',
    );
  // A photo takes long to arrive.
  await enterAnew(ctx, visit);
  const stored = await ctx.files.put(made.png);
  await q.insertPicture(ctx.database.pool, link.packet_id, link.party_id, stored.sha256);
  return { sha256: stored.sha256, width: made.width, height: made.height };
}

/** Returns the pictures of a hand. */
export function picturesOfHand(hand: Hand): Picture[] {
  return hand.form === 'picture' ? [hand.signature, hand.initials] : [];
}

/** Returns the pictures a party may use: those it added here, and those of its saved hand. */
export async function ownPictures(ctx: Context, packetId: string, party: PacketParty): Promise<string[]> {
  const kept = await rememberedHand(ctx, party);
  return [
    ...(await q.picturesAdded(ctx.database.pool, packetId, party.id)),
    ...(kept ? picturesOfHand(kept).map((p) => p.sha256) : []),
  ];
}

/**
 * Refuses a hand whose pictures are not the party's own: no other file of the store can become one.
 *
 * @throws Problem `not-found`
 */
export async function requirePictures(ctx: Context, packetId: string, party: PacketParty, hand: Hand): Promise<void> {
  const pictures = picturesOfHand(hand);
  if (!pictures.length) return;
  const own = await ownPictures(ctx, packetId, party);
  if (pictures.some((p) => !own.includes(p.sha256))) throw notFound('This picture');
}

/** Returns the owner of a hand across packets: mailbox and name together, because spouses may share a mailbox. */
async function ownerOf(ctx: Context, party: PacketParty): Promise<string | null> {
  const firm = await ctx.firm();
  if (!party.email || !firm) return null;
  const name = party.name.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim();
  return hashSecret(`hand:${firm.id}:${party.email.toLowerCase()}:${name}`, ctx.config.sessionSecret);
}

/** Saves a hand for this person's next packet, or deletes the saved one; only for people with an email address. */
export async function rememberHand(ctx: Context, party: PacketParty, hand: Hand, keep: boolean): Promise<void> {
  const owner = await ownerOf(ctx, party);
  if (!owner) return;
  if (keep) await q.saveHand(ctx.database.pool, owner, hand, ctx.clock.now());
  else await q.deleteHand(ctx.database.pool, owner);
}

/** Returns the hand this person saved; null if there is none. */
export async function rememberedHand(ctx: Context, party: PacketParty): Promise<Hand | null> {
  const owner = await ownerOf(ctx, party);
  return owner ? q.savedHand(ctx.database.pool, owner) : null;
}
