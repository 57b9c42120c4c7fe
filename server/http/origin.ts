/** Where a request came from, as far as the server can see. */
import Bowser from 'bowser';
import type { FastifyRequest } from 'fastify';
import { LRUCache } from 'lru-cache';
import type { Origin } from '@gatepath/core/routing';

/** Who is behind a request: its network address, and what its device calls itself, in short. */
export function originOf(request: FastifyRequest): Origin {
  return { ip: request.ip ?? null, device: deviceOf(request.headers['user-agent'] ?? '') };
}

const KINDS: Record<string, string> = { mobile: 'phone', tablet: 'tablet' };
/** Browsers under their plain names. */
const BROWSERS: Record<string, string> = {
  'Microsoft Edge': 'Edge',
  Firefox: 'Firefox',
  Chrome: 'Chrome',
  Chromium: 'Chrome',
  Safari: 'Safari',
};

/** Devices that were met, by what they call themselves: each request brings the same few. */
const met = new LRUCache<string, string>({ max: 500 });

/** "phone (Safari)", "computer (Chrome)": enough to recognise, too little to track. */
export function deviceOf(userAgent: string): string | null {
  if (!userAgent) return null;
  // No browser calls itself longer than that, and patterns take their time over what somebody made up.
  const called = userAgent.slice(0, 300);
  const known = met.get(called) ?? described(called);
  met.set(called, known);
  return known;
}

function described(userAgent: string): string {
  const device = Bowser.parse(userAgent);
  const kind = KINDS[device.platform.type ?? ''] ?? 'computer';
  const browser = BROWSERS[device.browser.name ?? ''];
  return browser ? `${kind} (${browser})` : kind;
}
