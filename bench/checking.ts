import { viewDraft } from '@gatepath/core/checks';
import { type DocumentFacts, type Draft, applyEdits, buildLedger, emptyDraft } from '@gatepath/core/packet';
import { type PageFacts, emptyGrid, inkRect } from '@gatepath/core/paper';
import type { PrintedPlace } from '@gatepath/core/reading';
import { median, rowOf, type Row } from './measure';

/** Returns a page of a form: forty lines of print, a foot with initials blanks. */
function formPage(): PageFacts {
  const ink = emptyGrid(612, 792);
  const print = [];
  const words: string[] = [];
  for (let line = 0; line < 40; line++)
    for (let word = 0; word < 9; word++) {
      const r = { x: 60 + word * 54, y: 60 + line * 15, w: 48, h: 9 };
      print.push(r);
      words.push(`word${line}-${word}`);
      inkRect(ink, r);
    }
  return { width: 612, height: 792, ink, print, words };
}

/** Returns documents with initials by rule for everybody, signatures on the last page and printed places. */
export function largePacket(
  documents: number,
  pagesEach: number,
  people: number,
): { draft: Draft; facts: DocumentFacts[] } {
  const draft = emptyDraft('Large');
  draft.parties = Array.from({ length: people }, (_, i) => ({
    id: `p${i}`,
    name: `Person ${i + 1}`,
    email: `p${i}@example.com`,
    phone: null,
    side: i % 2 ? ('buyer' as const) : ('seller' as const),
    ordinal: Math.floor(i / 2) + 1,
    act: 'sign' as const,
    ink: i,
  }));
  draft.gates = [{ id: 'g', partyIds: draft.parties.map((p) => p.id) }];
  const facts: DocumentFacts[] = [];
  for (let d = 0; d < documents; d++) {
    const id = `d${d}`;
    const pages = Array.from({ length: pagesEach }, formPage);
    const places = pages.flatMap((_, i): PrintedPlace[] =>
      [1, 2].map((ordinal) => ({
        page: i + 1,
        kind: 'initials',
        role: 'seller',
        ordinal,
        rect: { x: 60 + ordinal * 50, y: 730, w: 36, h: 14 },
        label: 'Seller’s initials',
        source: 'print',
        confidence: 0.9,
      })),
    );
    facts.push({ id, name: `Document ${d + 1}`, pages, places });
    draft.documents.push({ id });
    draft.rules.push({
      id: `r${d}`,
      documentId: id,
      partyIds: draft.parties.map((p) => p.id),
      anchor: { fx: 0, fy: 1 },
      except: [],
      moved: [],
    });
    draft.parties.forEach((p, i) =>
      draft.marks.push({
        id: `${id}s${i}`,
        documentId: id,
        page: pagesEach,
        kind: 'signature',
        partyId: p.id,
        rect: { x: 60 + i * 80, y: 690, w: 76, h: 22 },
        required: true,
      }),
    );
  }
  return { draft, facts };
}

/** Measures the gate check after an edit, against one computation of the ledger of the same packet. */
export async function rows(): Promise<Row[]> {
  const out: Row[] = [];
  for (const [documents, pages, people] of [
    [30, 10, 6],
    [60, 17, 6],
  ] as const) {
    const { draft, facts } = largePacket(documents, pages, people);
    const first = viewDraft(draft, facts);
    let n = 0;
    let now = draft;
    const ours = await median(() => {
      // One mark moves, as under a finger; everything that follows is worked out again.
      n++;
      now = applyEdits(now, [
        { op: 'put', list: 'marks', item: { ...draft.marks[0]!, rect: { x: 60, y: 660 - (n % 30), w: 76, h: 22 } } },
      ]);
      viewDraft(now, facts);
    }, 25);
    const theirs = await median(
      () =>
        buildLedger({
          documents: facts.map((d) => ({ id: d.id, pageCount: d.pages.length })),
          partyIds: draft.parties.map((p) => p.id),
          marks: first.marks,
          rules: draft.rules,
          filled: new Set(),
        }),
      25,
    );
    out.push(
      rowOf(
        `gate check of ${documents} documents, ${documents * pages} pages, ${people} people`,
        ours,
        'one ledger of it',
        theirs,
      ),
    );
  }
  return out;
}
