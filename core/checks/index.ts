/** The gate check: every finding there is before a packet may be sent. One rule, one file. */
import { buildLedger } from '../marks/ledger';
import { resolveMarks, type DocumentFacts, type Draft } from '../marks/draft';
import { documentWithoutMarks } from './document-without-marks';
import { emptyGate } from './empty-gate';
import { markOffPage } from './mark-off-page';
import { markOverMark } from './mark-over-mark';
import { markOverPrint } from './mark-over-print';
import { markWithoutAct } from './mark-without-act';
import { nobodyActs } from './nobody-acts';
import { nothingToSign } from './nothing-to-sign';
import { pageWithoutInitials } from './page-without-initials';
import { partyGates } from './party-gates';
import { partyWithoutAddress } from './party-without-address';
import { signerWithoutSignature } from './signer-without-signature';
import type { CheckInput, CheckRule, Finding } from './types';

export const CHECK_RULES: CheckRule[] = [
  nothingToSign,
  nobodyActs,
  partyWithoutAddress,
  partyGates,
  emptyGate,
  signerWithoutSignature,
  pageWithoutInitials,
  markWithoutAct,
  markOffPage,
  markOverMark,
  markOverPrint,
  documentWithoutMarks,
];

/** Everything that follows from a draft and its pages: marks, ledger and findings at once. */
export interface DraftView extends CheckInput {
  findings: Finding[];
}

/** Resolves the marks of a draft, builds its ledger and runs every rule; stops come first. */
export function viewDraft(draft: Draft, documents: DocumentFacts[]): DraftView {
  const order = new Map(draft.documents.map((d, i) => [d.id, i]));
  const inPacket = documents.filter((d) => order.has(d.id)).sort((a, b) => order.get(a.id)! - order.get(b.id)!);
  const { marks, unplaced } = resolveMarks(draft, inPacket);
  const ledger = buildLedger({
    documents: inPacket.map((d) => ({ id: d.id, pageCount: d.pages.length })),
    partyIds: draft.parties.filter((p) => p.act === 'sign').map((p) => p.id),
    marks,
    rules: draft.rules,
    filled: new Set(),
  });
  const input: CheckInput = { draft, documents: inPacket, marks, unplaced, ledger };
  const findings = CHECK_RULES.flatMap((rule) => rule(input));
  findings.sort((a, b) => Number(a.severity === 'warns') - Number(b.severity === 'warns'));
  return { ...input, findings };
}

export type { CheckInput, CheckRule, Finding, Place, Severity } from './types';
export { pageRuns } from './words';
