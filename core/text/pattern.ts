/**
 * Patterns (regular expressions) that members write for what may stand in a mark. They are run by
 * an engine whose time is linear in the text; a program that judges values names it once, by
 * importing `@gatepath/core/patterns`. A page that only fills marks may do without: the server
 * judges what is sent to it all the same.
 */

/** Whether a whole text has the form. */
export type Pattern = (text: string) => boolean;
/** Compiles a pattern; null if it cannot be used. */
export type PatternEngine = (source: string) => Pattern | null;

let engine: PatternEngine | null = null;

/** Names the engine. */
export function runPatternsWith(which: PatternEngine): void {
  engine = which;
}

/** A pattern over the whole value; null when it cannot be used (no engine, a mistake, or a form that is not linear). */
export function patternOf(source: string): Pattern | null {
  return engine?.(source) ?? null;
}
