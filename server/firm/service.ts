import { type FirmView, type Notice, type SessionView, type SignInBody } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { inTransaction } from '../db/tx';
import { OPEN_DEALS } from '../jobs/deal-status';
import { hashSecret, newId, newSecret } from '../ids';
import { countTry, deleteOldTries, deleteTries } from '../throttle/throttle';
import { JOB_NAMES } from '../jobs/jobs';
import { failures } from '../jobs/queries';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import { checkPassword } from './password';
import { LANGUAGES } from '../words';
import { invitations } from './member-queries';
import * as q from './queries';
import { setupTokenWanted } from './setup-token';
import { isOneOf } from '@gatepath/core/sure';

/** How long a session lasts, in days. */
const SESSION_DAYS = 14;
/** Maximum number of failed jobs shown. */
const MOST_FAILURES = 50;
/**
 * Maximum number of wrong passwords within the window: for one account from one address, for one account, from one
 * address.
 */
const MOST_TRIES = { both: 8, account: 60, address: 40 };
const WINDOW_MS = 15 * 60_000;

/** Returns the sign-ins that the demo shows; empty otherwise. The demo puts them in. */
export const demoSignInsOf = perContext((): { name: string; email: string; password: string }[] => []);

/** Returns what every screen needs first: the firm, the signed-in member, and what this server can do. */
export async function sessionView(ctx: Context, member: q.Member | null): Promise<SessionView> {
  const firm = await ctx.firm();
  return {
    firm: firm ? { name: firm.name, timeZone: firm.time_zone } : null,
    member: member && {
      id: member.id,
      name: member.name,
      email: member.email,
      role: member.role,
      notices: member.notices,
      digest: member.digest,
    },
    setupToken: !firm && setupTokenWanted(ctx),
    demo: ctx.config.demo ? { signIns: demoSignInsOf(ctx) } : null,
    clockForward: ctx.config.clockForward,
    mail: ctx.config.smtpUrl ? 'smtp' : 'mailroom',
    languages: LANGUAGES,
    now: ctx.clock.now().toISOString(),
  };
}

/**
 * Signs a member in. A try is counted before the password is verified, so parallel tries count in full. Wrong
 * passwords from elsewhere do not lock a member out.
 *
 * @param address  where the request comes from
 * @throws Problem `wrong-password`, `too-many`
 */
export async function signIn(
  ctx: Context,
  body: SignInBody,
  address: string,
  browser: string,
): Promise<{ member: q.Member; token: string }> {
  const db = ctx.database.pool;
  const account = hashSecret(body.email.toLowerCase(), ctx.config.sessionSecret);
  const keys = {
    both: `password:${account}:${address}`,
    account: `password:${account}`,
    address: `password::${address}`,
  };
  const now = ctx.clock.now();
  for (const which of ['both', 'account', 'address'] as const) {
    const { n } = await countTry(db, keys[which], WINDOW_MS, now);
    if (n > MOST_TRIES[which])
      throw new Problem('too-many', 'Too many wrong passwords. Wait a quarter of an hour, then try again.', {
        retryAfter: WINDOW_MS / 1000,
      });
  }
  const found = await q.memberByEmail(db, body.email);
  // A disabled member gets the same answer as an unknown one.
  if (!(await checkPassword(body.password, found?.password_hash ?? null)) || !found || found.disabled_at)
    throw new Problem('wrong-password', 'The email address or password is wrong. Check both and try again.');
  await deleteTries(db, Object.values(keys));
  await deleteOldTries(db, now);
  const { password_hash: _, ...member } = found;
  return { member, token: await startSession(ctx, member.id, browser) };
}

/** Starts a session. @param browser how the browser names itself @returns the secret, which is not stored */
export async function startSession(ctx: Context, memberId: string, browser: string): Promise<string> {
  const token = newSecret();
  const at = ctx.clock.now();
  await q.deleteExpiredSessions(ctx.database.pool, at);
  await q.insertSession(ctx.database.pool, {
    id: newId(),
    token_hash: hashSecret(token, ctx.config.sessionSecret),
    member_id: memberId,
    browser,
    at,
    expires: new Date(at.getTime() + SESSION_DAYS * 86_400_000),
  });
  return token;
}

/**
 * Returns the member whose session a cookie carries.
 *
 * @returns null if the session has ended or never existed
 */
export function memberOfToken(ctx: Context, token: string): Promise<q.Member | null> {
  return q.memberOfSession(ctx.database.pool, hashSecret(token, ctx.config.sessionSecret), ctx.clock.now());
}

/** Ends a session and its live views. */
export async function signOut(ctx: Context, token: string): Promise<void> {
  await q.deleteSession(ctx.database.pool, hashSecret(token, ctx.config.sessionSecret));
}

/** Returns the firm with its members, seal, holidays and failed background jobs. */
export async function firmView(ctx: Context, member: q.Member): Promise<FirmView> {
  const firm = (await ctx.firm())!;
  const seal = await ctx.seal();
  const everybody = await q.allMembers(ctx.database.pool);
  const nameOf = (id: string | null) => everybody.find((x) => x.id === id)?.name ?? null;
  return {
    name: firm.name,
    timeZone: firm.time_zone,
    holidays: firm.holidays,
    placeRemembered: firm.place_remembered,
    members: everybody.map((m) => ({
      id: m.id,
      name: m.name,
      email: m.email,
      role: m.role,
      disabledAt: m.disabled_at?.toISOString() ?? null,
      handedTo: nameOf(m.handed_to),
    })),
    // Addresses of people who are not members yet are shown only to those who invited them.
    invitations:
      member.role === 'owner'
        ? (await invitations(ctx.database.pool)).map((i) => ({
            id: i.id,
            name: i.name,
            email: i.email,
            role: i.role,
            expiresAt: i.expires_at.toISOString(),
          }))
        : [],
    seal: {
      subject: seal.subject,
      issuer: seal.issuer,
      validUntil: seal.validUntil,
      fingerprint: seal.fingerprint,
      selfMade: seal.selfMade,
    },
    mail: ctx.config.smtpUrl ? 'smtp' : 'mailroom',
    failures: (await failures(ctx.database.pool, MOST_FAILURES)).map((f) => ({
      queue: f.queue,
      thing: f.thing,
      sentence: f.words,
      detail: f.detail,
      tries: f.tries,
      at: f.failed_at.toISOString(),
    })),
  };
}

/** Tries a failed job again. @throws Problem `not-found` */
export async function tryAgain(ctx: Context, queue: string, thing: string): Promise<void> {
  if (!isOneOf(JOB_NAMES, queue)) throw notFound('This work');
  await ctx.jobs.tryAgain(queue, thing);
  ctx.live.notify(topics.firm());
}

/**
 * Changes what a member is notified of.
 *
 * @returns the member as changed
 */
export async function setNotices(
  ctx: Context,
  member: q.Member,
  notices: Notice[],
  digest: boolean,
): Promise<q.Member> {
  await q.saveNotices(ctx.database.pool, member.id, notices, digest);
  return { ...member, notices, digest };
}

/** Sets whether what was on a paper the last time is placed at once, where nothing is in doubt. */
export async function setPlaceRemembered(ctx: Context, on: boolean): Promise<void> {
  const firm = (await ctx.firm())!;
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.savePlaceRemembered(tx.db, firm.id, on);
    tx.afterCommit(() => ctx.live.notify(topics.firm()));
  });
}

/** Sets the firm's holidays. Packets that were sent keep the holidays they were sent with. */
export async function setHolidays(ctx: Context, holidays: string[]): Promise<void> {
  const firm = (await ctx.firm())!;
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.saveHolidays(tx.db, firm.id, [...new Set(holidays)].sort());
    await ctx.jobs.queue(tx, 'rules', OPEN_DEALS);
    tx.afterCommit(() => ctx.live.notify(topics.firm()));
  });
}
