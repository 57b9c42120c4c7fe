import { IANAZone } from 'luxon';
import {
  NOTICES,
  type FirmView,
  type Notice,
  type SessionView,
  type SetupBody,
  type SignInBody,
} from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { hashSecret, newId, newSecret } from '../ids';
import { conflict, Problem, unusable } from '../problem';
import { checkPassword, hashPassword } from './password';
import { LANGUAGES } from '../words';
import * as q from './queries';

const SESSION_DAYS = 14;
/** Failed sign-ins allowed for one email address within the window. */
const MAX_FAILS = 8;
const FAIL_WINDOW_MS = 15 * 60_000;

/** Failed sign-ins by email address, so that guessing is slow whatever address it comes from. */
const fails = new Map<string, { n: number; until: number }>();

/** Sign-ins the demo may show; empty otherwise. */
export const demoSignIns: { name: string; email: string; password: string }[] = [];

export async function sessionView(ctx: Context, member: q.Member | null): Promise<SessionView> {
  const firm = await q.findFirm(ctx.database.pool);
  return {
    firm: firm ? { name: firm.name, timeZone: firm.time_zone } : null,
    member: member && {
      id: member.id,
      name: member.name,
      email: member.email,
      notices: member.notices,
      digest: member.digest,
    },
    demo: ctx.config.demo ? { signIns: demoSignIns } : null,
    clockForward: ctx.config.clockForward,
    mail: ctx.config.smtpUrl ? 'smtp' : 'mailroom',
    languages: LANGUAGES,
    now: ctx.clock.now().toISOString(),
  };
}

/** Sets up the firm and its first member; only possible once. */
export async function setUpFirm(ctx: Context, body: SetupBody): Promise<{ member: q.Member; token: string }> {
  if (!IANAZone.isValidZone(body.timeZone))
    throw unusable('time-zone', `“${body.timeZone}” is not a time zone we know. Choose one like America/New_York.`, {
      timeZone: 'Choose a time zone from the list.',
    });
  const password_hash = await hashPassword(body.password);
  const at = ctx.clock.now();
  const member = await inTransaction(ctx.database.pool, async ({ db }) => {
    if (await q.findFirm(db)) throw conflict('set-up', 'This server already has a firm. Sign in instead.');
    const firm = { id: newId(), name: body.firmName, time_zone: body.timeZone };
    await q.insertFirm(db, { ...firm, at });
    const m = { id: newId(), firm_id: firm.id, name: body.name, email: body.email };
    await q.insertMember(db, { ...m, password_hash, at });
    return { ...m, notices: NOTICES.filter((n) => n !== 'asked' && n !== 'opened'), digest: false };
  });
  return { member, token: await startSession(ctx, member.id) };
}

export async function signIn(ctx: Context, body: SignInBody): Promise<{ member: q.Member; token: string }> {
  const key = body.email.toLowerCase();
  const now = ctx.clock.now().getTime();
  const failed = fails.get(key);
  if (failed && failed.until > now && failed.n >= MAX_FAILS)
    throw new Problem(
      429,
      'too-many',
      'Too many tries',
      'Too many wrong passwords for this address. Wait a quarter of an hour, then try again.',
    );
  const found = await q.memberByEmail(ctx.database.pool, body.email);
  if (!(await checkPassword(body.password, found?.password_hash ?? null)) || !found) {
    const fresh = !failed || failed.until <= now;
    if (fails.size > 10_000) fails.clear();
    fails.set(key, { n: fresh ? 1 : failed.n + 1, until: now + FAIL_WINDOW_MS });
    throw new Problem(
      401,
      'wrong-password',
      'Not signed in',
      'Email address and password do not go together. Check both and try again.',
    );
  }
  fails.delete(key);
  const { password_hash: _, ...member } = found;
  return { member, token: await startSession(ctx, member.id) };
}

async function startSession(ctx: Context, memberId: string): Promise<string> {
  const token = newSecret();
  const at = ctx.clock.now();
  await q.deleteExpiredSessions(ctx.database.pool, at);
  await q.insertSession(ctx.database.pool, {
    token_hash: hashSecret(token, ctx.config.sessionSecret),
    member_id: memberId,
    at,
    expires: new Date(at.getTime() + SESSION_DAYS * 86_400_000),
  });
  return token;
}

export function memberOfToken(ctx: Context, token: string): Promise<q.Member | null> {
  return q.memberOfSession(ctx.database.pool, hashSecret(token, ctx.config.sessionSecret), ctx.clock.now());
}

export async function signOut(ctx: Context, token: string): Promise<void> {
  await q.deleteSession(ctx.database.pool, hashSecret(token, ctx.config.sessionSecret));
}

export async function firmView(ctx: Context): Promise<FirmView> {
  const firm = (await q.findFirm(ctx.database.pool))!;
  const seal = await ctx.seal();
  return {
    name: firm.name,
    timeZone: firm.time_zone,
    holidays: firm.holidays,
    members: (await q.listMembers(ctx.database.pool)).map((m) => ({ id: m.id, name: m.name, email: m.email })),
    seal: {
      subject: seal.subject,
      issuer: seal.issuer,
      validUntil: seal.validUntil,
      fingerprint: seal.fingerprint,
      selfMade: seal.selfMade,
    },
    mail: ctx.config.smtpUrl ? 'smtp' : 'mailroom',
  };
}

export async function setNotices(
  ctx: Context,
  member: q.Member,
  notices: Notice[],
  digest: boolean,
): Promise<q.Member> {
  await q.saveNotices(ctx.database.pool, member.id, notices, digest);
  return { ...member, notices, digest };
}

/** The firm's holidays; packets on their way keep those they were sent with. */
export async function setHolidays(ctx: Context, holidays: string[]): Promise<void> {
  const firm = (await q.findFirm(ctx.database.pool))!;
  await q.saveHolidays(ctx.database.pool, firm.id, [...new Set(holidays)].sort());
}
