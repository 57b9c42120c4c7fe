/** Everything the desk's panels share: the draft, what follows from it, and what is in hand. */
import { useCallback, useMemo, useState } from 'react';
import { useQueries } from '@tanstack/react-query';
import { viewDraft, type DraftView, type Place } from '@gatepath/core/checks';
import {
  clampToPage,
  INITIALS_SIZES,
  MARK_SIZES,
  PAGE_EDGE,
  roundRect,
  type DraftEdit,
  type InitialsRule,
  type Mark,
  type MarkKind,
  type Rect,
} from '@gatepath/core/marks';
import { unpackFacts, type PacketView } from '@gatepath/contract';
import { newId } from '../../api/client';
import { factsQuery } from '../../api/hooks';
import { useDraft, type DraftHandle } from './use-draft';

export interface Desk extends DraftHandle {
  packet: PacketView;
  view: DraftView;
  /** Whether the pages' facts are there; without them nothing can be placed or checked. */
  ready: boolean;
  at: { documentId: string; page: number } | null;
  goTo: (documentId: string, page: number) => void;
  /** Goes a page on or back, over the ends of documents. */
  step: (by: 1 | -1) => void;
  partyId: string | null;
  takeParty: (id: string) => void;
  kind: MarkKind;
  takeKind: (kind: MarkKind) => void;
  selected: Mark | null;
  select: (markId: string | null) => void;
  placeAt: (x: number, y: number) => void;
  moveMark: (mark: Mark, rect: Rect) => void;
  deleteMark: (mark: Mark) => void;
  setRule: (
    documentId: string,
    change: Partial<Pick<InitialsRule, 'partyIds' | 'anchor' | 'except' | 'moved'>>,
  ) => void;
  everyPageLikeThis: () => void;
  goToPlace: (place: Place) => void;
}

export function useDesk(packet: PacketView): Desk {
  const handle = useDraft(packet);
  const { draft, edit } = handle;
  const ids = draft.documents.map((d) => d.id);
  const facts = useQueries({ queries: ids.map((id) => factsQuery(id)) });
  const ready = facts.every((f) => f.isSuccess);
  const stamp = facts.map((f) => f.dataUpdatedAt).join();
  const documents = useMemo(
    () =>
      ids.flatMap((id, i) => {
        const data = facts[i]?.data;
        const doc = packet.documents.find((d) => d.id === id);
        return data && doc ? [unpackFacts(id, doc.name, data)] : [];
      }),
    // The facts themselves are new objects on every render; their times tell whether they changed.
    [ids.join(), stamp, packet.documents],
  );
  const view = useMemo(() => viewDraft(draft, documents), [draft, documents]);

  const [where, setWhere] = useState<{ documentId: string; page: number } | null>(null);
  const at = useMemo(() => {
    const there = where && documents.find((d) => d.id === where.documentId);
    if (there) return { documentId: there.id, page: Math.min(where.page, there.pages.length) };
    const first = documents[0];
    return first ? { documentId: first.id, page: 1 } : null;
  }, [where, documents]);
  const [partyChoice, setParty] = useState<string | null>(null);
  const signers = draft.parties.filter((p) => p.act === 'sign');
  const partyId = signers.some((p) => p.id === partyChoice) ? partyChoice : (signers[0]?.id ?? null);
  const [kind, setKind] = useState<MarkKind>('initials');
  const [selectedId, setSelected] = useState<string | null>(null);
  const selected = view.marks.find((m) => m.id === selectedId) ?? null;

  const goTo = useCallback((documentId: string, page: number) => {
    setWhere({ documentId, page });
    setSelected(null);
  }, []);
  const step = (by: 1 | -1) => {
    if (!at) return;
    const i = documents.findIndex((d) => d.id === at.documentId);
    const doc = documents[i]!;
    const page = at.page + by;
    if (page >= 1 && page <= doc.pages.length) return goTo(doc.id, page);
    const next = documents[i + by];
    if (next) goTo(next.id, by > 0 ? 1 : next.pages.length);
  };

  const ruleFor = (documentId: string): InitialsRule =>
    draft.rules.find((r) => r.documentId === documentId) ?? {
      id: `rule-${documentId}`,
      documentId,
      partyIds: [],
      anchor: { fx: 0, fy: 1 },
      except: [],
      moved: [],
    };
  const putRule = (rule: InitialsRule): DraftEdit => ({ op: 'put', list: 'rules', item: rule });

  const placeAt = (x: number, y: number) => {
    const page = at && documents.find((d) => d.id === at.documentId)?.pages[at.page - 1];
    if (!at || !partyId || !page) return;
    const size = kind === 'initials' ? INITIALS_SIZES[0] : MARK_SIZES[kind];
    const rect = roundRect(clampToPage({ x: x - size.w / 2, y: y - size.h / 2, ...size }, page.width, page.height));
    const id = newId();
    edit([
      {
        op: 'put',
        list: 'marks',
        item: { id, documentId: at.documentId, page: at.page, kind, partyId, rect, required: true },
      },
    ]);
    setSelected(id);
  };

  const moveMark = (mark: Mark, rect: Rect) => {
    const page = documents.find((d) => d.id === mark.documentId)?.pages[mark.page - 1];
    if (!page) return;
    const to = roundRect(clampToPage(rect, page.width, page.height));
    if (!mark.ruleId) {
      edit([{ op: 'put', list: 'marks', item: { ...mark, rect: to } }]);
      return;
    }
    const rule = ruleFor(mark.documentId);
    const others = rule.moved.filter((m) => !(m.page === mark.page && m.partyId === mark.partyId));
    edit([putRule({ ...rule, moved: [...others, { page: mark.page, partyId: mark.partyId, rect: to }] })]);
  };

  const deleteMark = (mark: Mark) => {
    setSelected(null);
    if (!mark.ruleId) {
      edit([{ op: 'drop', list: 'marks', id: mark.id }]);
      return;
    }
    // Taking away a mark of the rule is an exception from it, and the ledger shows it.
    const rule = ruleFor(mark.documentId);
    edit([putRule({ ...rule, except: [...rule.except, { page: mark.page, partyId: mark.partyId }] })]);
  };

  const setRule: Desk['setRule'] = (documentId, change) => {
    const rule = { ...ruleFor(documentId), ...change };
    edit([rule.partyIds.length ? putRule(rule) : { op: 'drop', list: 'rules', id: rule.id }]);
  };

  /** Turns the initials in hand into the document's rule: its party on every page, near this place. */
  const everyPageLikeThis = () => {
    if (!at || !partyId) return;
    const page = documents.find((d) => d.id === at.documentId)?.pages[at.page - 1];
    const rule = ruleFor(at.documentId);
    const like = selected?.kind === 'initials' && !selected.ruleId && selected.partyId === partyId ? selected : null;
    const anchor =
      like && page
        ? {
            fx: Math.min(
              1,
              Math.max(0, (like.rect.x - PAGE_EDGE) / Math.max(1, page.width - 2 * PAGE_EDGE - like.rect.w)),
            ),
            fy: Math.min(
              1,
              Math.max(0, (like.rect.y - PAGE_EDGE) / Math.max(1, page.height - 2 * PAGE_EDGE - like.rect.h)),
            ),
          }
        : rule.anchor;
    const partyIds = [...new Set([...rule.partyIds, partyId])];
    edit([
      ...(like ? [{ op: 'drop' as const, list: 'marks' as const, id: like.id }] : []),
      putRule({ ...rule, anchor, partyIds, except: rule.except.filter((e) => e.partyId !== partyId) }),
    ]);
    setSelected(null);
  };

  const goToPlace = (place: Place) => {
    if (place.documentId) setWhere({ documentId: place.documentId, page: place.page ?? 1 });
    if (place.partyId) setParty(place.partyId);
    setSelected(place.markId ?? null);
  };

  return {
    ...handle,
    packet,
    view,
    ready,
    at,
    goTo,
    step,
    partyId,
    takeParty: setParty,
    kind,
    takeKind: setKind,
    selected,
    select: setSelected,
    placeAt,
    moveMark,
    deleteMark,
    setRule,
    everyPageLikeThis,
    goToPlace,
  };
}
