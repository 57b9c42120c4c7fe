import { ValidationError, type Schema } from 'yup';
import { UNCLEAN } from '@gatepath/contract';
import type { AnySchema } from '@gatepath/contract/routes';
import { DamagedFile } from '../files/stored';
import { Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { itemAt } from '@gatepath/core/sure';
import { messageOf, numberOf } from '../errors';
import { isCollision, isDatabaseAway, isDiskFull } from '../transient';

/** Maximum number of faults reported: a body full of faults must not make an answer of its own size. */
const MOST_FIELDS = 30;

/** Maximum number of values for which all faults are searched; in a larger body only the first is. */
const MOST_SEARCHED = 200;

/**
 * Checks what came in against its schema. A list that is too long is refused before its items are looked at, and of a
 * large body only the first fault is looked for: neither takes longer than the body deserves.
 *
 * @returns the cleaned value
 * @throws `Problem` `invalid` or `unclean`, which names the fields
 */
export function validate(schema: AnySchema, value: unknown): unknown {
  try {
    const long = tooLong(schema as Schema, value, '');
    if (long) throw long;
    const abortEarly = isLarger(value, MOST_SEARCHED);
    return (schema as Schema).validateSync(value, { abortEarly, stripUnknown: false });
  } catch (error) {
    // A text that is an object with a `toString` of its own makes the schema's own conversions fail.
    if (error instanceof TypeError)
      throw new Problem('invalid', 'The request holds a value of a kind that does not belong there.');
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length ? error.inner.slice(0, MOST_FIELDS) : [error];
    const fields: Record<string, string> = {};
    for (const e of all) if (e.path) fields[e.path.slice(0, 200)] ??= e.message.slice(0, 300);
    const unclean = all.some((e) => e.type === UNCLEAN);
    throw new Problem(unclean ? UNCLEAN : 'invalid', itemAt(all, 0).message.slice(0, 300), { fields });
  }
}

/** Returns whether a value contains more than a number of values. */
function isLarger(value: unknown, most: number): boolean {
  let left = most;
  const open: unknown[] = [value];
  for (let v = open.pop(); left >= 0 && v !== undefined; v = open.pop()) {
    if (typeof v !== 'object' || v === null) continue;
    for (const inner of Object.values(v)) {
      if (--left < 0) return true;
      if (typeof inner === 'object' && inner !== null) open.push(inner);
    }
  }
  return left < 0;
}

/** Returns the maximum length in the schema of a list; null if it has none. */
function mostOf(schema: Schema): number | null {
  for (const { OPTIONS } of schema.tests) {
    const most: unknown = OPTIONS?.name === 'max' ? OPTIONS.params?.['max'] : undefined;
    if (typeof most === 'number') return most;
  }
  return null;
}

/** Returns the fault of the first list that is too long; lengths are checked before items. */
function tooLong(schema: Schema | undefined, value: unknown, path: string): ValidationError | null {
  if (!schema || typeof value !== 'object' || value === null) return null;
  if (schema.type === 'lazy') return tooLong((schema as Schema).resolve({ value }), value, path);
  if (Array.isArray(value)) {
    const most = mostOf(schema);
    if (most !== null && value.length > most)
      return new ValidationError(`${path || 'this'} must have at most ${most} items`, undefined, path || undefined);
    const inner = (schema as { innerType?: Schema }).innerType;
    for (const [i, item] of value.entries()) {
      const found = tooLong(inner, item, `${path}[${i}]`);
      if (found) return found;
    }
    return null;
  }
  const { fields } = schema as { fields?: Record<string, Schema> };
  for (const [key, field] of Object.entries(fields ?? {})) {
    const found = tooLong(field, Reflect.get(value, key), path ? `${path}.${key}` : key);
    if (found) return found;
  }
  return null;
}

/** Returns bytes in words. */
const sizeInWords = (bytes: number) =>
  bytes < 1024 * 1024 ? `${Math.round(bytes / 1024)} kB` : `${Math.round(bytes / 1024 / 1024)} MB`;

/** Returns whether an error of the form parser means that the upload was cut off; that error has no code. */
const isCutOff = (error: unknown) => /^(?:Part terminated early|Unexpected end of )/.test(messageOf(error));

/**
 * Turns any error into a problem. Unforeseen errors reveal nothing about the inside.
 *
 * @param limit maximum bytes of the request's body
 */
export function asProblem(error: unknown, limit: number): Problem {
  if (error instanceof Problem) return error;
  const status = numberOf(error, 'statusCode');
  if (status === 429) return new Problem('too-many', 'Too many tries in a short time. Wait a minute, then try again.');
  if (status === 413)
    return new Problem('too-large', `The request is larger than ${sizeInWords(limit)}. Send it in smaller portions.`);
  if (error instanceof DamagedFile)
    return new Problem(
      'damaged',
      'A file on the server is not what it was when it was stored, so it is neither shown nor signed. Tell the person who runs the server: it must be restored from a backup.',
    );
  if (error instanceof WorkFailure && (error.reason === 'time' || error.reason === 'memory'))
    return new Problem('too-heavy', `This ${error.inWords('worked on')}.`);
  if (isDatabaseAway(error))
    return new Problem('busy', 'The database cannot be reached just now. Try again in a moment; nothing was lost.', {
      retryAfter: 3,
    });
  if (isCollision(error))
    return new Problem('busy', 'Someone changed the same thing at this moment. Try again; nothing was lost.', {
      retryAfter: 1,
    });
  if (isCutOff(error)) return new Problem('cut-off', 'The file did not arrive completely. Add it again.');
  if (isDiskFull(error))
    return new Problem(
      'disk-full',
      'The server’s disk is full, so nothing new can be saved. Existing data is safe. Tell the person who runs the server.',
    );
  if (status === 415)
    return new Problem(
      'media-type',
      'The request came in a form that is not taken here. Send JSON, or a file in a form.',
    );
  if (status && status >= 400 && status < 500)
    return new Problem('bad-request', 'The request could not be understood.');
  return new Problem('internal', 'Something went wrong on our side. Nothing was lost; please try again.');
}
