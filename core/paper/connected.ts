/** Connected pieces of a grid of cells: the strokes and blots that ink on a page consists of. */
import { itemAt } from '../sure';

/** Cells that touch each other, with the columns and rows they span. */
export interface ConnectedPiece {
  /** Indices of the cells, row by row: `row * cols + col`. */
  cells: number[];
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/**
 * Returns the connected pieces of the cells that are not 0, in the order of their first cells.
 *
 * @param o  `corners`: whether cells that touch at a corner only are connected (by default they are); `also`: returns cells
 *   that a cell is connected with although they do not touch it
 */
export function connectedPieces(
  grid: Uint8Array,
  cols: number,
  rows: number,
  o: { corners?: boolean; also?: (col: number, row: number) => readonly number[] } = {},
): ConnectedPiece[] {
  const { corners = true, also = () => [] } = o;
  const left = grid.slice();
  const out: ConnectedPiece[] = [];
  for (let start = 0; start < left.length; start++) {
    if (!left[start]) continue;
    const piece: ConnectedPiece = { cells: [start], left: cols, right: 0, top: rows, bottom: 0 };
    left[start] = 0;
    const take = (i: number) => {
      if (!left[i]) return;
      left[i] = 0;
      piece.cells.push(i);
    };
    for (let k = 0; k < piece.cells.length; k++) {
      const i = itemAt(piece.cells, k);
      const [x, y] = [i % cols, Math.floor(i / cols)];
      piece.left = Math.min(piece.left, x);
      piece.right = Math.max(piece.right, x);
      piece.top = Math.min(piece.top, y);
      piece.bottom = Math.max(piece.bottom, y);
      for (let v = Math.max(0, y - 1); v <= Math.min(rows - 1, y + 1); v++)
        for (let u = Math.max(0, x - 1); u <= Math.min(cols - 1, x + 1); u++)
          if (corners || u === x || v === y) take(v * cols + u);
      for (const j of also(x, y)) take(j);
    }
    out.push(piece);
  }
  return out;
}
