import { ValidationError } from 'yup';
import type { BodySchema } from '@gatepath/contract';
import { Problem, unusable } from '../problem';

/** Checks what came in against its schema; answers with the cleaned value or a problem that names the fields. */
export function validate<T>(schema: BodySchema, value: unknown): T {
  try {
    return schema.validateSync(value, { abortEarly: false, stripUnknown: false }) as T;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const fields: Record<string, string> = {};
    for (const e of error.inner.length ? error.inner : [error]) if (e.path) fields[e.path] ??= e.message;
    throw unusable('invalid', error.inner[0]?.message ?? error.message, fields);
  }
}

/** Turns any error into a problem; what was not foreseen tells nothing of the inside. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const e = error as { statusCode?: number; code?: string; message?: string };
  if (e.statusCode === 429)
    return new Problem(
      429,
      'too-many',
      'Too many tries',
      'Too many tries in a short time. Wait a minute, then try again.',
    );
  if (e.statusCode === 413 || e.code === 'FST_REQ_FILE_TOO_LARGE')
    return new Problem(
      413,
      'too-large',
      'Too large',
      'The file is larger than 50 MB. Split it or save it smaller, then try again.',
    );
  if (e.statusCode && e.statusCode >= 400 && e.statusCode < 500)
    return new Problem(e.statusCode, 'bad-request', 'Not understood', 'The request could not be understood.');
  return new Problem(
    500,
    'internal',
    'Something went wrong',
    'Something went wrong on our side. Nothing was lost; please try again.',
  );
}
