/** What the desk's panels share: the draft, what follows from it, and what is selected. */
import { puts } from '@gatepath/core/packet';
import type { DocumentFacts, InitialsRule, Mark, Proposal } from '@gatepath/core/packet';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useQueries } from '@tanstack/react-query';
import { CHECK_RULES, viewDraft, type CheckRule, type DraftView, type FindingPlace } from '@gatepath/core/checks';
import type { PackedFacts, PacketView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import { factsQuery } from '../../api/hooks';
import { PACKET_HOME, useDraft, type DraftHandle, type DraftHome } from './use-draft';
import { markActs, type MarkActs, type Tool } from './mark-acts';
import { itemAt } from '@gatepath/core/sure';

export interface Desk extends DraftHandle, MarkActs {
  packet: PacketView;
  bench: Bench;
  view: DraftView;
  /** Whether the facts of the pages are loaded; without them nothing can be placed or checked. */
  ready: boolean;
  at: { documentId: string; page: number } | null;
  goTo: (documentId: string, page: number) => void;
  /** Goes a page forward or back, across documents. */
  step: (by: 1 | -1) => void;
  partyId: string | null;
  takeParty: (id: string) => void;
  tool: Tool;
  takeTool: (tool: Tool) => void;
  /** Selected marks, in the order they were selected. */
  selected: Mark[];
  /** Whether touching a mark adds it to the selection. */
  gathering: boolean;
  gather: (on: boolean) => void;
  /** Selects one mark, or none; with `also`, adds or removes one. */
  select: (markId: string | null, also?: boolean) => void;
  selectMany: (markIds: string[]) => void;
  /** The selected proposal. */
  proposal: Proposal | null;
  pickProposal: (id: string | null) => void;
  /** The selected change. */
  redlineId: string | null;
  pickRedline: (id: string | null) => void;
  copied: Mark[];
  setRule: (
    documentId: string,
    change: Partial<Pick<InitialsRule, 'partyIds' | 'anchor' | 'except' | 'moved'>>,
  ) => void;
  goToPlace: (place: FindingPlace) => void;
  /** Announced to screen readers: what an act did. */
  said: string;
}

/** What is prepared at the desk: a packet, or a form whose people are slots. */
export interface Bench {
  what: 'packet' | 'form';
  home: DraftHome;
  /** The rules of the gate check. */
  rules: readonly CheckRule[];
}
export const PACKET_BENCH: Bench = { what: 'packet', home: PACKET_HOME, rules: CHECK_RULES };

/** Unpacks facts once per document: later calls return the same object, so what was computed for it stays valid. */
function useFacts(packet: PacketView, ids: string[]): { documents: DocumentFacts[]; ready: boolean } {
  // A document that is still being read has no facts to query; the packet is refetched until it has.
  const isRead = (id: string) => packet.documents.find((d) => d.id === id)?.status !== 'reading';
  const facts = useQueries({ queries: ids.map((id) => ({ ...factsQuery(id), enabled: isRead(id) })) });
  const unpacked = useRef(new Map<string, { from: PackedFacts; name: string; facts: DocumentFacts }>());
  const documents = ids.flatMap((id, i) => {
    const from = facts[i]?.data;
    const document = packet.documents.find((d) => d.id === id);
    if (!from || !document) return [];
    const { name, formEnded } = document;
    const had = unpacked.current.get(id);
    if (had && had.from === from && had.name === name && had.facts.formEnded === formEnded) return [had.facts];
    const plain = had && had.from === from ? { ...had.facts, name } : unpackFacts(id, name, from);
    const made: DocumentFacts = { ...plain, ...(formEnded ? { formEnded } : {}) };
    unpacked.current.set(id, { from, name, facts: made });
    return [made];
  });
  const list = useRef(documents);
  if (list.current.length !== documents.length || list.current.some((d, i) => d !== documents[i]))
    list.current = documents;
  return { documents: list.current, ready: facts.every((f) => f.isSuccess) };
}

// eslint-disable-next-line max-lines-per-function -- puts the pieces of the desk together; each is a hook or a list of acts of its own
export function useDesk(packet: PacketView, bench: Bench = PACKET_BENCH): Desk {
  const handle = useDraft(packet, bench.home);
  const { draft, edit } = handle;
  const ids = useMemo(() => draft.documents.map((d) => d.id), [draft.documents]);
  const { documents, ready } = useFacts(packet, ids);
  const view = useMemo(
    () => viewDraft(draft, documents, packet.facts, bench.rules),
    [draft, documents, packet.facts, bench.rules],
  );

  const [where, setWhere] = useState<{ documentId: string; page: number } | null>(null);
  const at = useMemo(() => {
    const there = where && view.documents.find((d) => d.id === where.documentId);
    if (there) return { documentId: there.id, page: Math.min(where.page, there.pages.length) };
    const first = view.documents[0];
    return first ? { documentId: first.id, page: 1 } : null;
  }, [where, view.documents]);
  const [partyChoice, setParty] = useState<string | null>(null);
  const signers = draft.parties.filter(puts);
  const partyId = signers.some((p) => p.id === partyChoice) ? partyChoice : (signers[0]?.id ?? null);
  const [tool, setTool] = useState<Tool>('initials');
  const [selectedIds, setSelected] = useState<string[]>([]);
  const selected = useMemo(
    () => selectedIds.flatMap((id) => view.marks.find((m) => m.id === id) ?? []),
    [selectedIds, view.marks],
  );
  const [proposalId, setProposal] = useState<string | null>(null);
  const proposal = view.proposals.find((p) => p.id === proposalId && p.state === 'open') ?? null;
  const [redlineId, setRedline] = useState<string | null>(null);
  const [copied, setCopied] = useState<Mark[]>([]);
  const [gathering, setGathering] = useState(false);
  const [said, setSaid] = useState('');

  const deselect = () => {
    setGathering(false);
    setSelected([]);
    setProposal(null);
    setRedline(null);
  };
  const select = useCallback((markId: string | null, also = false) => {
    if (markId === null) setGathering(false);
    setProposal(null);
    setRedline(null);
    setSelected((now) =>
      markId === null
        ? []
        : !also
          ? [markId]
          : now.includes(markId)
            ? now.filter((x) => x !== markId)
            : [...now, markId],
    );
  }, []);
  const goTo = useCallback((documentId: string, page: number) => {
    setWhere({ documentId, page });
    setSelected([]);
    setProposal(null);
    setRedline(null);
  }, []);
  const step = (by: 1 | -1) => {
    if (!at) return;
    const i = view.documents.findIndex((d) => d.id === at.documentId);
    const doc = itemAt(view.documents, i);
    const page = at.page + by;
    if (page >= 1 && page <= doc.pages.length) return goTo(doc.id, page);
    const next = view.documents[i + by];
    if (next) goTo(next.id, by > 0 ? 1 : next.pages.length);
  };
  const acts = markActs({
    draft,
    edit,
    view,
    at,
    partyId,
    tool,
    selected,
    copied,
    setCopied,
    setSelected,
    setRedline,
    setSaid,
  });

  const setRule: Desk['setRule'] = (documentId, change) => {
    const rule = { ...acts.ruleFor(documentId), ...change };
    edit([
      rule.partyIds.length ? { op: 'put', list: 'rules', item: rule } : { op: 'drop', list: 'rules', id: rule.id },
    ]);
  };
  const goToPlace = (place: FindingPlace) => {
    deselect();
    if (place.documentId) setWhere({ documentId: place.documentId, page: place.page ?? 1 });
    if (place.partyId) setParty(place.partyId);
    if (place.markId) setSelected([place.markId]);
  };

  return {
    ...handle,
    ...acts,
    packet,
    bench,
    view,
    ready,
    at,
    goTo,
    step,
    partyId,
    takeParty: setParty,
    tool,
    takeTool: (t) => {
      deselect();
      setTool(t);
    },
    selected,
    gathering: gathering && selected.length > 0,
    gather: setGathering,
    select,
    selectMany: setSelected,
    proposal,
    pickProposal: (id) => {
      deselect();
      setProposal(id);
      const of = view.proposals.find((p) => p.id === id);
      if (of?.partyId) setParty(of.partyId);
    },
    redlineId: draft.redlines.some((r) => r.id === redlineId) ? redlineId : null,
    pickRedline: (id) => {
      deselect();
      setRedline(id);
    },
    copied,
    setRule,
    goToPlace,
    said,
  };
}
