/** The words of a version in reading order, as they are compared, with headers and footers apart. */
import type { Rect } from '../paper/types';
import { groupBy, itemAt } from '../sure';
import type { AsideKind, VersionPage } from './types';

/** A word of a version as it is compared. */
export interface Token {
  text: string;
  /** The key it is looked up by: exact for print, loose if a side was recognized. */
  key: string;
  /** The text it is finally compared by. */
  exact: string;
  /** From 1. */
  page: number;
  /** Its line on the page, from 0. */
  line: number;
  rect: Rect;
  /** Whether it is the last of its line. */
  ends: boolean;
  /** Whether it is the first of its line. */
  leads: boolean;
  /** Whether a sentence, an item or a line may begin with it. */
  begins: boolean;
  aside: AsideKind | null;
  scan: boolean;
}

/** Stands for words that do not run left to right, which cannot be read. */
export const UNREAD = '\u00b7';

const isBlank = (text: string) => /^[_\u2026.\u2013\u2014-]{3,}$/.test(text);

/**
 * Returns a word without meaningless variation: shapes of quotation marks and dashes, ligatures, lengths of blanks.
 */
export function keyOf(text: string): string {
  if (isBlank(text)) return '_';
  return text
    .normalize('NFKC')
    .replace(/[\u2018\u2019\u201b\u2032]/g, "'")
    .replace(/[\u201c\u201d\u201f\u2033]/g, '"')
    .replace(/[\u2010-\u2015]/g, '-')
    .replace(/\u00ad/g, '');
}

/**
 * Returns the loose key of a word, equal for words that may be the same one on a scan. Equal keys decide nothing;
 * `likeness` compares the words.
 */
export function looseKeyOf(text: string): string {
  const t = keyOf(text).toLowerCase();
  if (!/\d/.test(t)) return t.replace(/[^\p{L}\p{N}]+/gu, '');
  return t
    .replace(/[oq]/g, '0')
    .replace(/[il|]/g, '1')
    .replace(/[^\p{L}\p{N}.,%]+/gu, '')
    .replace(/\./g, ',')
    .replace(/^,|,$/g, '');
}

/** Returns all words of a version in reading order. */
export function tokensOf(pages: readonly VersionPage[], loose: boolean): Token[] {
  const out: Token[] = [];
  pages.forEach((page, i) => {
    const from = out.length;
    let line = -1;
    page.print.forEach((rect, n) => {
      const text = page.words[n] ?? '';
      const exact = text === UNREAD ? '' : keyOf(text);
      if (!exact) return;
      const last = out[out.length - 1];
      const leads = out.length === from || !last || !sameLine(last.rect, rect);
      if (leads) line++;
      else last.ends = false;
      const begins = leads || /[.:;!?)]["']?$/.test(last.text);
      const key = (loose && looseKeyOf(text)) || exact;
      const scan = page.scan ?? false;
      out.push({ text, key, exact, page: i + 1, line, rect, ends: true, leads, begins, aside: null, scan });
    });
  });
  return out;
}

function sameLine(a: Rect, b: Rect): boolean {
  return Math.abs(a.y + a.h / 2 - b.y - b.h / 2) < 0.5 * Math.max(a.h, b.h) && b.x > a.x;
}

/** Share of a page, from the top and from the bottom, that counts as header and footer. */
const RIM = 0.11;

interface Line {
  tokens: Token[];
  /** Its words with all digits alike. */
  shape: string;
}

/** Returns the lines in headers and footers. */
function rimLines(tokens: Token[], pages: readonly VersionPage[]): Line[] {
  const atRim = tokens.filter((t) => {
    const h = itemAt(pages, t.page - 1).height;
    const y = t.rect.y + t.rect.h / 2;
    return y <= RIM * h || y >= (1 - RIM) * h;
  });
  return [...groupBy(atRim, (t) => `${t.page}.${t.line}`).values()].map((own) => ({
    tokens: own,
    shape: own
      .map((t) => t.key.toLowerCase().replace(/\d+/g, '#'))
      .join(' ')
      .slice(0, 400),
  }));
}

/** Returns lines that occur in the header or footer of at least two pages and half of them. */
function repeated(lines: Line[], pages: number): Set<string> {
  const on = new Map<string, Set<number>>();
  for (const { shape, tokens } of lines) {
    const at = on.get(shape) ?? new Set();
    at.add(itemAt(tokens, 0).page);
    on.set(shape, at);
  }
  return new Set([...on].filter(([, at]) => at.size >= 2 && at.size * 2 >= pages).map(([shape]) => shape));
}

const PAGE_NUMBER =
  /^(?:-|\()?(?:(?:page|pg|p|pagina|p\u00e1gina|seite)[.:]?)? ?#(?: ?(?:of|de|\/|von) ?#)?(?:-|\))?\.?$/;
const IS_PAGE = /\b(?:page|pg|p\u00e1gina)[.:]? #/;
const PRINTED = /\b(?:printed|print|generated|produced|created|impreso|impresa|generado|exported|downloaded)\b/;
const DAY = /#[/.-]#[/.-]#|\b(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|ene|abr|ago|dic)/;

/** Marks headers, page numbers and print dates of both versions. */
export function markAsides(versions: { tokens: Token[]; pages: readonly VersionPage[] }[]): void {
  const rims = versions.map((v) => rimLines(v.tokens, v.pages));
  const everywhere = new Set(versions.flatMap((v, i) => [...repeated(itemAt(rims, i), v.pages.length)]));
  for (const { tokens, shape } of rims.flat()) {
    const kind = asideOf(shape, everywhere.has(shape));
    if (kind) for (const t of tokens) t.aside = kind;
  }
}

function asideOf(shape: string, everywhere: boolean): AsideKind | null {
  if (PAGE_NUMBER.test(shape)) return 'page_number';
  if (PRINTED.test(shape) && DAY.test(shape)) return 'print_date';
  if (!everywhere) return null;
  return IS_PAGE.test(shape) ? 'page_number' : 'header';
}
