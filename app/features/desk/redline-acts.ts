/** The sender's changes of the print: striking words, inserting words. */
import { type DraftEdit, type Redline, shiftStrike, wordsBetween } from '@gatepath/core/packet';
import { type Rect, clampToPage, roundRect } from '@gatepath/core/paper';
import { newId } from '../../api/client';
import type { ActsOn } from './acts-on';
import { TEXT } from './words';

/** Maximum number of letters of struck text that is stored. */
const MOST_STRUCK = 2000;

const put = (item: Redline): DraftEdit => ({ op: 'put', list: 'redlines', item });

export function redlineActs(b: ActsOn) {
  const { draft, edit, at } = b;
  const pageAt = (documentId: string, page: number) =>
    b.view.documents.find((d) => d.id === documentId)?.pages[page - 1];
  const here = at ? pageAt(at.documentId, at.page) : undefined;
  const struck = (words: { rects: Rect[]; text: string }) => ({
    rects: words.rects.map(roundRect),
    text: words.text.slice(0, MOST_STRUCK),
    moved: [],
  });
  /** Makes a new change and selects it. */
  const begin = (redline: Omit<Redline, 'id'>) => {
    const id = newId();
    edit([put({ id, ...redline })]);
    b.setSelected([]);
    b.setRedline(id);
  };
  return {
    /** Strikes the words from one point to another. */
    strike: (from: { x: number; y: number }, to: { x: number; y: number }) => {
      if (!at || !here) return;
      const words = wordsBetween(here, from, to);
      if (!words) return b.setSaid(TEXT.noPrintedWordsAreThere);
      begin({ ...at, kind: 'strike', ...struck(words) });
      b.setSaid(TEXT.struckOf(words.text));
    },
    insert: (rect: Rect, text: string) => {
      if (!at || !here) return;
      const rects = [roundRect(clampToPage(rect, here.width, here.height))];
      begin({ ...at, kind: 'insert', rects, text, moved: [] });
    },
    removeRedline: (id: string) => {
      edit([{ op: 'drop', list: 'redlines', id }]);
      b.setRedline(null);
      b.setSaid(TEXT.theChangeAndItsInitials);
    },
    /** Moves the ends of a strike by words, for people who do not draw. */
    moveStrike: (id: string, by: { first: number; last: number }) => {
      const was = draft.redlines.find((r) => r.id === id);
      const page = was && pageAt(was.documentId, was.page);
      const words = was && page ? shiftStrike(page, was, by) : null;
      if (!was || !words) return;
      edit([put({ ...was, ...struck(words) })]);
      b.setSaid(TEXT.struckOf(words.text));
    },
    changeRedline: (id: string, more: { text?: string; rect?: Rect }) => {
      const was = draft.redlines.find((r) => r.id === id);
      if (!was) return;
      // If the words move, initials that were moved by hand no longer have a place of their own.
      const place = more.rect ? { rects: [roundRect(more.rect)], moved: [] } : {};
      edit([put({ ...was, text: more.text ?? was.text, ...place })]);
    },
  };
}
