/** A packet document by document: an edit of one document does not make the others be examined again. */
import type { PageFacts } from '../paper/types';
import { buildLedger, joinLedgers, type Ledger } from '../packet/ledger';
import type { Proposal } from '../packet/proposal';
import type { DocumentFacts } from '../packet/resolve';
import type { InitialsRule, Mark, PacketParty } from '../packet/types';
import type { CheckRule, DocumentPart, Finding, Named } from './types';

const parts = new WeakMap<DocumentFacts, DocumentPart>();

/** Returns the part of a document; the earlier object if it still holds. */
export function partOf(doc: DocumentFacts, marks: Mark[], proposals: Proposal[]): DocumentPart {
  const last = parts.get(doc);
  if (last && last.marks === marks && last.proposals === proposals) return last;
  const part = { doc, marks, proposals };
  parts.set(doc, part);
  return part;
}

/** Returns a question about the words of a page whose answer is worked out once: what a page says never changes. */
export function aboutPages(asks: (words: string) => boolean): (page: PageFacts) => boolean {
  const known = new WeakMap<PageFacts, boolean>();
  return (page) => {
    const before = known.get(page);
    if (before !== undefined) return before;
    const says = asks(page.words.join(' '));
    known.set(page, says);
    return says;
  };
}

/**
 * Returns a rule that examines each document by itself. It sees the document and the people of the packet and nothing
 * else, because it is not run again when anything else changes.
 */
export function onEachDocument(look: (part: DocumentPart, named: Named) => Finding[]): CheckRule {
  const kept = new WeakMap<DocumentPart, { parties: PacketParty[]; found: Finding[] }>();
  return ({ parts, draft: { parties } }) =>
    parts.flatMap((part) => {
      const last = kept.get(part);
      if (last?.parties === parties) return last.found;
      const found = look(part, { draft: { parties }, documents: [part.doc] });
      kept.set(part, { parties, found });
      return found;
    });
}

const ledgers = new WeakMap<DocumentPart, { of: string; rules: InitialsRule[]; ledger: Ledger }>();

/** Returns the ledger of a draft, in which nothing is filled yet. */
export function ledgerOfParts(all: DocumentPart[], partyIds: string[], rules: InitialsRule[]): Ledger {
  const of = partyIds.join();
  return joinLedgers(
    partyIds,
    all.map((part) => {
      const here = rules.filter((r) => r.documentId === part.doc.id);
      const last = ledgers.get(part);
      if (last?.of === of && last.rules.length === here.length && last.rules.every((r, i) => r === here[i]))
        return last.ledger;
      const ledger = buildLedger({
        documents: [{ id: part.doc.id, pageCount: part.doc.pages.length, ownPages: part.doc.ownPages }],
        partyIds,
        marks: part.marks,
        rules: here,
        filled: NOTHING,
      });
      ledgers.set(part, { of, rules: here, ledger });
      return ledger;
    }),
  );
}

const NOTHING: ReadonlySet<string> = new Set();
