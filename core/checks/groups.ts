/** Findings of one kind as one: how the gate check is shown, and how all of them are fixed in one act. */
import { applyEdits, type Draft, type DraftEdit } from '../packet/draft';
import { groupBy } from '../sure/group';
import { itemAt } from '../sure';
import { count } from '../text/names';
import type { Finding, Severity } from './types';

/** Returns "3 people", or "1 person". */
const people = (n: number) => (n === 1 ? '1 person' : `${n} people`);

type Sentence = (n: number, finding: Finding) => string;

/** What several findings of a rule say together; `n` is the number of places they are about. */
const SENTENCES: Readonly<Record<string, Sentence>> = {
  'choice-alone': (n) => `${n} questions have only one choice to choose from.`,
  'countersigner-first': (n) => `${people(n)} would sign before those who should sign first.`,
  'date-in-pieces': (n) => `${n} dates would be filled in three pieces.`,
  'document-without-marks': (n) => `No one signs or initials ${count(n, 'document')}.`,
  'empty-gate': (n) => `${n} gates have no one.`,
  'form-ended': (n) => `The last day of ${n} forms has passed. Look for newer editions.`,
  'initials-unread': (n) => `No place for initials was read in ${n} documents that speak of them.`,
  'lone-last-line': (n) => `${n} documents end with a line or two alone on a page.`,
  'mark-off-page': (n) => `${n} marks extend beyond the edge of their page.`,
  'mark-outside-act': () => 'People have marks on documents that they do not get.',
  'mark-over-mark': (n) => `Marks overlap in ${n} places.`,
  'mark-over-print': (n) => `${n} marks cover print.`,
  'mark-twice': (n) => `${n} marks are duplicates in the same place.`,
  'mark-without-act': (n) => `${people(n)} have marks to fill, but do not sign.`,
  'nobody-acts': () => 'No one signs or approves anything in this packet.',
  'nothing-to-put-in': (n) => `${n} marks would stay empty, because what belongs there is not known.`,
  'nothing-to-sign': () => 'There is no document in this packet. Add one first.',
  'over-limits': () => 'The packet is too large. Split it into two packets.',
  'page-left-out': (n) => `Pages were excepted from the initials by hand, ${n} times.`,
  'page-without-initials': (n, { mend }) =>
    mend ? `Initials are missing in ${n} places.` : `There is no free space for initials in ${n} places.`,
  'party-gates': (n) => `${people(n)} are at no gate, or at more than one.`,
  'party-without-address': (n) => `${people(n)} have no email address that can be used.`,
  'printed-place-open': (n, { severity }) =>
    severity === 'stops'
      ? `${n} printed places have no mark yet.`
      : `${n} printed places are uncertain, or assigned to no one.`,
  'redline-without-initials': (n) => `There is no free space for initials beside changes in ${n} places.`,
  'same-person-twice': (n) => `${people(n)} are in this packet twice.`,
  'second-step': (n) => `${people(n)} could not pass the second step.`,
  'signature-parted': (n) => `${n} signatures are on another page than what belongs with them.`,
  'signatures-unread': (n) => `No place for a signature was read in ${n} documents that speak of signing.`,
  'signer-without-signature': (n) => `${people(n)} sign, but have no signature anywhere.`,
  'tag-without-value': (n) => `${n} tags have no value in this deal.`,
  'text-too-long': (n) => `${n} texts do not fit at a readable size.`,
  'two-answers-in-one': (n) => `${n} places ask for two things at once.`,
};

/** Rules that have a sentence for several findings. */
export const GROUPED_RULES: readonly string[] = Object.keys(SENTENCES);

/** Findings of one rule that are equally severe and fixed the same way. */
export interface FindingGroup {
  rule: string;
  severity: Severity;
  /** What they say together; of a single finding its own sentence. */
  sentence: string;
  findings: Finding[];
  /** What fixes them; absent if nothing fixes them in one touch. */
  fix?: string;
}

const keyOf = (f: Finding) => `${f.severity}:${f.rule}:${f.mend?.label ?? ''}`;

/** Returns findings by kind, in the order in which the first of each kind is listed. */
export function groupFindings(findings: readonly Finding[]): FindingGroup[] {
  return [...groupBy(findings, keyOf).values()].map((together): FindingGroup => {
    const first = itemAt(together, 0);
    const n = together.reduce((sum, f) => sum + (f.places ?? 1), 0);
    const several = SENTENCES[first.rule];
    return {
      rule: first.rule,
      severity: first.severity,
      sentence: together.length === 1 || !several ? first.sentence : several(n, first),
      findings: together,
      ...(first.mend ? { fix: first.mend.label } : {}),
    };
  });
}

/** Maximum number of times that findings are examined again while all of a kind are fixed. */
const ROUNDS = 60;

const itemOf = (e: DraftEdit) => (e.op === 'set' ? e.field : `${e.list}:${e.op === 'put' ? e.item.id : e.id}`);

/**
 * Returns the edits that fix a finding or every finding of its kind. Fixes that change the same item are made one
 * after another, each on top of the draft that the earlier ones leave: two fixes of one initials rule would
 * otherwise undo each other.
 *
 * @param findingsOf returns the findings of a draft
 */
export function editsToFix(draft: Draft, findingsOf: (draft: Draft) => Finding[], group: FindingGroup): DraftEdit[] {
  const kind = keyOf(itemAt(group.findings, 0));
  const edits: DraftEdit[] = [];
  let now = draft;
  let fixes = group.findings;
  for (let round = 0; fixes.length && round < ROUNDS; round++) {
    const changed = new Set<string>();
    const together: DraftEdit[] = [];
    for (const { mend } of fixes) {
      const items = mend?.edits.map(itemOf) ?? [];
      if (items.some((i) => changed.has(i))) continue;
      for (const i of items) changed.add(i);
      together.push(...(mend?.edits ?? []));
    }
    if (!together.length) break;
    edits.push(...together);
    now = applyEdits(now, together);
    fixes = findingsOf(now).filter((f) => keyOf(f) === kind);
  }
  return edits;
}
