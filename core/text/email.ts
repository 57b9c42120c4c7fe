/** Returns whether a text can be an email address: one @, something before it, a dotted name after it. */
export function isEmail(text: string): boolean {
  return /^[^\s@<>(),;:"[\]\\]+@[^\s@.]+(\.[^\s@.]+)+$/.test(text.trim());
}
