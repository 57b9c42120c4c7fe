/** The engine for members' patterns: RE2's syntax and linear time, in plain JavaScript. */
import { RE2JS } from 're2js';
import { runPatternsWith, type Pattern } from '../text/pattern';

const KEEP = 200;
const made = new Map<string, Pattern | null>();

/** Returns a compiled pattern; null if it has a mistake, look-around or back-references. */
export function linearPattern(source: string): Pattern | null {
  const known = made.get(source);
  if (known !== undefined) return known;
  let pattern: Pattern | null = null;
  try {
    const compiled = RE2JS.compile(source);
    pattern = (text) => compiled.matches(text);
  } catch {
    pattern = null;
  }
  if (made.size >= KEEP) made.clear();
  made.set(source, pattern);
  return pattern;
}

runPatternsWith(linearPattern);
