/** JSON from outside: bounded in depth and in number of values before it is parsed. */
import { SMALL_BODY } from '@gatepath/contract';
import type { FastifyInstance } from 'fastify';
import { Problem } from '../problem';
import { shapeProblem } from '../json-shape';

/**
 * Returns whether any object has a key that all objects inherit, such as `constructor`, because a lookup by such a key
 * succeeds.
 */
function hasOddKey(parsed: unknown): boolean {
  const open: unknown[] = [parsed];
  for (let v = open.pop(); v !== undefined; v = open.pop()) {
    if (typeof v !== 'object' || v === null) continue;
    for (const [key, inner] of Object.entries(v)) {
      if (!Array.isArray(v) && key in Object.prototype) return true;
      if (typeof inner === 'object' && inner !== null) open.push(inner);
    }
  }
  return false;
}

const WORDS = {
  'too-deep': 'The request is nested too deeply. Load the page again, then try again.',
  'too-many-values': 'The request is too large. Send it in smaller portions.',
};

/** Accepts JSON bodies only (files come through `upload.ts`). Keys like `__proto__` are refused. */
export function addJsonBodies(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error');
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('application/json', { parseAs: 'buffer' }, (request, body: Buffer, done) => {
    const size = request.routeOptions.config.size ?? SMALL_BODY;
    const problem = shapeProblem(body, size);
    if (problem) return done(new Problem(problem, WORDS[problem]));
    if (!body.length) return done(null, undefined);
    return parse(request, body.toString('utf8'), (error, parsed) => {
      if (!error && hasOddKey(parsed))
        return done(new Problem('invalid', 'The request names a key that no request has.'));
      return done(error, parsed);
    });
  });
  // A file is read from the request itself by the route that wants one, once it is known who sends it.
  app.addContentTypeParser('multipart/form-data', (_request, _payload, done) => done(null));
}
