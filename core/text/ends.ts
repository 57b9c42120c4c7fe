/** Cutting the ends off a text, one character at a time: a pattern for it would look again from every place. */

/** The text without the characters at its end that `gone` tests true for; `gone` matches one character. */
export function cutEnd(text: string, gone: RegExp): string {
  let end = text.length;
  while (end > 0 && gone.test(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** "at the first gate" as the beginning of a sentence. */
export const upperFirst = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
/** "Purchase agreement" within a sentence. */
export const lowerFirst = (s: string): string => s.charAt(0).toLowerCase() + s.slice(1);
