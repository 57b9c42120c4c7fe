/** What can be said of something thrown, which may be anything. */

function part(error: unknown, name: string): unknown {
  return typeof error === 'object' && error !== null && name in error ? Reflect.get(error, name) : undefined;
}

/** Its code, as errors of the system and of the database have one: `EEXIST`, `23505`. */
export function codeOf(error: unknown): string | undefined {
  const code = part(error, 'code');
  return typeof code === 'string' ? code : undefined;
}

/** A number it carries under a name: the status of an answer, say. */
export function numberOf(error: unknown, name: string): number | undefined {
  const found = part(error, name);
  return typeof found === 'number' ? found : undefined;
}

/** What it says. */
export const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
