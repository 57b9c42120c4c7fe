/** What a blank is for, by its captions: see `rules.ts`. */
import { Asked, type Judged, type PaperContext } from './asked';
import type { Blank, PageScan } from './blanks';
import { RULES, type RuleName } from './rules';

export type { Judged, PaperContext } from './asked';
export { OUTSIDER } from './rules-of-people';

/**
 * Judges one blank.
 *
 * @param soFar  judgments of the blanks before it on the page
 * @returns its places, with the rule that decided; none if there is nothing to fill
 */
export function judge(
  scan: PageScan,
  b: Blank,
  paper: PaperContext,
  soFar: ReadonlyMap<Blank, Judged>,
): { places: Judged[]; rule: RuleName } {
  const asked = new Asked(scan, b, paper, soFar);
  for (const { name, judge: say } of RULES) {
    const places = say(asked);
    if (places) return { places, rule: name };
  }
  throw new Error('no rule had anything to say of a blank');
}
