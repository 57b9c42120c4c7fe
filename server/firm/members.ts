/** Members of the firm: invitations, disabling with a handover, passwords and sessions. */
import type {
  FirmView,
  InvitationView,
  InviteBody,
  JoinBody,
  PasswordBody,
  ResetBody,
  SessionsView,
} from '@gatepath/contract';
import { oneLine } from '@gatepath/core/text';
import { ENGLISH, say } from '@gatepath/core/words';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { OPEN_DEALS } from '../jobs/deal-status';
import { codeOf } from '../errors';
import { countTry } from '../throttle/throttle';
import { hashSecret, newId, newSecret } from '../ids';
import { topics } from '../live/live';
import { layOut } from '../mail/messages';
import { postToPerson } from '../mailroom/post';
import { notFound, Problem } from '../problem';
import * as m from './member-queries';
import { checkPassword, hashPassword } from './password';
import * as q from './queries';
import { firmView, startSession } from './service';

const INVITATION_MS = 3 * 86_400_000;
const RESET_MS = 3_600_000;
/** Maximum number of password resets mailed to one address while one is valid. */
const MOST_RESETS = 3;
/** Maximum number of wrong passwords in fifteen minutes from a member who is signed in. */
const MOST_TRIES = 8;
const TRIES_MS = 15 * 60_000;
/** Maximum number of sessions listed. */
const MOST_SESSIONS = 50;

const hashOf = (ctx: Context, token: string) => hashSecret(token, ctx.config.sessionSecret);

/** Throws unless the member is an owner. @throws Problem `not-owner` */
function requireOwner(member: q.Member): void {
  if (member.role !== 'owner')
    throw new Problem('not-owner', 'Only an owner of the firm can do this. Ask one of them.');
}

const taken = (email: string) =>
  new Problem(
    'member-exists',
    `${email} belongs to a member of the firm already. If they had left, enable them again.`,
  );

/** Returns the problem of a link that was used, withdrawn or has expired, or is unknown. */
const deadLink = () =>
  new Problem('dead-link', 'This link no longer works: it was used, withdrawn or has expired. Ask for a new one.');

/** Sends a message with a link that opens an account. */
async function writeTo(
  ctx: Context,
  tx: Tx,
  letter: {
    kind: string;
    to: { name: string; email: string };
    subject: string;
    lines: string[];
    label: string;
    link: string;
  },
): Promise<void> {
  const firm = await q.findFirm(tx.db);
  const message = layOut({
    language: 'en',
    subject: letter.subject,
    paragraphs: [say(ENGLISH, 'mail.hello', { toName: letter.to.name }), ...letter.lines],
    link: { label: letter.label, href: letter.link },
    fails: say(ENGLISH, 'mail.button_fails'),
    firm: firm?.name ?? '',
  });
  const to = { ...letter.to, phone: null };
  await postToPerson(ctx, tx, { kind: letter.kind, to, message, text: message.text, link: letter.link });
}

/**
 * Invites a person to become a member. An earlier invitation to the same address ends.
 *
 * @throws Problem `not-owner`, `member-exists`
 */
export async function invite(ctx: Context, body: InviteBody, member: q.Member): Promise<FirmView> {
  requireOwner(member);
  const token = newSecret();
  const at = ctx.clock.now();
  await inTransaction(ctx.database.pool, async (tx) => {
    await m.lockMembers(tx.db);
    if (await q.memberByEmail(tx.db, body.email)) throw taken(body.email);
    const firm = await q.findFirm(tx.db);
    await m.saveInvitation(tx.db, {
      id: newId(),
      token_hash: hashOf(ctx, token),
      name: body.name,
      email: body.email,
      role: body.role,
      invited_by: member.id,
      created_at: at,
      expires_at: new Date(at.getTime() + INVITATION_MS),
    });
    await writeTo(ctx, tx, {
      kind: 'invitation',
      to: body,
      subject: `${member.name} invites you to ${firm?.name ?? 'the firm'} on Gate Path`,
      lines: [
        `${member.name} has invited you to work with ${firm?.name ?? 'the firm'} on Gate Path.`,
        'Choose a password to begin. The link works once, for three days.',
      ],
      label: 'Join the firm',
      link: `${ctx.config.publicUrl}/join/${token}`,
    });
    tx.afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return firmView(ctx, member);
}

/** Withdraws an invitation. @throws Problem `not-owner`, `not-found` */
export async function withdrawInvitation(ctx: Context, id: string, member: q.Member): Promise<FirmView> {
  requireOwner(member);
  if (!(await m.deleteInvitation(ctx.database.pool, id))) throw notFound('This invitation');
  ctx.live.notify(topics.firm());
  return firmView(ctx, member);
}

/** Returns who is invited by a link. @throws Problem `dead-link` */
export async function invitationOf(ctx: Context, token: string): Promise<InvitationView> {
  const db = ctx.database.pool;
  const found = await m.invitationByHash(db, hashOf(ctx, token), ctx.clock.now());
  const firm = await q.findFirm(db);
  if (!found || !firm) throw deadLink();
  return { firm: firm.name, name: found.name, email: found.email };
}

/**
 * Makes an invited person a member and signs them in.
 *
 * @throws Problem `dead-link`, `member-exists`
 */
export async function join(
  ctx: Context,
  token: string,
  body: JoinBody,
  browser: string,
): Promise<{ member: q.Member; token: string }> {
  const hash = hashOf(ctx, token);
  // Before the password is hashed, which takes a while: requests without an invitation cause no work.
  if (!(await m.invitationByHash(ctx.database.pool, hash, ctx.clock.now()))) throw deadLink();
  const password_hash = await hashPassword(body.password);
  const member = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const found = await m.takeInvitation(db, hash, ctx.clock.now());
    const firm = await q.findFirm(db);
    if (!found || !firm) throw deadLink();
    const made = { id: newId(), firm_id: firm.id, name: body.name, email: found.email, role: found.role };
    await q.insertMember(db, { ...made, password_hash, at: ctx.clock.now() });
    afterCommit(() => ctx.live.notify(topics.firm()));
    return q.memberById(db, made.id);
  }).catch((error: unknown) => {
    throw codeOf(error) === '23505' ? taken('This address') : error;
  });
  if (!member) throw deadLink();
  return { member, token: await startSession(ctx, member.id, browser) };
}

/**
 * Disables a member and hands their deals, drafts, packets, notices, forms and kits to another. Their sessions and
 * calendar addresses end at once.
 *
 * @throws Problem `sign-in`, `not-owner`, `not-found`, `last-owner`, `unknown-member` if there is nobody to hand over
 * to
 */
export async function disableMember(ctx: Context, id: string, toId: string, member: q.Member): Promise<FirmView> {
  requireOwner(member);
  await inTransaction(ctx.database.pool, async (tx) => {
    await m.lockMembers(tx.db);
    const active = await q.listMembers(tx.db);
    const leaving = active.find((x) => x.id === id);
    if (!leaving) throw notFound('This member');
    if (toId === id || !active.some((x) => x.id === toId))
      throw new Problem('unknown-member', 'Choose a member of the firm who takes over.');
    if (leaving.role === 'owner' && active.filter((x) => x.role === 'owner').length === 1)
      throw new Problem('last-owner', `${leaving.name} is the only owner. Invite another owner first.`);
    // A member who was disabled meanwhile can disable nobody.
    if (!active.some((x) => x.id === member.id)) throw new Problem('sign-in', 'Your session has ended.');
    await m.saveDisabled(tx.db, id, toId, ctx.clock.now());
    await m.handOver(tx.db, id, toId);
    await m.endWaysIn(tx.db, id, ctx.clock.now());
    // Today screens are per member: those with deals handed over are computed again.
    await ctx.jobs.queue(tx, 'rules', OPEN_DEALS);
    tx.afterCommit(() => {
      ctx.live.notify(topics.firm());
      ctx.live.notify(topics.deals());
      ctx.live.notify(topics.today());
    });
  });
  return firmView(ctx, member);
}

/**
 * Enables a member who was disabled; what was handed over stays where it is. @throws Problem `not-owner`, `not-found`
 */
export async function enableMember(ctx: Context, id: string, member: q.Member): Promise<FirmView> {
  requireOwner(member);
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    await m.lockMembers(db);
    if (!(await q.memberById(db, id))?.disabled_at) throw notFound('This member');
    await m.saveEnabled(db, id);
    afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return firmView(ctx, member);
}

/**
 * Changes a member's own password and ends their other sessions.
 *
 * @param session  the session that stays
 * @throws Problem `wrong-password`, `too-many`
 */
export async function changePassword(
  ctx: Context,
  body: PasswordBody,
  member: q.Member,
  session: string,
): Promise<void> {
  const db = ctx.database.pool;
  const { n } = await countTry(db, `own-password:${member.id}`, TRIES_MS, ctx.clock.now());
  if (n > MOST_TRIES)
    throw new Problem('too-many', 'Too many wrong passwords. Wait a quarter of an hour, then try again.', {
      retryAfter: TRIES_MS / 1000,
    });
  const known = await q.memberByEmail(db, member.email);
  if (!known || !(await checkPassword(body.current, known.password_hash)))
    throw new Problem('wrong-password', 'This is not your password. Type the one you sign in with.');
  const hash = await hashPassword(body.password);
  await inTransaction(db, async (tx) => {
    await q.savePassword(tx.db, member.id, hash);
    await q.deleteSessionsOf(tx.db, member.id, hashOf(ctx, session));
    await m.deleteResetsOf(tx.db, member.id);
  });
}

/** Mails a link to choose a new password if the address is a member's. The answer is the same if it is not. */
export async function forgotPassword(ctx: Context, email: string): Promise<void> {
  const db = ctx.database.pool;
  const at = ctx.clock.now();
  const { n } = await countTry(db, `reset:${hashOf(ctx, email.toLowerCase())}`, RESET_MS, at);
  const member = await q.memberByEmail(db, email);
  if (!member || member.disabled_at || n > MOST_RESETS) return;
  const token = newSecret();
  await inTransaction(db, async (tx) => {
    await m.saveReset(tx.db, {
      token_hash: hashOf(ctx, token),
      member_id: member.id,
      at,
      expires: new Date(at.getTime() + RESET_MS),
    });
    await writeTo(ctx, tx, {
      kind: 'new_password',
      to: member,
      subject: 'Choose a new password',
      lines: [
        'Someone asked for a new password for your account. If it was you, choose one here.',
        'The link works once, for one hour. If it was not you, do nothing: your password stays as it is.',
      ],
      label: 'Choose a new password',
      link: `${ctx.config.publicUrl}/reset/${token}`,
    });
  });
}

/**
 * Sets a new password by a mailed link. All sessions and all such links of the member end.
 *
 * @throws Problem `dead-link`
 */
export async function resetPassword(ctx: Context, token: string, body: ResetBody): Promise<void> {
  const hash = hashOf(ctx, token);
  if (!(await m.resetByHash(ctx.database.pool, hash, ctx.clock.now()))) throw deadLink();
  const password = await hashPassword(body.password);
  await inTransaction(ctx.database.pool, async ({ db }) => {
    await m.lockMembers(db);
    const memberId = await m.resetByHash(db, hash, ctx.clock.now());
    if (!memberId) throw deadLink();
    await m.deleteResetsOf(db, memberId);
    await q.savePassword(db, memberId, password);
    await q.deleteSessionsOf(db, memberId);
  });
}

/** Returns a member's sessions, newest first. @param session the session of the request */
export async function sessionsOf(ctx: Context, member: q.Member, session: string): Promise<SessionsView> {
  const hash = hashOf(ctx, session);
  const rows = await q.sessionsOf(ctx.database.pool, member.id, ctx.clock.now(), MOST_SESSIONS);
  return {
    sessions: rows.map((s) => ({
      id: s.id,
      browser: s.browser,
      since: s.created_at.toISOString(),
      until: s.expires_at.toISOString(),
      current: s.token_hash === hash,
    })),
  };
}

/** Ends one of a member's own sessions. @throws Problem `not-found` */
export async function endSession(ctx: Context, id: string, member: q.Member, session: string): Promise<SessionsView> {
  if (!(await q.deleteSessionOf(ctx.database.pool, member.id, id))) throw notFound('This session');
  return sessionsOf(ctx, member, session);
}

/** Returns how a browser names itself, as one line that can be shown. */
export const browserOf = (agent: string | undefined): string => oneLine((agent ?? '').slice(0, 400)).slice(0, 200);
