/** The tags a text uses. */
import { EACH_NAME } from './tags';
import type { Block, Inline, Written } from './types';

/** Returns the keys of a text's tags, those of its conditions included, in order. */
export function keysIn(text: Written): string[] {
  const keys = new Set<string>();
  const runs = (list: readonly Inline[]) => {
    for (const r of list) if (r.type === 'tag' && r.attrs.key !== EACH_NAME) keys.add(r.attrs.key);
  };
  const blocks = (list: readonly Block[]): void => {
    for (const b of list) {
      switch (b.type) {
        case 'heading':
        case 'paragraph':
          runs(b.content);
          break;
        case 'bulletList':
        case 'orderedList':
          for (const item of b.content) blocks(item.content);
          break;
        case 'table':
          for (const row of b.content) for (const cell of row.content) blocks(cell.content);
          break;
        case 'when':
          keys.add(b.attrs.key);
          blocks(b.content);
          break;
        case 'each':
          blocks(b.content);
          break;
        case 'pageBreak':
        case 'signatures':
          break;
      }
    }
  };
  blocks(text.doc.content);
  return [...keys];
}
