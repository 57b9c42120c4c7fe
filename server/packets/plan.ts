/** Making the plan of a packet from its draft, with tags filled in. */
import { mergeTags } from '@gatepath/core/merge';
import { approves, puts, type Draft, type Mark, type Plan } from '@gatepath/core/packet';
import type { DealRow } from '../deal-records/queries';
import type { DocumentRow } from '../documents/queries';

/** A draft after its check: its documents, the marks and tags that are sent with it, and the findings. */
export interface CheckedDraft {
  docs: DocumentRow[];
  deal: DealRow;
  marks: Mark[];
  tags: ReadonlyMap<string, string>;
}

/** Returns the plan of a draft, given its check. */
export function planOf(
  draft: Draft,
  { docs, deal, marks, tags, holidays }: CheckedDraft & { holidays: string[] },
): Plan {
  const byId = new Map(docs.map((d) => [d.id, d]));
  const words = (text: string) => mergeTags(text, tags).text;
  return {
    packetName: draft.name,
    dealName: deal.city ? `${deal.address}, ${deal.city}` : deal.address,
    timeZone: deal.time_zone,
    subject: words(subjectOf(draft, deal.address)),
    message: words(draft.message),
    parties: draft.parties.map(({ accessCode: _told, codeKept: _kept, slot: _slot, ...p }) => p),
    gates: draft.gates,
    documents: draft.documents.map((d) => {
      const doc = byId.get(d.id)!;
      const { own_pages: ownPages } = doc;
      return {
        id: doc.id,
        name: doc.name,
        sha256: doc.sha256,
        pages: doc.pages,
        ...(ownPages === null ? {} : { ownPages }),
      };
    }),
    // Tags in text are replaced by their current values.
    marks: marks.map((m) => (m.value ? { ...m, value: words(m.value) } : m)),
    redlines: draft.redlines,
    schedule: scheduleOf(draft, words),
    holidays: holidays,
    handOver: draft.handOver,
    ...(draft.readAlong ? { readAlong: true } : {}),
    ...(draft.reports?.length ? { reports: draft.reports } : {}),
    ...(draft.replaces ? { replaces: draft.replaces } : {}),
    ...(draft.continues ? { continues: draft.continues } : {}),
    ...(draft.delivery ? { delivery: draft.delivery } : {}),
  };
}

/** Start of a subject that nobody wrote by hand. */
const ASKS_TO_SIGN = 'Please sign: ';

/** Returns the subject. It asks nobody to sign where nobody signs, and it names the deal. */
function subjectOf({ subject, parties }: Draft, address: string): string {
  if (!subject.startsWith(ASKS_TO_SIGN)) return subject;
  const rest = subject.slice(ASKS_TO_SIGN.length);
  const about = rest.includes(address) ? rest : `${rest}, ${address}`;
  if (parties.some(puts)) return `${ASKS_TO_SIGN}${about}`;
  return `${parties.some(approves) ? 'Please approve: ' : 'Please read: '}${about}`;
}

/** Returns the part of a draft's schedule that the plan keeps: its sending time is over by then. */
function scheduleOf(
  { schedule: { sending: _over, ...rest } }: Draft,
  words: (text: string) => string,
): Plan['schedule'] {
  const { nudge } = rest;
  return nudge?.words ? { ...rest, nudge: { ...nudge, words: words(nudge.words) } } : rest;
}
