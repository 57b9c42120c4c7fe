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

/** Returns the page that is shown (the chosen one, or the first) and the functions that choose another. */
function usePosition(view: DraftView) {
  const [where, setWhere] = useState<{ documentId: string; page: number } | null>(null);
  const at = useMemo(() => {
    const there = where && view.documents.find((d) => d.id === where.documentId);
    if (there) return { documentId: there.id, page: Math.min(where.page, there.pages.length) };
    const first = view.documents[0];
    return first ? { documentId: first.id, page: 1 } : null;
  }, [where, view.documents]);
  /** Returns the page before or after this one, across documents; null at the ends. */
  const beside = (by: 1 | -1) => {
    if (!at) return null;
    const i = view.documents.findIndex((d) => d.id === at.documentId);
    const doc = itemAt(view.documents, i);
    const page = at.page + by;
    if (page >= 1 && page <= doc.pages.length) return { documentId: doc.id, page };
    const next = view.documents[i + by];
    return next ? { documentId: next.id, page: by > 0 ? 1 : next.pages.length } : null;
  };
  return { at, setWhere, beside };
}

/** Returns what is selected on the desk: marks, a proposal or a change, never two of these at once. */
function useSelection(view: DraftView) {
  const [selectedIds, setSelected] = useState<string[]>([]);
  const [proposalId, setProposal] = useState<string | null>(null);
  const [redlineId, setRedline] = useState<string | null>(null);
  const [gathering, gather] = useState(false);
  const selected = useMemo(
    () => selectedIds.flatMap((id) => view.marks.find((m) => m.id === id) ?? []),
    [selectedIds, view.marks],
  );
  const deselect = () => {
    gather(false);
    setSelected([]);
    setProposal(null);
    setRedline(null);
  };
  const select = useCallback((markId: string | null, also = false) => {
    if (markId === null) gather(false);
    setProposal(null);
    setRedline(null);
    setSelected((now) => {
      if (markId === null) return [];
      if (!also) return [markId];
      return now.includes(markId) ? now.filter((x) => x !== markId) : [...now, markId];
    });
  }, []);
  return {
    selected,
    proposal: view.proposals.find((p) => p.id === proposalId && p.state === 'open') ?? null,
    redlineId,
    gathering: gathering && selected.length > 0,
    gather,
    select,
    deselect,
    setSelected,
    setProposal,
    setRedline,
  };
}

// eslint-disable-next-line max-lines-per-function -- assembles the desk from its hooks, one field after another
export function useDesk(packet: PacketView, bench: Bench = PACKET_BENCH): Desk {
  const handle = useDraft(packet, bench.home);
  const { draft, edit } = handle;
  const ids = useMemo(() => draft.documents.map((d) => d.id), [draft.documents]);
  const { documents, ready } = useFacts(packet, ids);
  const view = useMemo(
    () => viewDraft(draft, documents, packet.facts, bench.rules),
    [draft, documents, packet.facts, bench.rules],
  );
  const { at, setWhere, beside } = usePosition(view);
  const { setSelected, setProposal, setRedline, deselect, redlineId, ...selection } = useSelection(view);
  const [partyChoice, setParty] = useState<string | null>(null);
  const signers = draft.parties.filter(puts);
  const partyId = signers.some((p) => p.id === partyChoice) ? partyChoice : (signers[0]?.id ?? null);
  const [tool, setTool] = useState<Tool>('initials');
  const [copied, setCopied] = useState<Mark[]>([]);
  const [said, setSaid] = useState('');
  const goTo = useCallback(
    (documentId: string, page: number) => {
      setWhere({ documentId, page });
      setSelected([]);
      setProposal(null);
      setRedline(null);
    },
    [setWhere, setSelected, setProposal, setRedline],
  );
  const { selected } = selection;
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
  const moves: Pick<Desk, 'step' | 'takeTool' | 'pickProposal' | 'pickRedline' | 'setRule' | 'goToPlace'> = {
    step(by) {
      const next = beside(by);
      if (next) goTo(next.documentId, next.page);
    },
    takeTool(t) {
      deselect();
      setTool(t);
    },
    pickProposal(id) {
      deselect();
      setProposal(id);
      const of = view.proposals.find((p) => p.id === id);
      if (of?.partyId) setParty(of.partyId);
    },
    pickRedline(id) {
      deselect();
      setRedline(id);
    },
    setRule(documentId, change) {
      const rule = { ...acts.ruleFor(documentId), ...change };
      const item = { list: 'rules' as const };
      edit([rule.partyIds.length ? { op: 'put', ...item, item: rule } : { op: 'drop', ...item, id: rule.id }]);
    },
    goToPlace(place: FindingPlace) {
      deselect();
      if (place.documentId) setWhere({ documentId: place.documentId, page: place.page ?? 1 });
      if (place.partyId) setParty(place.partyId);
      if (place.markId) setSelected([place.markId]);
    },
  };
  return {
    ...handle,
    ...acts,
    ...selection,
    ...moves,
    packet,
    bench,
    view,
    ready,
    at,
    goTo,
    partyId,
    takeParty: setParty,
    tool,
    selectMany: setSelected,
    redlineId: draft.redlines.some((r) => r.id === redlineId) ? redlineId : null,
    copied,
    said,
  };
}
