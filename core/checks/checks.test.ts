import { cleanDraft, facts, mark, page, party } from '../test-support';
import { applyEdits, type Draft } from '../marks/draft';
import type { PageFacts } from '../marks/types';
import { CHECK_RULES, pageRuns, viewDraft } from './index';

const check = (
  change: (d: Draft) => void = () => undefined,
  pages: readonly PageFacts[] = [page(), page(), page()],
) => {
  const draft = cleanDraft();
  change(draft);
  return { pages, ...viewDraft(draft, [facts([...pages])]) };
};
const full = page([{ x: 0, y: 0, w: 612, h: 792 }]);

/** One packet for every rule that trips it; the clean packet trips none. */
const CASES: [rule: string, change: (d: Draft) => void, pages?: PageFacts[]][] = [
  ['nothing-to-sign', (d) => (d.documents = [])],
  ['nobody-acts', (d) => (d.parties = d.parties.map((p) => ({ ...p, act: 'copy' as const })))],
  ['party-without-address', (d) => (d.parties[0]!.email = '')],
  ['party-without-address', (d) => (d.parties[0]!.email = 'wren at home')],
  ['party-gates', (d) => (d.gates[0]!.partyIds = ['wren'])],
  ['party-gates', (d) => d.gates.push({ id: 'g2', partyIds: ['wren'] })],
  ['empty-gate', (d) => d.gates.push({ id: 'g2', partyIds: [] })],
  ['signer-without-signature', (d) => (d.marks = d.marks.slice(1))],
  ['page-without-initials', () => undefined, [page(), full, page()]],
  [
    'page-without-initials',
    (d) => {
      d.rules = [];
      d.marks.push(mark('i', 'wren', 'initials', 1, { x: 20, y: 20, w: 54, h: 22 }));
    },
  ],
  ['mark-without-act', (d) => (d.parties[0]!.act = 'approve')],
  ['mark-off-page', (d) => (d.marks[0]!.rect = { x: 560, y: 600, w: 120, h: 26 })],
  ['mark-over-mark', (d) => (d.marks[1]!.rect = { ...d.marks[0]!.rect, x: 150 })],
  ['mark-over-print', () => undefined, [page([{ x: 110, y: 605, w: 80, h: 10 }]), page(), page()]],
  [
    'document-without-marks',
    (d) => {
      d.rules = [];
      d.marks = [];
    },
  ],
];

const TRIPS = CASES.map(([rule, change, pages]) => [rule, change, pages ?? [page(), page(), page()]] as const);

test('a clean packet shows nothing', () => {
  expect(check().findings).toEqual([]);
});

test.each(TRIPS)('%s is found, with a sentence and a place to go to', (rule, change, pages) => {
  const found = check(change, pages).findings.filter((f) => f.rule === rule);
  expect(found.length).toBeGreaterThan(0);
  for (const f of found) expect(f.sentence).toMatch(/^[A-Z“].+[.]$/);
});

test('every rule has a packet that trips it', () => {
  const tripped = new Set(TRIPS.map(([rule]) => rule));
  expect(tripped.size).toBe(CHECK_RULES.length);
});

test('stops come before warnings', () => {
  const { findings } = check(
    (d) => (d.parties[0]!.email = ''),
    [page([{ x: 110, y: 605, w: 80, h: 10 }]), page(), page()],
  );
  expect(findings.map((f) => f.severity)).toEqual(['stops', 'warns']);
});

test.each(TRIPS)('where %s has a mend, the mend clears it', (rule, change, pages) => {
  const { draft, findings, pages: sheets } = check(change, pages);
  for (const f of findings.filter((x) => x.rule === rule && x.mend)) {
    const after = viewDraft(applyEdits(draft, f.mend!.edits), [facts([...sheets])]);
    expect(after.findings.filter((x) => x.sentence === f.sentence)).toEqual([]);
  }
});

test('a third party whose initials are missing on some pages is named with all of them', () => {
  const { findings } = check((d) => {
    d.parties.push(party('priya', { side: 'buyer', ink: 2 }));
    d.gates.push({ id: 'g2', partyIds: ['priya'] });
    d.marks.push(
      mark('p', 'priya', 'signature', 1, { x: 100, y: 100, w: 120, h: 26 }),
      mark('pi', 'priya', 'initials', 2, { x: 300, y: 700, w: 54, h: 22 }),
    );
  });
  expect(findings.map((f) => f.sentence)).toEqual(['Priya has no initials on pages 1, 3 of Disclosure.']);
});

test('runs of pages in words', () => {
  expect(pageRuns([3])).toBe('page 3');
  expect(pageRuns([7, 1, 2, 3])).toBe('pages 1 to 3, 7');
});
