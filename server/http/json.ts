/** JSON from outside: bounded in depth and in number of values before it is parsed. */
import { BODY_DEPTH, SMALL_BODY, type BodySize } from '@gatepath/contract';
import type { FastifyInstance } from 'fastify';
import { Problem } from '../problem';
import { itemAt } from '@gatepath/core/sure';

const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** Looks over the bytes once; says what is wrong with their shape, or null. */
export function shapeProblem(
  body: Uint8Array,
  size: BodySize,
  depth = size.depth ?? BODY_DEPTH,
): 'too-deep' | 'too-many-values' | null {
  let inText = false;
  let level = 0;
  let values = 1;
  for (let i = 0; i < body.length; i++) {
    const c = itemAt(body, i);
    if (inText) {
      if (c === BACKSLASH) i++;
      else if (c === QUOTE) inText = false;
      continue;
    }
    switch (c) {
      case QUOTE:
        inText = true;
        break;
      case 0x5b: // [
      case 0x7b: // {
        if (++level > depth) return 'too-deep';
        break;
      case 0x5d: // ]
      case 0x7d: // }
        level--;
        break;
      case 0x2c: // ,
      case 0x3a: // :
        if (++values > size.values) return 'too-many-values';
        break;
    }
  }
  return null;
}

/** Whether any object in something has a key that every object has: what is looked up by it would find that. */
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
  'too-deep': 'The request is nested too deeply. Load the page again and try once more.',
  'too-many-values': 'The request holds too much at once. Send it in smaller portions.',
};

/** Takes JSON bodies and no other kind (files come through `upload.ts`). Keys like `__proto__` are refused. */
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
  // A file is read from the request itself, by whoever wants one, once it is known who asks.
  app.addContentTypeParser('multipart/form-data', (_request, _payload, done) => done(null));
}
