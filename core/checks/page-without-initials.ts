import { isByHand } from '../packet/draft';
import type { CheckRule, Finding } from './types';
import { listWords } from '../text/names';
import { documentIn, nameIn, pageIn, pageRanges } from './words';
import { itemAt } from '../sure';

/**
 * Finds pages that lack a party's initials: the rule found no space for them, or the party initials other pages of
 * the document but not this one.
 */
export const pageWithoutInitials: CheckRule = (input) => {
  const found: Finding[] = input.unplaced
    .filter((u) => !u.redlineId)
    .map((u) => ({
      rule: 'page-without-initials',
      severity: 'stops',
      sentence: `No free space for ${nameIn(input, u.partyId)}’s initials on ${pageIn(input, u.documentId, u.page)}. Place them by hand, or except the page.`,
      place: { documentId: u.documentId, page: u.page, partyId: u.partyId },
    }));
  const gaps = new Map<string, { documentId: string; partyId: string; pages: number[] }>();
  // The other pages of a returned paper were initialed by hand.
  for (const row of input.ledger.rows.filter((r) => !isByHand(input.draft, r.documentId))) {
    for (const cell of row.cells) {
      if (cell.gapFrom !== 'pattern') continue;
      const key = `${row.documentId}:${cell.partyId}`;
      const gap = gaps.get(key) ?? { documentId: row.documentId, partyId: cell.partyId, pages: [] };
      gap.pages.push(row.page);
      gaps.set(key, gap);
    }
  }
  // People who lack the same pages of a document are one finding with one fix.
  const together = new Map<string, { documentId: string; partyIds: string[]; pages: number[] }>();
  for (const g of gaps.values()) {
    const key = `${g.documentId}:${g.pages.join()}`;
    const all = together.get(key) ?? { documentId: g.documentId, partyIds: [], pages: g.pages };
    all.partyIds.push(g.partyId);
    together.set(key, all);
  }
  for (const g of together.values()) {
    const rule = input.draft.rules.find((r) => r.documentId === g.documentId);
    const names = listWords(g.partyIds.map((p) => nameIn(input, p)));
    found.push({
      rule: 'page-without-initials',
      severity: 'stops',
      sentence: `${names} ${g.partyIds.length === 1 ? 'has' : 'have'} no initials on ${pageRanges(g.pages)} of ${documentIn(input, g.documentId)}.`,
      places: g.pages.length * g.partyIds.length,
      place: { documentId: g.documentId, page: itemAt(g.pages, 0), partyId: itemAt(g.partyIds, 0) },
      mend: {
        label: 'Initial every page',
        edits: [
          {
            op: 'put',
            list: 'rules',
            item: rule
              ? { ...rule, partyIds: [...new Set([...rule.partyIds, ...g.partyIds])] }
              : {
                  id: `rule-${g.documentId}`,
                  documentId: g.documentId,
                  partyIds: g.partyIds,
                  anchor: { fx: 0, fy: 1 },
                  except: [],
                  moved: [],
                },
          },
        ],
      },
    });
  }
  return found;
};
