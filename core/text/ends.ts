/** Cutting the end off a text one character at a time: a regular expression would start again at every position. */

/** Returns the text without the characters at its end that match `gone`, which matches one character. */
export function cutEnd(text: string, gone: RegExp): string {
  let end = text.length;
  while (end > 0 && gone.test(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** Returns a text with a capital at its beginning: "At the first gate". */
export const upperFirst = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
/** Returns a text for use within a sentence: "purchase agreement". */
export const lowerFirst = (s: string): string => s.charAt(0).toLowerCase() + s.slice(1);
