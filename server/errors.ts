/** Returns an object's property from a thrown value, which can be of any type. */

function part(error: unknown, name: string): unknown {
  return typeof error === 'object' && error !== null && name in error ? Reflect.get(error, name) : undefined;
}

/** Returns the code of a system or database error: `EEXIST`, `23505`. */
export function codeOf(error: unknown): string | undefined {
  const code = part(error, 'code');
  return typeof code === 'string' ? code : undefined;
}

/** Returns the number that an error has under a name, such as its HTTP status. */
export function numberOf(error: unknown, name: string): number | undefined {
  const found = part(error, name);
  return typeof found === 'number' ? found : undefined;
}

/** Returns the message of an error. */
export const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
