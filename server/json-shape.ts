/** Bounds on JSON that are checked before it is parsed. */
import { type BodySize, BODY_DEPTH } from '@gatepath/contract';
import { itemAt } from '@gatepath/core/sure';

const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/**
 * Returns what is wrong with the shape of a JSON text, or null. Reads the bytes once and parses nothing, so that a hostile
 * text costs no more than its length.
 */
export function shapeProblem(
  body: Uint8Array,
  size: BodySize,
  depth = size.depth ?? BODY_DEPTH,
): 'too-deep' | 'too-many-values' | null {
  let inText = false;
  let level = 0;
  let values = 1;
  for (let i = 0; i < body.length; i++) {
    const c = itemAt(body, i);
    if (inText) {
      if (c === BACKSLASH) i++;
      else if (c === QUOTE) inText = false;
      continue;
    }
    switch (c) {
      case QUOTE:
        inText = true;
        break;
      case 0x5b: // [
      case 0x7b: // {
        if (++level > depth) return 'too-deep';
        break;
      case 0x5d: // ]
      case 0x7d: // }
        level--;
        break;
      case 0x2c: // ,
      case 0x3a: // :
        if (++values > size.values) return 'too-many-values';
        break;
    }
  }
  return null;
}
