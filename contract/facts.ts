import type { DocumentFacts } from '@gatepath/core/packet';
import { unpackGrid } from '@gatepath/core/paper';
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
      print: Array.from({ length: p.print.length / 4 }, (_, i) => ({
        x: itemAt(p.print, i * 4),
        y: itemAt(p.print, i * 4 + 1),
        w: itemAt(p.print, i * 4 + 2),
        h: itemAt(p.print, i * 4 + 3),
      })),
    })),
    places: packed.places,
    ...(packed.ownPages === undefined ? {} : { ownPages: packed.ownPages }),
  };
}
