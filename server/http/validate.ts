import { ValidationError, type Schema } from 'yup';
import { UNCLEAN } from '@gatepath/contract';
import type { AnySchema } from '@gatepath/contract/routes';
import { DamagedFile } from '../files/stored';
import { Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { itemAt } from '@gatepath/core/sure';
import { codeOf, numberOf } from '../errors';

/** As many faults as are told at once: a body made of faults must not make an answer of its own size. */
const MOST_FIELDS = 30;

/**
 * Checks what came in against its schema.
 *
 * @returns the cleaned value
 * @throws `Problem` `invalid` or `unclean`, which names the fields
 */
export function validate(schema: AnySchema, value: unknown): unknown {
  try {
    return (schema as Schema).validateSync(value, { abortEarly: false, stripUnknown: false });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length ? error.inner.slice(0, MOST_FIELDS) : [error];
    const fields: Record<string, string> = {};
    for (const e of all) if (e.path) fields[e.path.slice(0, 200)] ??= e.message.slice(0, 300);
    const unclean = all.some((e) => e.type === UNCLEAN);
    throw new Problem(unclean ? UNCLEAN : 'invalid', itemAt(all, 0).message.slice(0, 300), { fields });
  }
}

/** Bytes as people say them. */
const sizeInWords = (bytes: number) =>
  bytes < 1024 * 1024 ? `${Math.round(bytes / 1024)} kB` : `${Math.round(bytes / 1024 / 1024)} MB`;

/**
 * Turns any error into a problem; what was not foreseen tells nothing of the inside.
 *
 * @param limit the most bytes the request's body may have had
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
      'A file on the server is not what it was when it was stored, so it is neither shown nor signed. Tell whoever runs the server: it has to come back from a backup.',
    );
  if (error instanceof WorkFailure && (error.reason === 'time' || error.reason === 'memory'))
    return new Problem('too-heavy', `This ${error.inWords('worked on')}.`);
  if (codeOf(error) === 'ENOSPC')
    return new Problem(
      'disk-full',
      'The server’s disk is full, so nothing new can be kept. What was there is safe. Tell whoever runs the server.',
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
