/** A member's session, as a cookie carries it. */
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Context } from '../context';
import type { StreamOptions } from '../live/live';
import type { Member } from './queries';
import { memberOfToken } from './service';

declare module 'fastify' {
  interface FastifyRequest {
    member: Member | null;
  }
}

/** Name of the session cookie. */
export const SESSION_COOKIE = 'gatepath_session';

/** Returns the session secret of a request. */
export function cookieOf(request: FastifyRequest): string | undefined {
  return request.cookies[SESSION_COOKIE];
}

/** Returns the member who sent a request; null if nobody is signed in. */
export async function memberOfRequest(ctx: Context, request: FastifyRequest): Promise<Member | null> {
  const token = cookieOf(request);
  return token ? memberOfToken(ctx, token) : null;
}

/** Sets the session cookie. */
export function remember(ctx: Context, reply: FastifyReply, token: string): void {
  void reply.setCookie(SESSION_COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: ctx.config.publicUrl.startsWith('https:'),
    maxAge: 14 * 86_400,
  });
}

/** Registers a member's live view; it ends with the session. */
export function listening(ctx: Context, request: FastifyRequest, member: Member): StreamOptions {
  return {
    owner: `member:${member.id}`,
    most: 60,
    mayHear: async () => (await memberOfRequest(ctx, request)) !== null,
  };
}
