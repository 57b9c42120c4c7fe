import type { CheckRule, Finding } from './types';

/** Maximum number of lines that look forgotten when nothing else is on the page. */
const FEW = 2;
/** Maximum difference between the baselines of words of one line, in points. */
const LEVEL = 4;
/** Share of the page's height at head and foot whose words are not lines of the text. */
const MARGIN = 0.07;

/** Finds papers that end with a line or two on their own page: everyone would initial a nearly empty page. */
export const loneLastLine: CheckRule = (input) =>
  input.documents.flatMap((d): Finding[] => {
    const n = d.pages.length;
    const page = d.pages[n - 1];
    if (n < 2 || !page || input.marks.some((m) => m.documentId === d.id && m.page === n && !m.ruleId)) return [];
    const feet = page.print
      .map((r) => r.y + r.h)
      .filter((foot) => foot > MARGIN * page.height && foot < (1 - MARGIN) * page.height)
      .sort((a, b) => a - b);
    const lines = feet.filter((foot, i) => i === 0 || foot - (feet[i - 1] ?? 0) > LEVEL).length;
    if (lines === 0 || lines > FEW) return [];
    return [
      {
        rule: 'lone-last-line',
        severity: 'warns',
        sentence: `${d.name} ends with ${lines === 1 ? 'one line' : 'two lines'} alone on page ${n}. Set it a little tighter, or begin the page earlier, where the paper was written.`,
        place: { documentId: d.id, page: n },
      },
    ];
  });
