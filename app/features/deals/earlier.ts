/** Finding the paper of which another is a later version. */
import type { DocumentView } from '@gatepath/contract';

export interface Earlier {
  doc: DocumentView;
  /** Whether the later one replaces it; otherwise it only has the same type. */
  replaced: boolean;
}

/** Types that do not say what a paper is. */
const ANY = ['other', 'picture'];

/** Returns the version before a paper: the one it replaces, otherwise the newest older one of the same type. */
export function earlierOf(doc: DocumentView, all: readonly DocumentView[]): Earlier | null {
  if (doc.status !== 'ready') return null;
  const ready = all.filter((d) => d.status === 'ready' && d.id !== doc.id);
  const newest = (list: DocumentView[]) => [...list].sort((a, b) => a.createdAt.localeCompare(b.createdAt)).pop();
  // Pages turned or joined here are not a version that came from anybody.
  const gone = newest(ready.filter((d) => d.replacedBy === doc.id && !doc.madeFrom.includes(d.id)));
  if (gone) return { doc: gone, replaced: true };
  if (ANY.includes(doc.type) || doc.unsigned) return null;
  const alike = newest(
    ready.filter((d) => !d.replacedBy && !d.unsigned && d.type === doc.type && d.createdAt < doc.createdAt),
  );
  return alike ? { doc: alike, replaced: false } : null;
}
