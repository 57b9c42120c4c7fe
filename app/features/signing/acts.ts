/**
 * Acts of a client: what is done on the page at once, is kept on the device, and is sent to the
 * server in order. Each has an id of its own, so that however often it arrives it counts once.
 */
import type { SigningView } from '@gatepath/contract';
import { checkValue, takesHand } from '@gatepath/core/marks';
import { showHand, type Hand } from '@gatepath/core/routing';
import { ENGLISH } from '@gatepath/core/words';
import { rulesOf } from './own-rules';

export type Act = { id: string } & (
  | { type: 'agree'; agreement: string }
  | { type: 'hand'; hand: Hand; keep: boolean }
  | { type: 'fill'; markId: string; text?: string }
  | { type: 'finish' }
);

type Fill = SigningView['fills'][number];

/** The view as it will be once the server has taken an act. What cannot be taken changes nothing. */
export function applyAct(view: SigningView, act: Act): SigningView {
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
  if (takesHand(mark.kind)) {
    if (!view.hand || mark.done) return undefined;
    return showHand(view.hand, mark.kind === 'initials' ? 'initials' : 'signature', view.me.name);
  }
  if (!text.trim()) return mark.done ? null : undefined;
  if (mark.kind === 'tick' || mark.kind === 'choice') return { form: 'tick' };
  const checked = checkValue(rulesOf(mark), text, ENGLISH);
  return checked.ok ? { form: 'text', text: checked.value } : undefined;
}

/** Where acts wait on this device. The link's secret is not written down: its beginning tells packets apart. */
export function storageKey(token: string): string {
  return `gatepath.acts.${token.slice(0, 10)}`;
}

export function readActs(token: string, storage: Pick<Storage, 'getItem'>): Act[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(storageKey(token)) ?? '[]');
    return Array.isArray(kept) ? (kept as Act[]) : [];
  } catch {
    return [];
  }
}

export function writeActs(token: string, acts: Act[], storage: Pick<Storage, 'setItem' | 'removeItem'>): void {
  try {
    if (acts.length) storage.setItem(storageKey(token), JSON.stringify(acts));
    else storage.removeItem(storageKey(token));
  } catch {
    // A browser that keeps nothing still sends at once; only a closed page would lose what waits.
  }
}
