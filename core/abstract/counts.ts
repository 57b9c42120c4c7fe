/** Days that a contract counts: "10 days after acceptance". */
import { MOST_DAYS, type Count } from '../calendar';
import { ANCHOR_CUES, cueAt, indexOf, type Meaning } from './cues';
import { numberAt, type Found } from './numbers';
import { pieceAt, type Piece } from './pieces';

const ANCHORS = indexOf(ANCHOR_CUES);

const DAYS = ['day', 'days', 'dia', 'dias'];
const BUSINESS = ['business', 'working', 'banking', 'habil', 'habiles', 'laborables', 'laboral'];
const CALENDAR = ['calendar', 'consecutive', 'natural', 'naturales', 'calendario', 'corridos'];
const WAYS: [string, Count['way']][] = [
  ['prior to', 'before'],
  ['before', 'before'],
  ['antes de', 'before'],
  ['antes del', 'before'],
  ['previos a', 'before'],
  ['anteriores al', 'before'],
  ['following', 'after'],
  ['after', 'after'],
  ['from', 'after'],
  ['of', 'after'],
  ['despues de', 'after'],
  ['despues del', 'after'],
  ['siguientes a', 'after'],
  ['siguientes al', 'after'],
  ['posteriores a', 'after'],
  ['contados desde', 'after'],
  ['contados a partir de', 'after'],
  ['a partir de', 'after'],
  ['desde', 'after'],
];

/** A count as it is written, with the meaning of the day it is counted from. */
export interface WrittenCount {
  count: Count;
  anchor: Meaning;
}

/** Returns the count that begins at a piece: "10 days after acceptance", "five business days before closing". */
export function countAt(pieces: readonly Piece[], at: number): Found<WrittenCount> | null {
  const n = numberAt(pieces, at);
  if (!n || n.value > MOST_DAYS || n.value < 1) return null;
  let i = n.to;
  let days = false;
  let business = false;
  for (let k = 0; k < 3 && i < pieces.length; k++, i++) {
    const text = pieceAt(pieces, i);
    if (BUSINESS.includes(text)) business = true;
    else if (DAYS.includes(text)) days = true;
    else if (!CALENDAR.includes(text)) break;
  }
  if (!days) return null;
  const way = WAYS.find(([words]) => words.split(' ').every((w, k) => pieceAt(pieces, i + k) === w));
  if (!way) return null;
  i += way[0].split(' ').length;
  for (let k = 0; k < 4; k++, i++) {
    const anchor = cueAt(pieces, i, ANCHORS);
    if (anchor)
      return {
        from: at,
        to: anchor.to,
        value: {
          count: { n: n.value, unit: business ? 'business_days' : 'days', way: way[1], roll: false },
          anchor: anchor.meaning,
        },
      };
    if (
      !/^(?:the|la|el|los|las|de|del|of|buyer|seller|buyer's|seller's|'s|date|fecha|mutual|final|full|written)$/.test(
        pieceAt(pieces, i),
      )
    )
      return null;
  }
  return null;
}
