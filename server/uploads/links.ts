/** Links of a page: those to the web, to a mailbox and within the file are made again; others are left out. */
import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFString,
  type PDFDocument,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { isClean } from '@gatepath/core/text';

const key = (name: string) => PDFName.of(name);
const PROTOCOLS = new Set(['http:', 'https:', 'mailto:']);
const MOST_LENGTH = 2_000;

/** Where a link of a file leads: an address, or the index of a page. */
export type Target = { address: string } | { page: number };

/** Finds where links lead. */
export class Links {
  private readonly pages: Map<PDFRef, number>;
  private names: Map<string, PDFObject> | null = null;

  constructor(private readonly doc: PDFDocument) {
    this.pages = new Map(doc.getPages().map((p, i) => [p.ref, i]));
  }

  /** Returns the target of a link annotation; null if it leads elsewhere. */
  targetOf(annot: PDFDict): Target | null {
    const direct = annot.lookup(key('Dest'));
    if (direct) return this.place(direct);
    const action = annot.lookup(key('A'));
    if (!(action instanceof PDFDict)) return null;
    const s = action.lookup(key('S'));
    if (s === key('GoTo')) return this.place(action.lookup(key('D')));
    if (s !== key('URI')) return null;
    const uri = text(action.lookup(key('URI')));
    return uri === null ? null : safeAddress(uri);
  }

  private place(dest: PDFObject | undefined, tries = 3): Target | null {
    if (dest instanceof PDFDict) return tries ? this.place(dest.lookup(key('D')), tries - 1) : null;
    if (dest instanceof PDFArray) {
      const ref = dest.get(0);
      const page = ref instanceof PDFRef ? this.pages.get(ref) : ref instanceof PDFNumber ? ref.asNumber() : undefined;
      return page !== undefined && page >= 0 && page < this.pages.size ? { page } : null;
    }
    const name = dest instanceof PDFName ? dest.decodeText() : text(dest);
    return name === null || !tries ? null : this.place(this.named().get(name), tries - 1);
  }

  /** Returns named destinations, of both kinds (12.3.2.3). */
  private named(): Map<string, PDFObject> {
    if (this.names) return this.names;
    const out = new Map<string, PDFObject>();
    const old = this.doc.catalog.lookup(key('Dests'));
    if (old instanceof PDFDict) for (const [name, v] of old.entries()) out.set(name.decodeText(), deref(old, v));
    const tree = this.doc.catalog.lookup(key('Names'));
    const seen = new Set<PDFObject>();
    const walk = (node: PDFObject | undefined, depth: number): void => {
      if (!(node instanceof PDFDict) || depth > 20 || seen.has(node) || out.size > 20_000) return;
      seen.add(node);
      const pairs = node.lookup(key('Names'));
      if (pairs instanceof PDFArray)
        for (let i = 0; i + 1 < pairs.size(); i += 2) {
          const name = text(pairs.lookup(i));
          const v = pairs.lookup(i + 1);
          if (name !== null && v) out.set(name, v);
        }
      const kids = node.lookup(key('Kids'));
      if (kids instanceof PDFArray) for (let i = 0; i < kids.size(); i++) walk(kids.lookup(i), depth + 1);
    };
    if (tree instanceof PDFDict) walk(tree.lookup(key('Dests')), 0);
    this.names = out;
    return out;
  }
}

const deref = (d: PDFDict, v: PDFObject): PDFObject => (v instanceof PDFRef ? (d.context.lookup(v) ?? v) : v);

function text(v: PDFObject | undefined): string | null {
  if (!(v instanceof PDFString || v instanceof PDFHexString)) return null;
  try {
    return v.decodeText();
  } catch {
    return null;
  }
}

/** Returns a web or mail address in normal form; null for any other. */
export function safeAddress(uri: string): Target | null {
  if (uri.length > MOST_LENGTH || !isClean(uri)) return null;
  try {
    const url = new URL(uri.trim());
    return PROTOCOLS.has(url.protocol)
      ? { address: url.href.replace(/[()\\]/g, (c) => `%${c.charCodeAt(0).toString(16)}`) }
      : null;
  } catch {
    return null;
  }
}
