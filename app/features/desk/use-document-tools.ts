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
} from '@gatepath/core/packet';
import type { ComposeBody, DocumentPatch, DocumentView, PacketView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import { keys } from '../../api/keys';
import { call, uploadFile } from '../../api/client';
import { factsQuery } from '../../api/hooks';
import type { Desk } from './use-desk';
import { TEXT } from './words';

const PATIENCE = 90_000;

// eslint-disable-next-line max-lines-per-function -- the acts on documents share whether one is under way and what went wrong
export function useDocumentTools(desk: Desk) {
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const { dealId, id: packetId } = desk.packet;

  /** Waits until a document's pages are read, and adds it to the desk. */
  const known = async (doc: DocumentView): Promise<DocumentView> => {
    let now = doc;
    const until = Date.now() + PATIENCE;
    while (now.status === 'reading') {
      if (Date.now() > until) throw new Error(TEXT.isStillBeingReadTry(doc.name));
      await new Promise((r) => setTimeout(r, 250));
      const deal = await call('deal', { params: { dealId } });
      now = deal.documents.find((d) => d.id === doc.id) ?? now;
    }
    if (now.status === 'failed') throw new Error(now.problem ?? TEXT.cannotBeRead(doc.name));
    client.setQueryData<PacketView>(keys.packet(packetId), (was) =>
      was ? { ...was, documents: [...was.documents.filter((d) => d.id !== now.id), now] } : was,
    );
    void client.invalidateQueries({ queryKey: keys.deal(dealId) });
    return now;
  };
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

  const compose = (body: Pick<ComposeBody, 'name' | 'parts'> & { replaces?: string[] }) =>
    trying(async () =>
      known(await call('composeDocument', { params: { dealId }, body: { replaces: [], further: [], ...body } })),
    );
  const swap = (moves: PageMove[], into: string[]) => desk.edit(editsToSwapPages(desk.draft, moves, into));

  /** Replaces a document's file; pages that moved are found by their words. */
  const replace = (documentId: string, file: File) =>
    trying(async () => {
      const old = desk.view.documents.find((d) => d.id === documentId);
      if (!old) return null;
      const made = await known(await uploadFile('addDocument', file, { params: { dealId } }));
      const packed = await client.fetchQuery(factsQuery(made.id));
      const to = matchPagesOf(old, unpackFacts(made.id, made.name, packed));
      swap(
        old.pages.map((size, i): PageMove => {
          const page = to[i] ?? null;
          return {
            from: { documentId, page: i + 1 },
            to: page === null ? null : { documentId: made.id, page: page + 1, turn: 0 },
            size,
          };
        }),
        [made.id],
      );
      const name = desk.packet.documents.find((d) => d.id === documentId)?.name;
      await change(documentId, { replacedBy: made.id });
      if (name) await change(made.id, { name });
      return { id: made.id, kept: to.filter((x) => x !== null).length, of: to.length };
    });

  /** Corrects a document's name or type. */
  const change = async (documentId: string, body: DocumentPatch) => {
    const now = await call('setDocument', { params: { documentId }, body });
    client.setQueryData<PacketView>(keys.packet(packetId), (was) =>
      was ? { ...was, documents: was.documents.map((d) => (d.id === now.id ? now : d)) } : was,
    );
    void client.invalidateQueries({ queryKey: keys.deal(dealId) });
    return now;
  };

  /** Makes one document of several consecutive ones. */
  const join = (ids: string[], name: string) =>
    trying(async () => {
      const docs = ids.flatMap((id) => desk.view.documents.find((d) => d.id === id) ?? []);
      const parts = docs.flatMap((d) => d.pages.map((_, i) => ({ documentId: d.id, page: i + 1, turn: 0 as const })));
      const made = await known(
        await call('composeDocument', { params: { dealId }, body: { name, parts, further: [], replaces: ids } }),
      );
      let next = 0;
      swap(
        docs.flatMap((d) =>
          d.pages.map((size, i): PageMove => ({
            from: { documentId: d.id, page: i + 1 },
            to: { documentId: made.id, page: ++next, turn: 0 },
            size,
          })),
        ),
        [made.id],
      );
      return made;
    });

  /** Adds signature pages to a document for people it has no line for, with their places. */
  const addFurther = (documentId: string, people: PacketParty[]) =>
    trying(async () => {
      const old = desk.view.documents.find((d) => d.id === documentId);
      if (!old) return null;
      const body = {
        name: desk.packet.documents.find((d) => d.id === documentId)?.name ?? old.name,
        parts: old.pages.map((_, i) => ({ documentId, page: i + 1, turn: 0 as const })),
        further: people.map(furtherName),
        replaces: [documentId],
      };
      const made = await known(await call('composeDocument', { params: { dealId }, body }));
      const facts = unpackFacts(made.id, made.name, await client.fetchQuery(factsQuery(made.id)));
      const moves = old.pages.map((size, i): PageMove => ({
        from: { documentId, page: i + 1 },
        to: { documentId: made.id, page: i + 1, turn: 0 },
        size,
      }));
      const swapped = editsToSwapPages(desk.draft, moves, [made.id]);
      const draft = applyEdits(desk.draft, swapped);
      const mine = furtherPlaces(proposalsOf(draft, [facts]), made.id, old.pages.length);
      desk.edit([...swapped, ...acceptEdits(mine, draft.parties)]);
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
