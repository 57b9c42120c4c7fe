/**
 * Patterns (regular expressions) that members write for what a mark may contain. An engine with linear time runs
 * them; a program that validates values loads it once by importing `@gatepath/core/patterns`. A page that only fills
 * marks may do without it: the server validates every value.
 */

/** Returns whether a whole text matches. */
export type Pattern = (text: string) => boolean;
/** Compiles a pattern; null if it cannot be used. */
export type PatternEngine = (source: string) => Pattern | null;

let engine: PatternEngine | null = null;

/** Sets the engine that runs patterns. */
export function runPatternsWith(which: PatternEngine): void {
  engine = which;
}

/**
 * Returns a pattern for the whole value; null if it cannot be used: there is no engine, it has a mistake, or it is
 * not linear.
 */
export function patternOf(source: string): Pattern | null {
  return engine?.(source) ?? null;
}
