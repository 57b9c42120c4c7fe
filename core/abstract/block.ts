/** Signature blocks: whose a line, a day or a name beside a signature is. */
import { sideOfRole } from '../reading/role-sides';
import { roleOfWords, type Sense } from '../reading/words';
import type { Side } from '../text/sides';
import { textOf, type Piece } from './pieces';

/** How far above and below a signature its role may stand, in points. */
const NEAR = 64;

/**
 * Returns the role of the signature block that a piece stands in: named on its row to the left of it, otherwise in the
 * nearest row; null if no row near it names one.
 */
export function roleNear(
  pieces: readonly Piece[],
  at: number,
  sense: Sense,
): { side: Side; ordinal: number | null } | null {
  const p = pieces[at]!;
  const rows: { dy: number; cells: Piece[][] }[] = [];
  for (let i = Math.max(0, at - 160); i < Math.min(pieces.length, at + 160); i++) {
    const q = pieces[i]!;
    const dy = q.rect.y - p.rect.y;
    if (q.page !== p.page || Math.abs(dy) > NEAR) continue;
    const starts = q.before !== 'space' && q.before !== 'none';
    const row = rows.at(-1);
    if (row && Math.abs(row.dy - dy) < 0.6 * q.rect.h) {
      if (starts) row.cells.push([q]);
      else row.cells.at(-1)!.push(q);
    } else rows.push({ dy, cells: [[q]] });
  }
  // A row above its line is as likely as a caption below it; the nearest says it.
  rows.sort((a, b) => Math.abs(a.dy) - Math.abs(b.dy));
  for (const { cells } of rows) {
    for (const cell of [...cells].reverse()) {
      if (cell[0]!.rect.x > p.rect.x + p.rect.w + 4 || cell.length > MOST_CAPTION) continue;
      const role = roleOfWords(textOf(cell), sense);
      if (role) return { side: sideOfRole(role.role) ?? 'other', ordinal: role.ordinal };
    }
  }
  return null;
}
/** A longer phrase is a sentence, which may name anybody. */
const MOST_CAPTION = 8;
