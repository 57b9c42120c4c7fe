/** Enqueuing messages: by email, or as a text message to people who have only a phone. */
import { say, type WordParams, type Words } from '@gatepath/core/words';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { newId } from '../ids';
import { topics } from '../live/live';
import type { Composed } from '../mail/messages';
import { insertMessage } from './queries';

/** A message to post. */
export interface Post {
  row: { id: string; deal_id: string };
  kind: string;
  partyId: string | null;
  to: { name: string; email: string; phone: string | null };
  message: Composed;
  link: string | null;
  /** The words of a text message in the reader's language; without them only an email can be sent. */
  words?: Words;
  parts?: WordParams;
  /** Sends it to the phone even if there is an email address. */
  byPhone?: { text: string };
}

/** Enqueues a message in the transaction it follows from. Nothing is sent to a person with neither address. */
export async function postMessage(ctx: Context, tx: Tx, post: Post): Promise<void> {
  const { to, words } = post;
  const text = post.byPhone?.text ?? (to.email || !to.phone || !words ? null : shortOf(post, words));
  if (text === null ? !to.email : !to.phone) return;
  const id = newId();
  await insertMessage(tx.db, {
    id,
    packet_id: post.row.id,
    deal_id: post.row.deal_id,
    party_id: post.partyId,
    kind: post.kind,
    channel: text === null ? 'email' : 'text',
    to_name: to.name,
    to_email: text === null ? to.email : '',
    to_phone: text === null ? null : to.phone,
    subject: post.message.subject,
    body_text: text ?? post.message.text,
    body_html: text === null ? post.message.html : '',
    link: post.link,
    at: ctx.clock.now(),
  });
  await ctx.jobs.queue(tx, 'mail', id);
  tx.afterCommit(() => ctx.live.notify(topics.mailroom()));
}

/** Returns a message as a text message: its link and the sender, or what it is about. */
function shortOf(post: Post, words: Words): string {
  return post.link
    ? say(words, 'text.link', { ...post.parts, link: post.link })
    : `${String(post.parts?.['firmName'] ?? '')}: ${post.message.subject}`;
}

/**
 * Enqueues a message to a person that is about no packet: by email, or as a text message if they have only a phone.
 */
export async function postToPerson(
  ctx: Context,
  tx: Tx,
  post: {
    kind: string;
    to: { name: string; email: string; phone: string | null };
    message: Composed;
    /** The text message. */
    text: string;
    link: string | null;
  },
): Promise<void> {
  const { to } = post;
  const byMail = !!to.email;
  const id = newId();
  await insertMessage(tx.db, {
    id,
    packet_id: null,
    deal_id: null,
    party_id: null,
    kind: post.kind,
    channel: byMail ? 'email' : 'text',
    to_name: to.name,
    to_email: to.email,
    to_phone: byMail ? null : to.phone,
    subject: post.message.subject,
    body_text: byMail ? post.message.text : post.text,
    body_html: byMail ? post.message.html : '',
    link: post.link,
    at: ctx.clock.now(),
  });
  await ctx.jobs.queue(tx, 'mail', id);
  tx.afterCommit(() => ctx.live.notify(topics.mailroom()));
}

/** Enqueues a message to a member that is about no packet. */
export function postLetter(
  ctx: Context,
  tx: Tx,
  letter: { kind: string; to: { name: string; email: string }; message: Composed },
): Promise<void> {
  const to = { ...letter.to, phone: null };
  return postToPerson(ctx, tx, { ...letter, to, text: letter.message.text, link: null });
}
