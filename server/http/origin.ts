/** Where a request came from, as far as the server can tell. */
import Bowser from 'bowser';
import type { FastifyRequest } from 'fastify';
import { LRUCache } from 'lru-cache';
import type { Origin } from '@gatepath/core/routing';

/** Returns the network address of a request, and its device in short. */
export function originOf(request: FastifyRequest): Origin {
  return { ip: request.ip ?? null, device: deviceOf(request.headers['user-agent'] ?? '') };
}

const KINDS: Record<string, string> = { mobile: 'phone', tablet: 'tablet' };
/** Browsers under their usual names. */
const BROWSERS: Record<string, string> = {
  'Microsoft Edge': 'Edge',
  Firefox: 'Firefox',
  Chrome: 'Chrome',
  Chromium: 'Chrome',
  Safari: 'Safari',
};

/** Cached device names by user agent: each request has one of a few. */
const met = new LRUCache<string, string>({ max: 500 });

/** Returns "phone (Safari)", "computer (Chrome)": enough to recognize, too little to track. */
export function deviceOf(userAgent: string): string | null {
  if (!userAgent) return null;
  // No browser has a longer name, and regular expressions are slow on invented ones.
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
