/**
 * Acts of a client: shown on the page at once, saved on the device, and sent to the server in order. Each has an id,
 * so that it counts once however often it arrives.
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

/** Returns the view as it will be once the server has accepted an act. What cannot be accepted changes nothing. */
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

/** Returns what a mark will show; null if it is cleared, undefined if nothing changes. */
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

/** Returns the view after the server's answer to an act: all of it, or only what changed. */
export function withAnswer(view: SigningView | undefined, answer: ActAnswer): SigningView | null {
  if (!('patch' in answer)) return answer;
  const { patch } = answer;
  // A patch applies to the view it was requested from; for any other view all of it is refetched.
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

/** Returns where acts wait on this device. The link's secret is not stored: its beginning distinguishes packets. */
export function storageKey(token: string): string {
  return `gatepath.acts.${token.slice(0, 10)}`;
}

/** Returns where acts are stored that the server refused. */
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
    // A browser that stores nothing still sends at once; only closing the page would lose what waits.
  }
}

type ActStorage = Pick<Storage, 'setItem' | 'removeItem'>;
/** Returns the acts that wait on this device. */
export const readActs = (token: string, storage: Pick<Storage, 'getItem'>) => read(storageKey(token), storage);
/** Saves the acts that wait on this device. */
export const writeActs = (token: string, acts: PendingAct[], storage: ActStorage) =>
  write(storageKey(token), acts, storage);
/** Returns the acts that the server refused, as stored on this device. */
export const readAside = (token: string, storage: Pick<Storage, 'getItem'>) => read(asideKey(token), storage);
/** Saves the acts that the server refused. */
export const writeAside = (token: string, acts: PendingAct[], storage: ActStorage) =>
  write(asideKey(token), acts, storage);
