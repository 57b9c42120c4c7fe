/**
 * Acts of a client: what is done on the page at once, is kept on the device, and is sent to the
 * server in order. Each has an id of its own, so that however often it arrives it counts once.
 */
import type { ActAnswer, SigningView } from '@gatepath/contract';
import { validateValue, filledHow, showHand } from '@gatepath/core/filling';
import type { Hand } from '@gatepath/core/packet';
import { ENGLISH } from '@gatepath/core/words';
import { rulesOf } from './own-rules';

export type PendingAct = { id: string } & (
  | { type: 'agree'; agreement: string }
  | { type: 'hand'; hand: Hand; keep: boolean }
  | { type: 'fill'; markId: string; text?: string }
  | { type: 'finish' }
);

type Fill = SigningView['fills'][number];

/** The view as it will be once the server has taken an act. What cannot be taken changes nothing. */
export function showAct(view: SigningView, act: PendingAct): SigningView {
  if (!view.myTurn) return view;
  switch (act.type) {
    case 'agree':
      return { ...view, agreed: true, mine: 'in_progress' };
    case 'hand':
      return { ...view, hand: act.hand };
    case 'finish':
      return { ...view, mine: 'done', myTurn: false };
    case 'fill':
      return fillLocally(view, act.markId, act.text);
  }
}

function fillLocally(view: SigningView, markId: string, text: string | undefined): SigningView {
  const mark = view.marks.find((m) => m.id === markId);
  if (!mark || mark.automatic) return view;
  const shows = showsOf(view, mark, text);
  if (shows === undefined) return view;
  const group = mark.group && shows ? view.marks.filter((m) => m.group === mark.group).map((m) => m.id) : [];
  const gone = new Set([markId, ...group]);
  const fill: Fill | null = shows && {
    markId,
    documentId: mark.documentId,
    page: mark.page,
    rect: mark.rect,
    kind: mark.kind,
    partyId: view.me.id,
    ink: view.me.ink,
    ...(mark.several ? { lines: 'several' as const } : {}),
    ...(mark.kind === 'signature' && view.me.capacity ? { under: view.me.capacity } : {}),
    shows,
  };
  return {
    ...view,
    mine: 'in_progress',
    somethingSigned: view.somethingSigned || !!fill,
    marks: view.marks.map((m) => (gone.has(m.id) ? { ...m, done: m.id === markId && !!fill } : m)),
    fills: [...view.fills.filter((f) => !gone.has(f.markId)), ...(fill ? [fill] : [])],
  };
}

/** What a mark will show; null when it is taken back, undefined when nothing comes of it. */
function showsOf(view: SigningView, mark: SigningView['marks'][number], text = ''): Fill['shows'] | null | undefined {
  const how = filledHow(mark.kind);
  if (how.by === 'hand') {
    if (!view.hand || mark.done) return undefined;
    return showHand(view.hand, how.as, view.me.name);
  }
  if (!text.trim()) return mark.done ? null : undefined;
  if (how.by === 'touch') return { form: 'tick' };
  const checked = validateValue(rulesOf(mark), text, ENGLISH);
  return checked.ok ? { form: 'text', text: checked.value } : undefined;
}

/** The view after the server's answer to an act: all of it, or what changed in the one that is shown. */
export function withAnswer(view: SigningView | undefined, answer: ActAnswer): SigningView | null {
  if (!('patch' in answer)) return answer;
  const { patch } = answer;
  // A patch is for the view it was asked from; over any other, all of it is asked for anew.
  if (!view || view.seq !== patch.since) return null;
  const done = new Map(patch.marks.map((m) => [m.id, m.done]));
  return {
    ...view,
    seq: patch.seq,
    mine: patch.mine,
    somethingSigned: patch.somethingSigned,
    mayHandOver: patch.mayHandOver,
    marks: view.marks.map((m) => (done.has(m.id) ? { ...m, done: done.get(m.id)! } : m)),
    fills: [...view.fills.filter((f) => !done.has(f.markId)), ...patch.fills],
    changes: view.changes.map((c, i) => ({ ...c, open: patch.changesOpen[i] ?? c.open })),
  };
}

/** Where acts wait on this device. The link's secret is not written down: its beginning tells packets apart. */
export function storageKey(token: string): string {
  return `gatepath.acts.${token.slice(0, 10)}`;
}

/** Where acts lie that the server would not take. */
export const asideKey = (token: string) => `gatepath.aside.${token.slice(0, 10)}`;

function read(key: string, storage: Pick<Storage, 'getItem'>): PendingAct[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? kept : [];
  } catch {
    return [];
  }
}

function write(key: string, acts: PendingAct[], storage: Pick<Storage, 'setItem' | 'removeItem'>): void {
  try {
    if (acts.length) storage.setItem(key, JSON.stringify(acts));
    else storage.removeItem(key);
  } catch {
    // A browser that keeps nothing still sends at once; only a closed page would lose what waits.
  }
}

type ActStorage = Pick<Storage, 'setItem' | 'removeItem'>;
/** Acts that wait on this device. */
export const readActs = (token: string, storage: Pick<Storage, 'getItem'>) => read(storageKey(token), storage);
/** Keeps the acts that wait on this device. */
export const writeActs = (token: string, acts: PendingAct[], storage: ActStorage) =>
  write(storageKey(token), acts, storage);
/** Acts the server would not take, kept on this device. */
export const readAside = (token: string, storage: Pick<Storage, 'getItem'>) => read(asideKey(token), storage);
/** Keeps the acts that the server would not take. */
export const writeAside = (token: string, acts: PendingAct[], storage: ActStorage) =>
  write(asideKey(token), acts, storage);
