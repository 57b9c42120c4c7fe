/** What a blank is for, judged by its captions. */
import { BOX_GLYPH, type Blank, type PageScan } from './blanks';
import { captionsOf, tail, type Captions } from './captions';
import type { PlaceKind, PlaceRole } from './types';
import { kindOfWords, plain, roleOfWords, type RoleRead } from './words';

export interface Judged {
  blank: Blank;
  captions: Captions;
  kind: PlaceKind;
  role: RoleRead | null;
  label: string;
  confidence: number;
  /** Where the kind came from, for what follows from neighbours. */
  by: 'words' | 'role' | 'shape' | 'none';
}

export interface PaperContext {
  owner: PlaceRole;
  /** Whether the paper asks anywhere for initials before its clauses. */
  asksInitials: boolean;
  /** Whom the sentence names that asks for them. */
  initialsBy: RoleRead | null;
}

/** Judges one blank; null when it is nothing to be filled. */
export function judge(scan: PageScan, b: Blank, paper: PaperContext, soFar: Map<Blank, Judged>): Judged[] {
  const c = captionsOf(scan, b);
  const width = b.x1 - b.x0;
  if (b.made === 'box') return [boxPlace(scan, b, c)];
  const role = (text: string) => (text ? roleOfWords(text, paper.owner) : null);
  const pageWide = width > 0.86 * (scan.right - scan.left) && scan.right - scan.left > 200;

  // A year, a day and a month of one date.
  const leftTail = tail(c.left, 5);
  const right = plain(c.right);
  if (b.pieces) return [done(b, c, 'date', role(c.left), c.left || 'Date', 0.9, 'words')];
  if (
    /\bthis$|\bdated(?: this| the)?$|\bel dia$|\ba los?$|\ben fecha$/.test(leftTail) &&
    width < 110 &&
    /^(?:st|nd|rd|th)?\s*day\b|^dias?\b|^de\b/.test(right)
  )
    return [done(b, c, 'date', null, c.left, 0.85, 'words')];
  if (/^(?:st|nd|rd|th)?\s*day of\b/.test(right) && width < 110)
    return [done(b, c, 'date', null, c.left, 0.85, 'words')];
  if (/\bday of$|\bdias? (?:de|del mes de)$/.test(leftTail)) return [done(b, c, 'date', null, c.left, 0.85, 'words')];
  if (/(?:^|[\s,])(?:20|de 20|del? ano 20|del? ano)$/.test(leftTail) && width < 80)
    return [done(b, c, 'date', null, 'Year', 0.8, 'words')];
  if (/\bde$/.test(leftTail) && c.after && soFar.get(c.after)?.kind === 'date')
    return [done(b, c, 'date', null, c.left, 0.7, 'words')];

  // Chained blanks: "( ____ ) ( ____ )", "____ / ____", "____ and ____".
  const prior = c.after && soFar.get(c.after);
  if (prior && prior.kind === 'initials' && width < 90)
    return [
      done(
        b,
        c,
        'initials',
        prior.role && { role: prior.role.role, ordinal: null },
        prior.label,
        prior.confidence,
        'words',
      ),
    ];

  // "Tenants: ______ and ______": one after the other asks the same.
  if (
    prior &&
    (prior.kind === 'name' || (prior.kind === 'signature' && prior.by === 'role')) &&
    /^(?:and|y|&)$/i.test(c.left)
  )
    return [
      done(
        b,
        c,
        prior.kind,
        prior.role && { role: prior.role.role, ordinal: null },
        prior.label,
        prior.confidence,
        prior.by,
      ),
    ];

  const belowText = c.below.map((p) => p.text).join(' ');
  // A sentence that goes on behind the blank is no caption of it.
  const flows = /^[,;.]|^[a-z]{2,}/.test(c.right) && !/^(?:date|fecha|signature|firma|initials)\b/.test(right);
  const shortLeft = c.sentence ? '' : c.left;
  // Two captions under one line part it: "Signature        Date".
  if (c.below.length >= 2) {
    const parts = c.below.map((p) => ({ p, kind: kindOfWords(p.text), role: role(p.text) }));
    const known = parts.filter((q) => q.kind || q.role);
    if (known.length >= 2 && new Set(known.map((q) => q.kind)).size > 1 && !kindOfWords(shortLeft)) {
      return known.map((q, i) => {
        const x0 = i === 0 ? b.x0 : Math.max(b.x0, q.p.x0 - 4);
        const nextX = known[i + 1] ? known[i + 1]!.p.x0 - 8 : b.x1;
        const part = { ...b, x0, x1: Math.min(b.x1, nextX) };
        return done(part, c, q.kind ?? 'signature', q.role, q.p.text, 0.85, q.kind ? 'words' : 'role');
      });
    }
  }

  const sources: { text: string; weight: number }[] = [
    { text: c.cell, weight: 1 },
    { text: b.made === 'cell' && !c.cell ? c.colHead : '', weight: 0.95 },
    { text: c.cell ? '' : shortLeft, weight: 0.97 },
    { text: belowText, weight: 0.96 },
    { text: c.sentence ? tail(c.left, 4) : '', weight: 0.6 },
    {
      text:
        c.right && !c.rightTaken && /^[(]|^(?:date|initials?|signature|fecha|firma|iniciales)\b/i.test(c.right)
          ? c.right
          : '',
      weight: 0.85,
    },
    { text: b.made === 'cell' && !c.cell ? c.rowHead : '', weight: 0.8 },
    // Words over the line count only where nothing stands before it.
    {
      text: flows || plain(shortLeft).length > 2 || c.cell || (pageWide && b.made === 'rule') ? '' : c.above,
      weight: 0.8,
    },
  ];
  const roleText = [
    c.cell,
    shortLeft,
    belowText,
    c.right,
    c.rowHead,
    c.colHead,
    flows || (pageWide && b.made === 'rule') ? '' : c.above,
  ].map(role);
  let who =
    roleText.find((r) => r !== null && r.ordinal !== null && roleText.find((q) => q)?.role === r.role) ??
    roleText.find((r) => r) ??
    null;

  // "____ (landlord) and ____ (tenant)": brackets behind a blank say whose it is.
  const bracket = /^\(/.test(c.right) ? role(c.right.split(')')[0] ?? '') : null;
  if (bracket) who = bracket;

  // "( ____ ) ( ____ ) Tenants' initials": the row's words come after its blanks.
  const after = afterRow(scan, b);
  if (width < 90 && kindOfWords(after) === 'initials' && /^[\s()[\],/]*$/.test(c.left))
    return [done(b, c, 'initials', role(after), after.replace(/^[\s)\]]+/, ''), 0.85, 'words')];

  // The row names initials once and then people: "Initials: Seller ____ Buyer ____".
  const rowKind = kindOfWords(c.row);
  if (
    width < 90 &&
    rowKind === 'initials' &&
    (role(shortLeft) || !shortLeft || kindOfWords(shortLeft) === 'initials' || /^[\s(,/:;]*$/.test(shortLeft))
  ) {
    const named = role(shortLeft) ?? role(c.row) ?? role(afterRow(scan, b));
    return [done(b, c, 'initials', named, shortLeft || c.row, 0.9, 'words')];
  }

  if (width < 90 && /\binitial(?:s|ed)? (?:here|below|in the)\b/.test(plain(c.left)))
    return [done(b, c, 'initials', role(c.left), c.left, 0.85, 'words')];

  // Short blanks before a clause: initials where the paper asks for them, else a box to tick.
  const first = !c.left && b.x0 < scan.left + 60;
  if (
    b.made !== 'cell' &&
    width < 48 &&
    (c.right || first) &&
    !(kindOfWords(c.right) && c.right.split(' ').length < 4 && !/initial/i.test(c.right))
  ) {
    if (/^(?:yes|no|n\/?a|unknown|si|none|not applicable|waived?|accepted|rejected)\W*$/.test(right))
      return [done(b, c, 'checkbox', null, c.right, 0.8, 'shape')];
    if (first && c.right && /^[(]?[a-z0-9]/i.test(right)) {
      if ((paper.asksInitials || kindOfWords(c.right) === 'initials') && width > 16)
        return [
          done(
            b,
            c,
            'initials',
            role(c.right.split(' ').slice(0, 4).join(' ')) ?? paper.initialsBy,
            c.right,
            0.75,
            'shape',
          ),
        ];
      return [done(b, c, 'checkbox', null, c.right, 0.7, 'shape')];
    }
  }

  // A currency sign before the blank wants a sum, whatever words come before it.
  if (/[$\u20ac\u00a3]\s*\(?$/.test(c.left) || /^(?:%|percent|dollars|por ciento|dolares)/.test(right))
    return [done(b, c, 'text', null, c.left || c.right, 0.8, 'words')];

  // "begins on ____", "not later than ____": a day, told by the word before it.
  if (!kindOfWords(shortLeft) && width > 38 && width < 150 && DAY_BEFORE.test(leftTail))
    return [done(b, c, 'date', null, c.left, 0.7, 'words')];

  // The kind under the line beats a role or an unsure word on its left: "Seller: ______ / (signature)".
  let best: { kind: Exclude<PlaceKind, 'checkbox'>; weight: number; text: string } | null = null;
  for (const s of sources) {
    if (!s.text) continue;
    const kind = kindOfWords(s.text);
    if (!kind) continue;
    if (kind === 'signature' && s.text.split(' ').length > 9) continue;
    const weight = kind === 'text' ? s.weight - 0.25 : s.weight;
    if (!best || weight > best.weight) best = { kind, weight, text: s.text };
  }
  const bare = b.made === 'cell' && c.cell && !/[:?]\s*$/.test(c.cell) && !best && (b.inside?.[0]?.size ?? 0) > 8.9;
  if (bare) return [];
  const label = best?.text ?? (shortLeft || belowText || c.cell || c.above || c.left || c.right);

  if (best && !(best.kind === 'date' && c.sentence && !/\b(?:date|dated|fecha)\W*$/.test(tail(c.left, 4)))) {
    let kind: PlaceKind = best.kind;
    // A role's whole signature needs room; what is short and says only "sign" is initials' size but still a signature.
    if (kind === 'signature' && width < 24) kind = 'initials';
    if (kind === 'initials' && width > 230) kind = 'text';
    // In a table, a role in the row and a kind in the head, or the other way round.
    if (b.made === 'cell' && !who) who = role(c.rowHead) ?? role(c.colHead);
    if (kind === 'text') who = who && !c.sentence ? who : null;
    return [done(b, c, kind, who, label, Math.min(0.97, best.weight), 'words')];
  }

  // "by ______ (“Seller”)": the paper says who is called so.
  if (bracket && width > 80) return [done(b, c, 'name', bracket, label, 0.75, 'role')];

  // Witnesses and notaries sign too; they are nobody of the packet.
  if (OUTSIDER.test(plain(label)) && width > 80 && !c.sentence)
    return [done(b, c, 'signature', null, label, 0.7, 'role')];

  // "X ______": an old way to say sign here.
  if (/(?:^|\s)x:?$/.test(plain(c.left)) && width > 60) return [done(b, c, 'signature', who, label, 0.9, 'words')];

  // A caption that is a role and nothing else: a signature where people sign, else a name.
  if (
    who &&
    !c.sentence &&
    !/\b(?:of|at|in|to|for|the|del?|en|a|al)\s*$/i.test(c.left) &&
    label.split(' ').length <= 7 &&
    width > 80
  ) {
    const under = c.below.length > 0 && role(belowText) !== null;
    // "Note of the broker" names somebody, but asks for something else.
    if (
      !under &&
      /\b(?:notes?|remarks?|comments?|instructions?|share|fee|part|copy|for use|notas?|observaciones)\b/.test(
        plain(c.left),
      )
    )
      return [done(b, c, 'text', who, label, 0.6, 'none')];
    return [
      done(
        b,
        c,
        under || (!flows && signsNear(scan, b)) ? 'signature' : 'name',
        who,
        label,
        under ? 0.85 : 0.75,
        'role',
      ),
    ];
  }
  if (who && width <= 80 && !c.sentence) {
    const foot = b.y > 0.86 * scan.content.height;
    if (foot) return [done(b, c, 'initials', who, label, 0.7, 'role')];
  }

  const words = (c.left || c.right || belowText || c.cell || c.above).trim();
  if (b.made === 'cell') {
    if (DAY_BEFORE.test(plain(c.colHead)) || DAY_BEFORE.test(plain(c.cell)))
      return [done(b, c, 'date', null, c.colHead || c.cell, 0.7, 'words')];
    if (!c.cell && !c.rowHead && isCorner(scan, b)) return [];
    if (!c.cell && !c.left && !c.colHead && !c.above && !c.below.length)
      return width < 300 && b.h > 14 ? [done(b, c, 'text', null, '', 0.35, 'none')] : [];
    if (!c.cell && !/:\s*$/.test(c.left) && !c.colHead) return [done(b, c, 'text', null, c.left, 0.5, 'none')];
    return [done(b, c, 'text', null, label, c.cell && !/[:?]\s*$/.test(c.cell) ? 0.4 : 0.6, 'none')];
  }
  if (pageWide && b.made === 'rule') return followsBlank(scan, b) ? [done(b, c, 'text', null, words, 0.6, 'none')] : [];
  if (pageWide && b.made === 'underscores' && !words && !followsBlank(scan, b)) return [];
  if (b.made === 'dots') return words && /[:)]\s*$/.test(c.left) ? [done(b, c, 'text', null, words, 0.55, 'none')] : [];
  if (b.made === 'rule' && !words && !followsBlank(scan, b)) return [];
  if (b.made === 'parens' && !words) return [];
  return [done(b, c, 'text', null, words, b.made === 'underscores' ? 0.75 : words ? 0.65 : 0.45, 'none')];
}

function done(
  blank: Blank,
  captions: Captions,
  kind: PlaceKind,
  role: RoleRead | null,
  label: string,
  confidence: number,
  by: Judged['by'],
): Judged {
  return { blank, captions, kind, role, label: label.trim().slice(0, 120), confidence, by };
}

/** People who sign beside the parties. */
export const OUTSIDER = /\b(?:witness(?:es)?|notary(?: public)?|testigos?|notari[oa])\b/;

/** Words that a day follows. */
const DAY_BEFORE =
  /\b(?:on|on or (?:before|about|after)|until|(?:no|not) later than|as of|commencing|beginning|effective|hasta(?: el)?|desde(?: el)?|a partir del?|el dia)$/;

/** The words after the last blank of a row: "Initials ____ / ____ tenants". */
function afterRow(scan: PageScan, b: Blank): string {
  const last = scan.blanks.filter((o) => Math.abs(o.y - b.y) < 4).reduce((x, o) => Math.max(x, o.x1), b.x1);
  return scan.phrases
    .filter((p) => p.x0 >= last - 2 && p.x0 - last < 70 && Math.abs(p.y - b.y) < 6)
    .map((p) => p.text)
    .join(' ');
}

function boxPlace(scan: PageScan, b: Blank, c: Captions): Judged {
  const middle = b.y - b.h / 2;
  const line = scan.lines.find((l) =>
    l.tokens.some(
      (t) =>
        t.x0 >= b.x1 - 3 && t.x0 - b.x1 < 40 && Math.abs(t.y - 0.33 * t.size - middle) < 0.7 * Math.max(t.size, b.h),
    ),
  );
  // Its words go on to the next box, blank or wide gap.
  const words: string[] = [];
  let at = b.x1;
  for (const t of line?.tokens ?? []) {
    if (t.x0 < b.x1 - 3) continue;
    if (
      t.made !== 'word' ||
      BOX_GLYPH.test(t.text) ||
      /^[[(]+$/.test(t.text) ||
      t.x0 - at > (words.length ? 1.6 * t.size : 40)
    )
      break;
    if (!/^[\])]+$/.test(t.text)) words.push(t.text.replace(/^[\])]+/, ''));
    at = t.x1;
  }
  return done(b, c, 'checkbox', null, words.join(' ') || c.left, b.cell ? 0.9 : 0.92, 'shape');
}

/** Whether people sign around here: a date to be written close by, or the word signature over the block. */
function signsNear(scan: PageScan, b: Blank): boolean {
  return scan.phrases.some((p) => {
    const t = plain(p.text);
    if (Math.abs(p.y - b.y) < 32 && /^(?:date[d]?|date signed|fecha|fecha y hora|date and time)\W*$/.test(t))
      return true;
    return (
      b.y - p.y > -20 &&
      b.y - p.y < 150 &&
      t.length < 60 &&
      /\b(?:signatures?|signed|signs?|signing|firmas?|witness(?:eth)?)\b/.test(t)
    );
  });
}

/** Whether a line to write on comes after words that ask, or after another such line, at writing distance. */
function followsBlank(scan: PageScan, b: Blank): boolean {
  const near = scan.blanks.some(
    (o) =>
      o !== b &&
      o.made !== 'box' &&
      b.y - o.y > 9 &&
      b.y - o.y < 34 &&
      Math.min(o.x1, b.x1) - Math.max(o.x0, b.x0) > 0.6 * Math.min(o.x1 - o.x0, b.x1 - b.x0) &&
      empty(scan, o.y, b),
  );
  const next = scan.blanks.some(
    (o) =>
      o !== b &&
      o.made !== 'box' &&
      o.y - b.y > 9 &&
      o.y - b.y < 34 &&
      Math.abs(o.x0 - b.x0) < 12 &&
      Math.abs(o.x1 - b.x1) < 12 &&
      empty(scan, b.y, o),
  );
  const asks = scan.phrases.some((p) => b.y - p.y > 5 && b.y - p.y < 34 && /[:?]\s*$/.test(p.text) && p.x0 < b.x0 + 40);
  const between = scan.phrases.some(
    (p) => b.y - p.y > 3 && b.y - p.y < 12 && p.x0 < b.x1 && p.x1 > b.x0 && !/[:?]\s*$/.test(p.text),
  );
  return (near || asks || next) && !between;
}

/** Whether nothing is printed between a height and a blank below it. */
function empty(scan: PageScan, from: number, b: Blank): boolean {
  return !scan.phrases.some((p) => p.y > from + 1.5 && p.y < b.y + 1 && p.x0 < b.x1 && p.x1 > b.x0);
}

/** Whether an empty cell is the corner between a table's heads: words to its right and below it, nothing above. */
function isCorner(scan: PageScan, b: Blank): boolean {
  const c = b.cell!;
  const words = (r: { x: number; y: number; w: number; h: number }) =>
    scan.phrases.some(
      (p) => (p.x0 + p.x1) / 2 > r.x && (p.x0 + p.x1) / 2 < r.x + r.w && p.y > r.y && p.y < r.y + r.h + 1,
    );
  const right = scan.cells.find((o) => Math.abs(o.y - c.y) < 4 && Math.abs(o.x - c.x - c.w) < 4);
  const under = scan.cells.find((o) => Math.abs(o.x - c.x) < 4 && Math.abs(o.y - c.y - c.h) < 4);
  const over = scan.cells.some((o) => Math.abs(o.x - c.x) < 4 && Math.abs(o.y + o.h - c.y) < 4);
  return !over && !!right && words(right) && !!under && words(under);
}
