/**
 * The state of the desk and what changes it: the draft with the edits that the server has not accepted yet, what
 * follows from both, and what is shown and selected. Nothing here knows React, the network or the device.
 */
import { viewDraft, type DraftView } from '@gatepath/core/checks';
import { puts, type DocumentFacts, type Mark, type Proposal } from '@gatepath/core/packet';
import { itemAt } from '@gatepath/core/sure';
import type { PacketView } from '@gatepath/contract';
import type { DeskSetup, Tool } from './desk-setup';
import { isSame, openDraft, reduceDraft, type DraftAction, type DraftState } from './draft-state';

/** A page of a document. */
export interface PageAt {
  documentId: string;
  page: number;
}

export interface DeskState extends DraftState {
  setup: DeskSetup;
  packet: PacketView;
  /** The facts of the documents whose pages are read. */
  documents: DocumentFacts[];
  /** Whether the facts of all pages are loaded; without them nothing can be placed or checked. */
  ready: boolean;
  /** What follows from the draft and its pages. */
  view: DraftView;
  /** The page chosen last; see `positionOf`. */
  where: PageAt | null;
  /** The number of pages side by side. */
  pagesShown: 1 | 2;
  /** The person chosen last; see `partyInHand`. */
  partyChoice: string | null;
  tool: Tool;
  /** Ids of selected marks, in the order they were selected; see `selectedMarks`. */
  selectedIds: string[];
  /** Whether a touch adds a mark to the selection instead of selecting it alone. */
  gathering: boolean;
  proposalId: string | null;
  redlineId: string | null;
  copied: Mark[];
  /** Announced to screen readers: what an act did. */
  said: string;
}

export type DeskAction =
  | { type: 'packet'; packet: PacketView }
  | { type: 'facts'; documents: DocumentFacts[]; ready: boolean }
  | DraftAction
  | { type: 'go'; to: PageAt }
  /** Makes a page the current one, without changing the selection. */
  | { type: 'make-current'; at: PageAt }
  | { type: 'show-pages'; pages: 1 | 2 }
  | { type: 'take-party'; partyId: string }
  | { type: 'take-tool'; tool: Tool }
  /** Selects one mark, or none; with `also`, adds or removes one. */
  | { type: 'select'; markId: string | null; also?: boolean }
  | { type: 'select-many'; markIds: string[] }
  | { type: 'gather'; on: boolean }
  | { type: 'pick-proposal'; id: string | null }
  | { type: 'pick-redline'; id: string | null }
  | { type: 'copied'; marks: Mark[] }
  | { type: 'said'; words: string };

const NOTHING_SELECTED = { selectedIds: [], gathering: false, proposalId: null, redlineId: null };

/** Returns the initial state of the desk of a packet. */
export function openDesk(packet: PacketView, setup: DeskSetup): DeskState {
  const { draft, version } = packet;
  return {
    setup,
    packet,
    documents: [],
    ready: draft.documents.length === 0,
    ...openDraft({ draft, version }),
    view: viewDraft(draft, [], packet.facts, setup.rules),
    where: null,
    pagesShown: 1,
    partyChoice: null,
    tool: 'initials',
    copied: [],
    said: '',
    ...NOTHING_SELECTED,
  };
}

/** Returns the state with `view` computed again from its draft, documents and deal. */
function withView(state: DeskState): DeskState {
  return { ...state, view: viewDraft(state.draft, state.documents, state.packet.facts, state.setup.rules) };
}

function selected(state: DeskState, markId: string | null, also: boolean): DeskState {
  if (markId === null) return { ...state, ...NOTHING_SELECTED };
  const { selectedIds } = state;
  const mark = state.view.marks.find((m) => m.id === markId);
  return {
    ...state,
    // With two pages side by side the page of the mark is the current one.
    where: mark ? { documentId: mark.documentId, page: mark.page } : state.where,
    proposalId: null,
    redlineId: null,
    selectedIds: !also
      ? [markId]
      : selectedIds.includes(markId)
        ? selectedIds.filter((x) => x !== markId)
        : [...selectedIds, markId],
  };
}

function picked(state: DeskState, id: string | null): DeskState {
  const of = state.view.proposals.find((p) => p.id === id);
  return {
    ...state,
    ...NOTHING_SELECTED,
    proposalId: id,
    where: of ? { documentId: of.documentId, page: of.page } : state.where,
    partyChoice: of?.partyId ?? state.partyChoice,
  };
}

/** Returns the state after an action; the given one is unchanged. */
export function reduceDesk(state: DeskState, action: DeskAction): DeskState {
  switch (action.type) {
    case 'packet':
      return action.packet.facts === state.packet.facts
        ? { ...state, packet: action.packet }
        : withView({ ...state, packet: action.packet });
    case 'facts': {
      const { documents, ready } = action;
      if (!isSame(documents, state.documents)) return withView({ ...state, documents, ready });
      return ready === state.ready ? state : { ...state, ready };
    }
    case 'go':
      return { ...state, ...NOTHING_SELECTED, where: action.to };
    case 'make-current':
      return { ...state, where: action.at };
    case 'show-pages':
      return action.pages === state.pagesShown ? state : { ...state, pagesShown: action.pages };
    case 'take-party':
      return { ...state, partyChoice: action.partyId };
    case 'take-tool':
      return { ...state, ...NOTHING_SELECTED, tool: action.tool };
    case 'select':
      return selected(state, action.markId, !!action.also);
    case 'select-many':
      return { ...state, ...NOTHING_SELECTED, gathering: state.gathering, selectedIds: action.markIds };
    case 'gather':
      return { ...state, gathering: action.on };
    case 'pick-proposal':
      return picked(state, action.id);
    case 'pick-redline':
      return { ...state, ...NOTHING_SELECTED, redlineId: action.id };
    case 'copied':
      return { ...state, copied: action.marks };
    case 'said':
      return { ...state, said: action.words };
    default: {
      const next = { ...state, ...reduceDraft(state, action) };
      return next.draft === state.draft ? next : withView(next);
    }
  }
}

/** Returns the current page: the one chosen last, or the first page of the packet. Returns null if it has no page. */
export function positionOf({ where, view }: DeskState): PageAt | null {
  const there = where && view.documents.find((d) => d.id === where.documentId);
  if (there) return { documentId: there.id, page: Math.min(where.page, there.pages.length) };
  const first = view.documents[0];
  return first ? { documentId: first.id, page: 1 } : null;
}

/** Returns the pages shown: the current one, or that and the one beside it. An odd page is on the left. */
export function shownPages(state: DeskState): PageAt[] {
  const at = positionOf(state);
  if (!at) return [];
  const last = state.view.documents.find((d) => d.id === at.documentId)?.pages.length ?? 1;
  if (state.pagesShown === 1) return [at];
  const left = at.page % 2 ? at.page : at.page - 1;
  return [left, left + 1].filter((p) => p <= last).map((page) => ({ documentId: at.documentId, page }));
}

/** Returns the page after or before those shown, across documents; null at the ends. */
export function pageBeside(state: DeskState, by: 1 | -1): PageAt | null {
  const shown = shownPages(state);
  const from = by > 0 ? shown[shown.length - 1] : shown[0];
  if (!from) return null;
  const { documents } = state.view;
  const i = documents.findIndex((d) => d.id === from.documentId);
  const doc = itemAt(documents, i);
  const page = from.page + by;
  if (page >= 1 && page <= doc.pages.length) return { documentId: doc.id, page };
  const next = documents[i + by];
  return next ? { documentId: next.id, page: by > 0 ? 1 : next.pages.length } : null;
}

/** Returns the id of the person whose marks are placed: the chosen one, or the first who signs; null if nobody does. */
export function partyInHand({ draft, partyChoice }: DeskState): string | null {
  const signers = draft.parties.filter(puts);
  return signers.some((p) => p.id === partyChoice) ? partyChoice : (signers[0]?.id ?? null);
}

/** Returns the selected marks, in the order they were selected. */
export const selectedMarks = ({ selectedIds, view }: DeskState): Mark[] =>
  selectedIds.flatMap((id) => view.marks.find((m) => m.id === id) ?? []);

/** Returns whether a touch adds a mark to the selection; false while nothing is selected. */
export const isGathering = (state: DeskState): boolean => state.gathering && selectedMarks(state).length > 0;

/** Returns the selected printed place; null if none is, or it was decided meanwhile. */
export const proposalInHand = ({ proposalId, view }: DeskState): Proposal | null =>
  (proposalId && view.proposals.find((p) => p.id === proposalId && p.state === 'open')) || null;

/** Returns the id of the selected change of the print; null if none is, or it was removed meanwhile. */
export const redlineInHand = ({ redlineId, draft }: DeskState): string | null =>
  draft.redlines.some((r) => r.id === redlineId) ? redlineId : null;

/** Returns those of some marks, places or changes that are on a page. */
export const onPage = <T extends PageAt>(all: readonly T[], { documentId, page }: PageAt): T[] =>
  all.filter((x) => x.page === page && x.documentId === documentId);

/** Returns the number of findings that stop the sending. */
export const countStops = ({ view }: Pick<DeskState, 'view'>): number =>
  view.findings.filter((f) => f.severity === 'stops').length;

/** Returns the number of printed places that stay empty: nobody accepted or dismissed them. */
export const countOpenPlaces = ({ view }: Pick<DeskState, 'view'>): number =>
  view.proposals.filter((p) => p.state === 'open' && !p.stranger && !p.beside).length;
