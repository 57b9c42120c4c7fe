/**
 * What text from outside may contain. Characters that no keyboard puts into a name (NUL and other controls, half a
 * surrogate pair) make a text unusable: databases, PDF and mail refuse them. Characters that only change how others
 * are displayed are removed from single lines, so that a name or file name cannot look like another (Unicode
 * Technical Report 36, 2.8).
 */

/**
 * Returns whether a character is a control character other than tab, line feed and carriage return; DEL and the C1
 * controls count.
 */
const isControl = (c: number) => (c < 32 && c !== 9 && c !== 10 && c !== 13) || (c >= 127 && c < 160);

/** Returns whether a text contains nothing that cannot be stored, shown or sent. */
export function isClean(text: string): boolean {
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (isControl(c)) return false;
    if (c < 0xd800 || c > 0xdfff) continue;
    const next = text.charCodeAt(i + 1);
    if (c > 0xdbff || !(next >= 0xdc00 && next <= 0xdfff)) return false;
    i++;
  }
  return true;
}

/** Marks of direction, embeddings, overrides, isolates, and spaces without width. */
const STEERING = /[\u061c\u200b\u200e\u200f\u2028\u2029\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff\ufff9-\ufffb]/g;
/** Joiners matter between letters of scripts that join; next to ASCII letters they only hide something. */
const JOINERS = /[\u200c\u200d]/g;

/**
 * Returns a text as one line: breaks become spaces, invisible and direction characters are removed, ends are trimmed.
 */
export function oneLine(text: string): string {
  return text
    .replace(/\r\n|[\t\n\r\u0085\u2028\u2029]/g, ' ')
    .replace(STEERING, '')
    .replace(JOINERS, (joiner, at: number, whole: string) =>
      (whole.charCodeAt(at - 1) || 0) > 127 && (whole.charCodeAt(at + 1) || 0) > 127 ? joiner : '',
    )
    .trim();
}

/** Returns the beginning of a text, at most `max` UTF-16 units, never cut within a character. */
export function clip(text: string, max: number): string {
  if (text.length <= max) return text;
  const last = text.charCodeAt(max - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? max - 1 : max);
}

/**
 * Returns the name of a file from outside as one line of at most 200 UTF-16 units, without unusable characters, never
 * empty.
 */
export function fileNameOf(name: string | undefined): string {
  let out = '';
  for (const c of clip(name ?? '', 1000)) if (isClean(c) && c !== '/' && c !== '\\') out += c;
  return clip(oneLine(out), 200) || 'file';
}
