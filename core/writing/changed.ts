/** What is different between two texts of a written form, in words. */
import { count } from '../text/names';
import type { Block, Inline, Written } from './types';

/** Returns the number of lines that only one text has, and the number that only the other has. */
export function textChanges(before: Written | null, after: Written | null): string[] {
  if (!before || !after) return [];
  const [was, is] = [linesOf(before), linesOf(after)];
  const more = beyond(is, was);
  const less = beyond(was, is);
  if (!more && !less)
    return JSON.stringify(before) === JSON.stringify(after) ? [] : ['The text is laid out differently.'];
  return [
    ...(more ? [`${count(more, 'line')} of the text ${more === 1 ? 'is' : 'are'} new.`] : []),
    ...(less ? [`${count(less, 'line')} of it before ${less === 1 ? 'is' : 'are'} gone.`] : []),
  ];
}

function beyond(some: readonly string[], others: readonly string[]): number {
  const left = new Map<string, number>();
  for (const line of others) left.set(line, (left.get(line) ?? 0) + 1);
  let n = 0;
  for (const line of some) {
    const there = left.get(line) ?? 0;
    if (there) left.set(line, there - 1);
    else n++;
  }
  return n;
}

/** Returns each heading, paragraph, condition and signature block as one line. */
function linesOf(text: Written): string[] {
  const lines: string[] = [];
  const walk = (b: Block) => {
    switch (b.type) {
      case 'heading':
      case 'paragraph':
        lines.push(b.content.map(inline).join(''));
        return;
      case 'pageBreak':
        return;
      case 'signatures':
        lines.push(JSON.stringify(b.attrs));
        return;
      case 'when':
      case 'each':
        lines.push(JSON.stringify(b.attrs));
        b.content.forEach(walk);
        return;
      case 'table':
        for (const row of b.content) for (const cell of row.content) cell.content.forEach(walk);
        return;
      default:
        for (const item of b.content) item.content.forEach(walk);
    }
  };
  text.doc.content.forEach(walk);
  return lines.filter(Boolean);
}

const inline = (r: Inline) => (r.type === 'text' ? r.text : r.type === 'hardBreak' ? '\n' : JSON.stringify(r.attrs));
