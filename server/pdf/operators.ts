/**
 * Content streams, operator by operator (ISO 32000-1, 7.8.2): counted before anything is drawn, and cleared of what
 * belongs to layers that are off.
 */
import { itemAt } from '@gatepath/core/sure';

/** How much a content stream draws. */
export interface ContentCount {
  operators: number;
  /** How often each XObject is drawn, by name. */
  draws: Map<string, number>;
  /** Names of graphics states, patterns and fonts that are used. */
  states: Set<string>;
  patterns: Set<string>;
  fonts: Set<string>;
  /** Number of graphics states saved and never restored. */
  open: number;
  /** Whether any content belongs to a layer. */
  layered: boolean;
}

/** White space and delimiters (7.2.2). */
const SPACE = new Uint8Array(256);
for (const c of [0, 9, 10, 12, 13, 32]) SPACE[c] = 1;
const DELIMITER = new Uint8Array(256);
for (const c of '()<>[]{}/%') DELIMITER[c.charCodeAt(0)] = 1;

type Visit = (operator: string, from: number, to: number, operands: string[]) => void;

/** Walks through a stream; of operands only names are reported, the last few of them. */
function walk(b: Uint8Array, visit: Visit): void {
  let i = 0;
  let from = 0;
  let names: string[] = [];
  const end = b.length;
  const text = (a: number, z: number) => String.fromCharCode(...b.subarray(a, Math.min(z, a + 200)));
  while (i < end) {
    const c = itemAt(b, i);
    if (SPACE[c]) {
      i++;
      continue;
    }
    if (c === 0x25) {
      while (i < end && b[i] !== 10 && b[i] !== 13) i++;
      continue;
    }
    if (c === 0x28) {
      i = pastString(b, i);
      continue;
    }
    if (c === 0x2f) {
      let z = i + 1;
      while (z < end && !SPACE[itemAt(b, z)] && !DELIMITER[itemAt(b, z)]) z++;
      if (names.length > 3) names = names.slice(-2);
      names.push(plainName(text(i + 1, z)));
      i = z;
      continue;
    }
    if (DELIMITER[c]) {
      // Hex strings need not be parsed: they contain neither names nor operators.
      if (c === 0x3c && b[i + 1] !== 0x3c) while (i < end && b[i] !== 0x3e) i++;
      i++;
      continue;
    }
    let z = i;
    while (z < end && !SPACE[itemAt(b, z)] && !DELIMITER[itemAt(b, z)]) z++;
    const isNumber = (c >= 0x30 && c <= 0x39) || c === 0x2b || c === 0x2d || c === 0x2e;
    if (isNumber) {
      i = z;
      continue;
    }
    const word = text(i, z);
    i = z;
    if (word === 'true' || word === 'false' || word === 'null') continue;
    if (word === 'BI') i = pastInlineImage(b, i);
    visit(word, from, i, names);
    names = [];
    from = i;
  }
}

/** Decodes #xx in names (7.3.5). */
const plainName = (name: string) =>
  name.includes('#')
    ? name.replace(/#([0-9A-Fa-f]{2})/g, (_, h: string) => String.fromCharCode(parseInt(h, 16)))
    : name;

function pastString(b: Uint8Array, at: number): number {
  let depth = 0;
  for (let i = at; i < b.length; i++) {
    const c = itemAt(b, i);
    if (c === 0x5c) i++;
    else if (c === 0x28) depth++;
    else if (c === 0x29 && --depth === 0) return i + 1;
  }
  return b.length;
}

/** Returns the position after the EI of an inline image (8.9.7): one between white space. */
function pastInlineImage(b: Uint8Array, at: number): number {
  for (let i = at; i + 1 < b.length; i++)
    if (b[i] === 0x45 && b[i + 1] === 0x49 && SPACE[itemAt(b, i - 1)] && (i + 2 >= b.length || SPACE[itemAt(b, i + 2)]))
      return i + 2;
  return b.length;
}

/** Counts what a content stream draws, without drawing it. */
export function countContent(content: Uint8Array): ContentCount {
  const out: ContentCount = {
    operators: 0,
    draws: new Map(),
    states: new Set(),
    patterns: new Set(),
    fonts: new Set(),
    open: 0,
    layered: false,
  };
  walk(content, (op, _from, _to, names) => {
    out.operators++;
    const name = names[names.length - 1];
    switch (op) {
      case 'q':
        out.open++;
        break;
      case 'Q':
        out.open = Math.max(0, out.open - 1);
        break;
      case 'Do':
        if (name !== undefined) out.draws.set(name, (out.draws.get(name) ?? 0) + 1);
        break;
      case 'gs':
        if (name !== undefined) out.states.add(name);
        break;
      case 'scn':
      case 'SCN':
        if (name !== undefined) out.patterns.add(name);
        break;
      case 'Tf':
        if (name !== undefined) out.fonts.add(name);
        break;
      case 'BDC':
        if (names[0] === 'OC') out.layered = true;
        break;
    }
  });
  return out;
}

/** Replacements for operators that put ink on the page where there must be none. */
const INSTEAD: Record<string, string> = {
  ...Object.fromEntries(['S', 's', 'f', 'F', 'f*', 'B', 'B*', 'b', 'b*'].map((op) => [op, ' n '])),
  ...Object.fromEntries(['Do', 'sh', 'BI', 'Tj', 'TJ'].map((op) => [op, ' '])),
  "'": ' T* ',
  '"': ' T* ',
};

/** Returns the content without what is drawn for layers that are off; everything else is unchanged byte for byte. */
export function withoutLayers(content: Uint8Array, isHidden: (property: string) => boolean): Uint8Array {
  const parts: Uint8Array[] = [];
  const stack: boolean[] = [];
  let hidden = 0;
  let kept = 0;
  walk(content, (op, from, to, names) => {
    if (op === 'BDC' || op === 'BMC') {
      const off = op === 'BDC' && names[0] === 'OC' && names[1] !== undefined && isHidden(names[1]);
      stack.push(off);
      if (off) hidden++;
    } else if (op === 'EMC') {
      if (stack.pop()) hidden--;
    } else if (hidden && INSTEAD[op] !== undefined) {
      parts.push(content.subarray(kept, from), Buffer.from(INSTEAD[op]));
      kept = to;
    }
  });
  parts.push(content.subarray(kept));
  return new Uint8Array(Buffer.concat(parts));
}
