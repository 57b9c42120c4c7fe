/** Where a request came from, as far as the server can see. */
import type { FastifyRequest } from 'fastify';
import type { Origin } from '@gatepath/core/routing';
/** Who is behind a request: its network address, and what its device calls itself, in short. */
export function originOf(request: FastifyRequest): Origin {
  return { ip: request.ip ?? null, device: deviceOf(request.headers['user-agent'] ?? '') };
}

/** "phone (Safari)", "computer (Chrome)": enough to recognise, too little to track. */
export function deviceOf(userAgent: string): string | null {
  if (!userAgent) return null;
  const kind = /iPad|Tablet/i.test(userAgent)
    ? 'tablet'
    : /Mobi|Android|iPhone/i.test(userAgent)
      ? 'phone'
      : 'computer';
  const browser = /Edg\//.test(userAgent)
    ? 'Edge'
    : /Firefox\//.test(userAgent)
      ? 'Firefox'
      : /Chrom(e|ium)\//.test(userAgent)
        ? 'Chrome'
        : /Safari\//.test(userAgent)
          ? 'Safari'
          : null;
  return browser ? `${kind} (${browser})` : kind;
}
