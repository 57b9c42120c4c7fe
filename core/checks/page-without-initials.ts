import type { CheckRule, Finding } from './types';
import { nameIn, pageIn, pageRuns } from './words';

/**
 * A page that lacks a party's initials, because the rule found no space for them, or because
 * the party initials other pages of the same document by hand but not this one.
 */
export const pageWithoutInitials: CheckRule = (input) => {
  const found: Finding[] = input.unplaced.map((u) => ({
    rule: 'page-without-initials',
    severity: 'stops',
    sentence: `No free space for ${nameIn(input, u.partyId)}’s initials on ${pageIn(input, u.documentId, u.page)}. Place them by hand, or except the page.`,
    place: { documentId: u.documentId, page: u.page, partyId: u.partyId },
  }));
  const gaps = new Map<string, { documentId: string; partyId: string; pages: number[] }>();
  for (const row of input.ledger.rows) {
    for (const cell of row.cells) {
      if (cell.gapFrom !== 'pattern') continue;
      const key = `${row.documentId}:${cell.partyId}`;
      const gap = gaps.get(key) ?? { documentId: row.documentId, partyId: cell.partyId, pages: [] };
      gap.pages.push(row.page);
      gaps.set(key, gap);
    }
  }
  for (const g of gaps.values()) {
    const doc = input.documents.find((d) => d.id === g.documentId);
    const rule = input.draft.rules.find((r) => r.documentId === g.documentId);
    found.push({
      rule: 'page-without-initials',
      severity: 'stops',
      sentence: `${nameIn(input, g.partyId)} has no initials on ${pageRuns(g.pages)} of ${doc?.name ?? 'a document'}.`,
      place: { documentId: g.documentId, page: g.pages[0]!, partyId: g.partyId },
      mend: {
        label: 'Initial every page',
        edits: [
          {
            op: 'put',
            list: 'rules',
            item: rule
              ? { ...rule, partyIds: [...rule.partyIds, g.partyId] }
              : {
                  id: `rule-${g.documentId}`,
                  documentId: g.documentId,
                  partyIds: [g.partyId],
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
