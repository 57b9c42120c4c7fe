import type { DocumentFacts } from '@gatepath/core/packet';
import { unpackGrid, type Rect } from '@gatepath/core/paper';
import type { PackedFacts } from './views';
import { itemAt } from '@gatepath/core/sure';

/** Returns the facts of a document's pages, unpacked from the form in which they are sent and stored. */
export function unpackFacts(id: string, name: string, packed: PackedFacts): DocumentFacts {
  return {
    id,
    name,
    pages: packed.pages.map((p) => ({
      width: p.width,
      height: p.height,
      words: p.words ? p.words.split(' ') : [],
      ink: unpackGrid(p.ink, p.cols, p.rows, packed.cell),
      print: rectsOf(p.print),
      ...(p.filled ? { filled: rectsOf(p.filled) } : {}),
    })),
    places: packed.places,
    ...(packed.ownPages === undefined ? {} : { ownPages: packed.ownPages }),
  };
}

/** Returns rectangles from flat x, y, w, h numbers. */
const rectsOf = (flat: readonly number[]): Rect[] =>
  Array.from({ length: flat.length / 4 }, (_, i) => ({
    x: itemAt(flat, i * 4),
    y: itemAt(flat, i * 4 + 1),
    w: itemAt(flat, i * 4 + 2),
    h: itemAt(flat, i * 4 + 3),
  }));
