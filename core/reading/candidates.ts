/** Blanks of a document that may be places, with what the rules and the form's own fields say of each. */
import { scanPage, type Blank, type PageScan } from './blanks';
import { captionsOf } from './captions';
import { judge, type Judged, type PaperContext } from './classify';
import type { Candidate } from './sight';
import { ownBlanks, sayOwn } from './own-fields';
import { giveOrdinals, giveRoles, paperOf, withinReason } from './roles';
import { spacesOf } from './spaces';
import type { PageContent, PrintedPlace } from './types';

/** The candidates of a document, in order. */
export interface Candidates {
  candidates: Candidate[];
  scans: PageScan[];
  paper: PaperContext;
  /** The blanks that are fields of a form. */
  fields: Map<Blank, PrintedPlace>;
}

/**
 * Returns the candidates of a document.
 *
 * @param pages  text and drawing of each page, in order
 * @param own    fields of a form, which replace what is printed under them
 * @param before words of the pages before these, if a document is read in parts
 */
export function candidatesOf(pages: PageContent[], own: PrintedPlace[] = [], before = ''): Candidates {
  const scans = pages.map(scanPage);
  const paper = paperOf(before + scans.map((s) => s.phrases.map((p) => p.text).join(' ')).join(' '));
  const candidates: Candidate[] = [];
  const fields = new Map<Blank, PrintedPlace>();
  scans.forEach((scan, page) => {
    scan.blanks.push(...spacesOf(scan));
    scan.blanks.sort((a, b) => (Math.abs(a.y - b.y) > 4 ? a.y - b.y : a.x0 - b.x0));
    const here = ownBlanks(
      scan,
      own.filter((f) => f.page === page + 1),
    );
    for (const [blank, field] of here) fields.set(blank, field);
    const judged = judgePage(scan, paper);
    const places = judged.flatMap((j) => (j.isPlace ? [j.judged] : []));
    // What a field says of itself counts for its neighbors too: a date beside it is its party's.
    for (const j of places) {
      const field = here.get(j.blank);
      if (field) sayOwn(j, field);
    }
    giveRoles(scan, places, paper);
    giveOrdinals(places);
    for (const j of judged) candidates.push({ page, scan, ...j });
  });
  return { candidates, scans, paper, fields };
}

type Ruled = Omit<Candidate, 'page' | 'scan'>;

/** Returns what the rules say of each blank of a page: its places, or that it is none. */
function judgePage(scan: PageScan, paper: PaperContext): Ruled[] {
  const soFar = new Map<Blank, Judged>();
  return scan.blanks.flatMap((blank): Ruled[] => {
    const { places, rule } = judge(scan, blank, paper, soFar);
    const found = places.map(withinReason);
    if (!found[0]) return [{ judged: nothing(scan, blank), rule, isPlace: false }];
    soFar.set(blank, found[0]);
    return found.map((judged) => ({ judged, rule, isPlace: true }));
  });
}

function nothing(scan: PageScan, blank: Blank): Judged {
  const c = captionsOf(scan, blank);
  const label = c.left || c.right || c.below.map((p) => p.text).join(' ') || c.above;
  return {
    blank,
    captions: c,
    kind: 'text',
    role: null,
    label: label.slice(0, 120),
    confidence: 0,
    inText: false,
    amid: false,
    by: 'none',
  };
}
