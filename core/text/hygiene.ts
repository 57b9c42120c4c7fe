/**
 * What text from outside may hold. Characters that no keyboard puts into a name (NUL and other
 * controls, half a surrogate pair) make a text unusable: databases, PDF and mail refuse them.
 * Characters that only steer how others are shown are taken out of single lines, so that a name
 * or a file's name cannot pretend to be another (Unicode Technical Report 36, 2.8).
 */

/** Control characters other than tab, line feed and carriage return; DEL and the C1 controls too. */
const isControl = (c: number) => (c < 32 && c !== 9 && c !== 10 && c !== 13) || (c >= 127 && c < 160);

/** Whether a text holds nothing that cannot be stored, shown or sent on. */
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
/** Joiners mean something between letters of scripts that join; beside ASCII they only hide. */
const JOINERS = /[\u200c\u200d]/g;

/** A text as one line: breaks become spaces, characters that steer or hide go, ends are trimmed. */
export function oneLine(text: string): string {
  return text
    .replace(/\r\n|[\t\n\r\u0085\u2028\u2029]/g, ' ')
    .replace(STEERING, '')
    .replace(JOINERS, (joiner, at: number, whole: string) =>
      (whole.charCodeAt(at - 1) || 0) > 127 && (whole.charCodeAt(at + 1) || 0) > 127 ? joiner : '',
    )
    .trim();
}

/** The beginning of a text, at most `max` UTF-16 units long, never cut inside a character. */
export function clip(text: string, max: number): string {
  if (text.length <= max) return text;
  const last = text.charCodeAt(max - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? max - 1 : max);
}

/** The name of a file from outside: one line, without what cannot be kept, never empty, at most 200 units. */
export function fileNameOf(name: string | undefined): string {
  let out = '';
  for (const c of clip(name ?? '', 1000)) if (isClean(c) && c !== '/' && c !== '\\') out += c;
  return clip(oneLine(out), 200) || 'file';
}
