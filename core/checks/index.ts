/**
 * The gate check: everything to be fixed or known before a packet is sent. One rule, one file, one entry here. A rule
 * knows the draft, its pages, and what follows from both. It must not change anything: a fix is an edit in the
 * finding, which the coordinator accepts or ignores.
 */
import { puts } from '../packet/acts';
import { tagValues, NO_FACTS, type DealFacts } from '../merge';
import type { Draft } from '../packet/draft';
import { proposalsByDocument } from '../packet/proposals';
import { resolveMarks, type DocumentFacts } from '../packet/resolve';
import { choiceAlone } from './choice-alone';
import { countersignerFirst } from './countersigner-first';
import { dateInPieces } from './date-in-pieces';
import { documentWithoutMarks } from './document-without-marks';
import { ledgerOfParts, partOf } from './documents';
import { emptyGate } from './empty-gate';
import { formEnded } from './form-ended';
import { initialsUnread } from './initials-unread';
import { loneLastLine } from './lone-last-line';
import { markOffPage } from './mark-off-page';
import { markOutsideAct } from './mark-outside-act';
import { markOverMark } from './mark-over-mark';
import { markOverPrint } from './mark-over-print';
import { markTwice } from './mark-twice';
import { markWithoutAct } from './mark-without-act';
import { nobodyActs } from './nobody-acts';
import { nothingToPutIn } from './nothing-to-put-in';
import { nothingToSign } from './nothing-to-sign';
import { overLimits } from './over-limits';
import { pageLeftOut } from './page-left-out';
import { pageWithoutInitials } from './page-without-initials';
import { partyGates } from './party-gates';
import { partyWithoutAddress } from './party-without-address';
import { printedPlaceOpen } from './printed-place-open';
import { redlineWithoutInitials } from './redline-without-initials';
import { samePersonTwice } from './same-person-twice';
import { secondStep } from './second-step';
import { signaturesUnread } from './signatures-unread';
import { signatureParted } from './signature-parted';
import { signerWithoutSignature } from './signer-without-signature';
import { tagWithoutValue } from './tag-without-value';
import { textTooLong } from './text-too-long';
import { twoAnswersInOne } from './two-answers-in-one';
import type { CheckInput, CheckRule, Finding } from './types';
import { itemAt } from '../sure';

/** All rules of the gate check, in the order in which their findings are listed. */
export const CHECK_RULES: CheckRule[] = [
  nothingToSign,
  overLimits,
  nobodyActs,
  partyWithoutAddress,
  secondStep,
  samePersonTwice,
  partyGates,
  emptyGate,
  countersignerFirst,
  printedPlaceOpen,
  signerWithoutSignature,
  pageWithoutInitials,
  initialsUnread,
  signaturesUnread,
  redlineWithoutInitials,
  pageLeftOut,
  markWithoutAct,
  markOutsideAct,
  nothingToPutIn,
  markOffPage,
  markTwice,
  markOverMark,
  markOverPrint,
  textTooLong,
  choiceAlone,
  dateInPieces,
  signatureParted,
  tagWithoutValue,
  documentWithoutMarks,
  formEnded,
];

/** Rules about people, their gates and values of a deal, which a form does not have. */
const OF_PACKETS: ReadonlySet<CheckRule> = new Set([
  nothingToSign,
  nobodyActs,
  partyWithoutAddress,
  secondStep,
  samePersonTwice,
  partyGates,
  emptyGate,
  countersignerFirst,
  tagWithoutValue,
  formEnded,
]);
/** Advice before a paper becomes a form, when it can still be changed. */
export const FORM_ADVICE: CheckRule[] = [twoAnswersInOne, loneLastLine];
/** Rules that apply to a form. */
export const FORM_RULES: CheckRule[] = [...CHECK_RULES.filter((rule) => !OF_PACKETS.has(rule)), ...FORM_ADVICE];

/** Everything that follows from a draft and its pages: marks, ledger and findings. */
export interface DraftView extends CheckInput {
  findings: Finding[];
}

/** Resolves the marks of a draft, builds its ledger and runs the rules; findings that stop the sending come first. */
export function viewDraft(
  draft: Draft,
  documents: DocumentFacts[],
  facts: DealFacts = NO_FACTS,
  rules: readonly CheckRule[] = CHECK_RULES,
): DraftView {
  const order = new Map(draft.documents.map((d, i) => [d.id, i]));
  const inPacket = documents.filter((d) => order.has(d.id)).sort((a, b) => order.get(a.id)! - order.get(b.id)!);
  const { marks, unplaced, byDocument } = resolveMarks(draft, inPacket);
  const proposals = proposalsByDocument(draft, inPacket, byDocument);
  const parts = inPacket.map((doc, i) => partOf(doc, byDocument.get(doc.id)!, itemAt(proposals, i)));
  const input: CheckInput = {
    draft,
    documents: inPacket,
    parts,
    marks,
    unplaced,
    ledger: ledgerOfParts(
      parts,
      draft.parties.filter(puts).map((p) => p.id),
      draft.rules,
    ),
    proposals: proposals.flat(),
    tags: tagValues(facts, draft.parties),
  };
  const findings = rules.flatMap((rule) => rule(input));
  findings.sort((a, b) => Number(a.severity === 'warns') - Number(b.severity === 'warns'));
  return { ...input, findings };
}

export type { CheckInput, CheckRule, Finding, FindingPlace, Severity } from './types';
export { GROUPED_RULES, editsToFix, groupFindings, type FindingGroup } from './groups';
export { pageRanges } from './words';
export { roughWidth } from './text-too-long';
