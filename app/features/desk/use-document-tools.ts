/** Composing documents and replacing them on the desk; each replacement is one undoable step. */
import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import {
  acceptEdits,
  applyEdits,
  editsToSwapPages,
  furtherName,
  furtherPlaces,
  matchPagesOf,
  proposalsOf,
  type PacketParty,
  type PageMove,
  type DocumentFacts,
} from '@gatepath/core/packet';
import type { ComposeBody, DocumentPatch, DocumentView, PacketView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import { keys } from '../../api/keys';
import { call, uploadFile } from '../../api/client';
import { factsQuery } from '../../api/hooks';
import { useDeskStore } from './use-desk';
import { TEXT } from './words';

const PATIENCE = 90_000;

/** Runs one act on documents at a time, and keeps what went wrong. */
function useTrying() {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const trying = async <T>(work: () => Promise<T>): Promise<T | null> => {
    setBusy(true);
    setError(null);
    try {
      return await work();
    } catch (e) {
      setError(e instanceof Error ? e : new Error(String(e)));
      return null;
    } finally {
      setBusy(false);
    }
  };
  return { busy, error, trying };
}

/** Returns the mutations that change documents of the desk on the server, and what is cached of them. */
function useDeskDocuments(dealId: string, packetId: string) {
  const client = useQueryClient();
  const renewed = (next: (documents: DocumentView[]) => DocumentView[]) => {
    client.setQueryData<PacketView>(keys.packet(packetId), (was) =>
      was ? { ...was, documents: next(was.documents) } : was,
    );
    void client.invalidateQueries({ queryKey: keys.deal(dealId) });
  };
  return {
    /** Waits until a document's pages are read, and adds it to the desk. @throws Error if they cannot be */
    async known(doc: DocumentView): Promise<DocumentView> {
      let now = doc;
      const until = Date.now() + PATIENCE;
      while (now.status === 'reading') {
        if (Date.now() > until) throw new Error(TEXT.isStillBeingReadTry(doc.name));
        await new Promise((r) => setTimeout(r, 250));
        const deal = await call('deal', { params: { dealId } });
        now = deal.documents.find((d) => d.id === doc.id) ?? now;
      }
      if (now.status === 'failed') throw new Error(now.problem ?? TEXT.cannotBeRead(doc.name));
      renewed((all) => [...all.filter((d) => d.id !== now.id), now]);
      return now;
    },
    /** Corrects a document's name or type. */
    async change(documentId: string, body: DocumentPatch) {
      const now = await call('setDocument', { params: { documentId }, body });
      renewed((all) => all.map((d) => (d.id === now.id ? now : d)));
      return now;
    },
    /** Returns the facts of a document's pages. */
    async facts({ id, name }: DocumentView) {
      return unpackFacts(id, name, await client.fetchQuery(factsQuery(id)));
    },
    compose: (body: ComposeBody) => call('composeDocument', { params: { dealId }, body }),
    upload: (file: File) => uploadFile('addDocument', file, { params: { dealId } }),
  };
}

/** Returns all pages of a document, as parts of a new one. */
const partsOf = (d: DocumentFacts) => d.pages.map((_, i) => ({ documentId: d.id, page: i + 1, turn: 0 as const }));

/**
 * Returns where the pages of a document are in a new one.
 *
 * @param to  the index of the new page of an old one; null if it is gone
 */
const movesOf = (old: DocumentFacts, madeId: string, to: (index: number) => number | null): PageMove[] =>
  old.pages.map((size, i) => {
    const index = to(i);
    return {
      from: { documentId: old.id, page: i + 1 },
      to: index === null ? null : { documentId: madeId, page: index + 1, turn: 0 },
      size,
    };
  });

// eslint-disable-next-line max-lines-per-function -- one act after another; they share the documents and whether one is under way
export function useDocumentTools() {
  const { store, acts } = useDeskStore();
  const { packet } = store.getState();
  const { busy, error, trying } = useTrying();
  const documents = useDeskDocuments(packet.dealId, packet.id);
  const { known, change } = documents;
  const viewed = (id: string) => store.getState().view.documents.find((d) => d.id === id);
  const nameOf = (id: string) => store.getState().packet.documents.find((d) => d.id === id)?.name;

  const compose = (body: Pick<ComposeBody, 'name' | 'parts'> & { replaces?: string[] }) =>
    trying(async () => known(await documents.compose({ replaces: [], further: [], ...body })));
  const swap = (moves: PageMove[], into: string[]) => acts.edit(editsToSwapPages(store.getState().draft, moves, into));

  /** Replaces a document's file; pages that moved are found by their words. */
  const replace = (documentId: string, file: File) =>
    trying(async () => {
      const old = viewed(documentId);
      if (!old) return null;
      const made = await known(await documents.upload(file));
      const to = matchPagesOf(old, await documents.facts(made));
      swap(
        movesOf(old, made.id, (i) => to[i] ?? null),
        [made.id],
      );
      const name = nameOf(documentId);
      await change(documentId, { replacedBy: made.id });
      if (name) await change(made.id, { name });
      return { id: made.id, kept: to.filter((x) => x !== null).length, of: to.length };
    });

  /** Makes one document of several consecutive ones. */
  const join = (ids: string[], name: string) =>
    trying(async () => {
      const docs = ids.flatMap((id) => viewed(id) ?? []);
      const parts = docs.flatMap(partsOf);
      const made = await known(await documents.compose({ name, parts, further: [], replaces: ids }));
      let next = 0;
      swap(
        docs.flatMap((d) => movesOf(d, made.id, () => next++)),
        [made.id],
      );
      return made;
    });

  /** Adds signature pages to a document for people it has no line for, with their places. */
  const addFurther = (documentId: string, people: PacketParty[]) =>
    trying(async () => {
      const old = viewed(documentId);
      if (!old) return null;
      const further = people.map(furtherName);
      const body = { name: nameOf(documentId) ?? old.name, parts: partsOf(old), further, replaces: [documentId] };
      const made = await known(await documents.compose(body));
      const now = store.getState().draft;
      const swapped = editsToSwapPages(
        now,
        movesOf(old, made.id, (i) => i),
        [made.id],
      );
      const draft = applyEdits(now, swapped);
      const mine = furtherPlaces(proposalsOf(draft, [await documents.facts(made)]), made.id, old.pages.length);
      acts.edit([...swapped, ...acceptEdits(mine, draft.parties)]);
      return made;
    });

  return {
    busy,
    error,
    compose,
    swap,
    replace,
    /** Waits until a paper that was just added is read. */
    settle: (doc: DocumentView) => trying(() => known(doc)),
    change: (id: string, body: DocumentPatch) => trying(() => change(id, body)),
    join,
    addFurther,
  };
}
