import type { CheckRule, Finding } from './types';

/** Lines as few as these look as if they had been forgotten, when nothing else stands on the page. */
const FEW = 2;
/** Words belong to one line when their feet are as near as this, in points. */
const LEVEL = 4;
/** What stands in the margin at head and foot is no line of the text, as a part of the page's height. */
const MARGIN = 0.07;

/** A paper that ends with a line or two on a page of their own: everybody initials a page that is nearly empty. */
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
