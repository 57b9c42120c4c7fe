/** The desk outside of React: its state, the acts that change it, and what sends its edits. */
import type { QueryClient } from '@tanstack/react-query';
import { createStore, type StoreApi } from 'zustand';
import { editsToFix, viewDraft, type FindingGroup, type FindingPlace } from '@gatepath/core/checks';
import { editsToInitialAll, type DraftEdit, type InitialsRule } from '@gatepath/core/packet';
import { keysOf } from '@gatepath/core/sure';
import type { PacketView } from '@gatepath/contract';
import type { DeskSetup, Tool } from './desk-setup';
import {
  openDesk,
  pageBeside,
  partyInHand,
  positionOf,
  reduceDesk,
  selectedMarks,
  type DeskAction,
  type DeskState,
  type PageAt,
} from './desk-state';
import { DraftSync } from './draft-sync';
import { markActs, type MarkActs } from './mark-acts';

/** Everything that can be done at the desk. None of it changes from one render to the next. */
export interface DeskActs extends MarkActs {
  edit: (edits: DraftEdit[]) => void;
  undo: () => void;
  redo: () => void;
  goTo: (documentId: string, page: number) => void;
  /** Makes a page the current one and keeps what is selected. */
  makeCurrent: (at: PageAt) => void;
  /** Goes to the page after or before those shown, across documents. */
  step: (by: 1 | -1) => void;
  showPages: (pages: 1 | 2) => void;
  takeParty: (id: string) => void;
  takeTool: (tool: Tool) => void;
  /** Decides whether a touch adds a mark to the selection instead of selecting it alone. */
  gather: (on: boolean) => void;
  /** Selects one mark, or none; with `also`, adds or removes one. */
  select: (markId: string | null, also?: boolean) => void;
  selectMany: (markIds: string[]) => void;
  pickProposal: (id: string | null) => void;
  pickRedline: (id: string | null) => void;
  setRule: (
    documentId: string,
    change: Partial<Pick<InitialsRule, 'partyIds' | 'anchor' | 'except' | 'moved'>>,
  ) => void;
  /** Turns the rule on or off by which a person initials every page of every document. */
  initialAll: (partyId: string, on: boolean) => void;
  goToPlace: (place: FindingPlace) => void;
  /** Fixes every finding of a kind, in one act. */
  fix: (group: FindingGroup) => void;
}

/** Returns functions that stay the same and call, each time, those that `make` returns for the current state. */
function latest<T extends Record<string, (...args: never[]) => unknown>>(make: () => T): T {
  const bound = keysOf(make()).map((key) => [key, (...args: never[]) => make()[key]?.(...args)] as const);
  return Object.fromEntries(bound) as T;
}

export class DeskStore {
  readonly store: StoreApi<DeskState>;
  readonly acts: DeskActs;
  private readonly sync: DraftSync;

  constructor(packet: PacketView, setup: DeskSetup, client: QueryClient) {
    this.store = createStore(() => openDesk(packet, setup));
    const { getState } = this.store;
    this.sync = new DraftSync({
      packetId: packet.id,
      home: setup.home,
      client,
      state: getState,
      dispatch: this.dispatch,
    });
    this.acts = { ...this.moves(), ...latest(() => markActs(this.actsOn())) };
  }

  readonly dispatch = (action: DeskAction): void => this.store.setState((was) => reduceDesk(was, action));

  /** Takes over a packet that others changed. */
  takePacket(packet: PacketView): void {
    if (packet !== this.store.getState().packet) this.dispatch({ type: 'packet', packet });
    this.sync.take(packet);
  }

  /** Begins to send edits. @returns a function that ends it */
  start(): () => void {
    return this.sync.start();
  }

  private actsOn() {
    const { dispatch } = this;
    const state = this.store.getState();
    const { draft, view, tool, copied } = state;
    return {
      draft,
      view,
      tool,
      copied,
      at: positionOf(state),
      partyId: partyInHand(state),
      selected: selectedMarks(state),
      edit: this.sync.edit,
      setCopied: (marks: DeskState['copied']) => dispatch({ type: 'copied', marks }),
      setSelected: (markIds: string[]) => dispatch({ type: 'select-many', markIds }),
      setRedline: (id: string | null) => dispatch({ type: 'pick-redline', id }),
      setSaid: (words: string) => dispatch({ type: 'said', words }),
    };
  }

  private moves(): Omit<DeskActs, keyof MarkActs> {
    const { dispatch } = this;
    const { getState } = this.store;
    const { edit, undo, redo } = this.sync;
    return {
      edit,
      undo,
      redo,
      goTo: (documentId, page) => dispatch({ type: 'go', to: { documentId, page } }),
      makeCurrent: (at) => dispatch({ type: 'make-current', at }),
      step: (by) => {
        const to = pageBeside(getState(), by);
        if (to) dispatch({ type: 'go', to });
      },
      showPages: (pages) => dispatch({ type: 'show-pages', pages }),
      takeParty: (partyId) => dispatch({ type: 'take-party', partyId }),
      takeTool: (tool) => dispatch({ type: 'take-tool', tool }),
      gather: (on) => dispatch({ type: 'gather', on }),
      select: (markId, also) => dispatch({ type: 'select', markId, ...(also === undefined ? {} : { also }) }),
      selectMany: (markIds) => dispatch({ type: 'select-many', markIds }),
      pickProposal: (id) => dispatch({ type: 'pick-proposal', id }),
      pickRedline: (id) => dispatch({ type: 'pick-redline', id }),
      setRule: (documentId, change) => {
        const rule = { ...this.acts.ruleFor(documentId), ...change };
        const item = { list: 'rules' as const };
        edit([rule.partyIds.length ? { op: 'put', ...item, item: rule } : { op: 'drop', ...item, id: rule.id }]);
      },
      initialAll: (partyId, on) => edit(editsToInitialAll(getState().draft, partyId, on)),
      goToPlace: ({ documentId, page, partyId, markId }) => {
        if (documentId) dispatch({ type: 'go', to: { documentId, page: page ?? 1 } });
        dispatch({ type: 'select', markId: markId ?? null });
        if (partyId) dispatch({ type: 'take-party', partyId });
      },
      fix: (group) => {
        const { draft, documents, packet, setup } = getState();
        edit(editsToFix(draft, (now) => viewDraft(now, documents, packet.facts, setup.rules).findings, group));
      },
    };
  }
}
