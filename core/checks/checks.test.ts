import fc from 'fast-check';
import { cleanDraft, facts, mark, page, party } from '../test/support';
import { applyEdits, type Draft, type DraftEdit } from '../packet/draft';
import { buildLedger } from '../packet/ledger';
import { acceptEdits, proposalsOf } from '../packet/proposals';
import type { PageFacts } from '../paper/types';
import type { PrintedPlace } from '../reading/types';
import type { DocumentFacts } from '../packet/resolve';
import { CHECK_RULES, FORM_ADVICE, pageRanges, viewDraft } from './index';

const check = (
  change: (d: Draft) => void = () => undefined,
  pages: readonly PageFacts[] = [page(), page(), page()],
  places: PrintedPlace[] = [],
  more: Partial<DocumentFacts> = {},
) => {
  const draft = cleanDraft();
  change(draft);
  const documents = [{ ...facts([...pages], 'doc', 'Disclosure', places), ...more }];
  return { pages, places, ...viewDraft(draft, documents, undefined, [...CHECK_RULES, ...FORM_ADVICE]) };
};
const blank = (role: PrintedPlace['role'], ordinal: number, y = 500): PrintedPlace => ({
  page: 2,
  kind: 'signature',
  role,
  ordinal,
  rect: { x: 60, y, w: 200, h: 24 },
  label: 'Signature',
  source: 'print',
  confidence: 0.9,
});
const at = (x: number, y: number, w = 60, h = 16) => ({ x, y, w, h });
const full = page([{ x: 0, y: 0, w: 612, h: 792 }]);

/** One packet for every rule that trips it; the clean packet trips none. */
const CASES: [
  rule: string,
  change: (d: Draft) => void,
  pages?: PageFacts[],
  places?: PrintedPlace[],
  more?: Partial<DocumentFacts>,
][] = [
  ['nothing-to-sign', (d) => (d.documents = [])],
  ['nobody-acts', (d) => (d.parties = d.parties.map((p) => ({ ...p, act: 'copy' as const })))],
  ['party-without-address', (d) => (d.parties[0]!.email = '')],
  ['party-without-address', (d) => (d.parties[0]!.email = 'wren at home')],
  [
    'nothing-to-put-in',
    (d) => {
      d.parties[0]!.name = '';
      d.marks.push(mark('n', d.parties[0]!.id, 'printed_name', 1, at(300, 600)));
    },
  ],
  ['nothing-to-put-in', (d) => d.marks.push(mark('c', d.parties[0]!.id, 'company', 1, at(300, 600)))],
  ['second-step', (d) => (d.parties[0]!.secondStep = 'phone')],
  ['second-step', (d) => Object.assign(d.parties[0]!, { secondStep: 'code', accessCode: '7' })],
  ['party-gates', (d) => (d.gates[0]!.partyIds = ['wren'])],
  ['party-gates', (d) => d.gates.push({ id: 'g2', partyIds: ['wren'] })],
  ['empty-gate', (d) => d.gates.push({ id: 'g2', partyIds: [] })],
  [
    'initials-unread',
    (d) => (d.rules = d.rules.map((r) => ({ ...r, except: r.partyIds.map((partyId) => ({ page: 2, partyId })) }))),
    [page(), { ...page(), words: ['Buyer\u2019s', 'initials:'] }, page()],
  ],
  [
    'signatures-unread',
    (d) => (d.marks = d.marks.filter((m) => m.kind !== 'signature')),
    [page(), { ...page(), words: ['In', 'witness', 'whereof', 'they', 'sign.'] }, page()],
  ],
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
  ['printed-place-open', () => undefined, undefined, [blank('seller', 1)]],
  ['printed-place-open', () => undefined, undefined, [blank('unknown', 1)]],
  ['mark-outside-act', (d) => (d.parties[1]!.only = [])],
  ['page-left-out', (d) => d.rules[0]!.except.push({ page: 2, partyId: 'wren' })],
  [
    'text-too-long',
    (d) =>
      d.marks.push({
        ...mark('t', 'wren', 'text', 2, at(60, 60, 40, 10)),
        readOnly: true,
        value: 'A sentence that is much too long for so small a box',
      }),
  ],
  [
    'text-too-long',
    (d) =>
      d.marks.push({
        ...mark('t', 'nobody', 'label', 2, at(60, 60, 60, 12)),
        lines: 'several',
        value: 'One line\nand another\nand a third',
      }),
  ],
  ['text-too-long', (d) => d.marks.push(mark('n', 'wren', 'printed_name', 2, at(60, 60, 24, 10)))],
  [
    'signature-parted',
    (d) => {
      d.marks[0]!.rect = at(60, 700, 160, 26);
      d.marks.push(mark('d', 'wren', 'date_signed', 2, at(60, 60)));
    },
  ],
  [
    'date-in-pieces',
    (d) =>
      d.marks.push(
        mark('d1', 'wren', 'date', 2, at(60, 60, 24)),
        mark('d2', 'wren', 'text', 2, at(100, 60, 50)),
        mark('d3', 'wren', 'number', 2, at(170, 60, 24)),
      ),
  ],
  [
    'redline-without-initials',
    (d) =>
      d.redlines.push({
        id: 'r',
        documentId: 'doc',
        page: 2,
        kind: 'strike',
        rects: [at(60, 60)],
        text: 'words',
        moved: [],
      }),
    [page(), full, page()],
  ],
  ['mark-twice', (d) => d.marks.push({ ...d.marks[0]!, id: 's1b', rect: { ...d.marks[0]!.rect, x: 104 } })],
  ['choice-alone', (d) => d.marks.push({ ...mark('c', 'wren', 'choice', 2, at(60, 60, 12, 12)), group: 'g' })],
  ['tag-without-value', (d) => (d.message = 'The price is {price}.')],
  [
    'tag-without-value',
    (d) => d.marks.push({ ...mark('l', 'nobody', 'label', 2, at(60, 60, 200)), required: false, value: '{buyer 1}' }),
  ],
  [
    'countersigner-first',
    (d) => {
      d.parties.push(party('theo', { side: 'listing_broker', ink: 2 }));
      d.marks.push(mark('st', 'theo', 'signature', 2, at(60, 60, 160, 26)));
      d.gates.unshift({ id: 'g0', partyIds: ['theo'] });
    },
  ],
  [
    'same-person-twice',
    (d) => {
      d.parties.push(party('wren2', { name: 'Wren  alder', email: 'WREN@example.com', act: 'copy' }));
    },
  ],
  ['over-limits', (d) => (d.documents = [...d.documents, ...Array.from({ length: 60 }, (_, i) => ({ id: `d${i}` }))])],
  [
    'document-without-marks',
    (d) => {
      d.rules = [];
      d.marks = [];
    },
  ],
  ['form-ended', () => undefined, undefined, undefined, { formEnded: '2026-01-31' }],
  [
    'two-answers-in-one',
    (d) => d.marks.push({ ...mark('t', 'wren', 'text', 1, at(60, 400, 300)), label: 'Name and phone' }),
  ],
  ['lone-last-line', () => undefined, [page(), page([{ x: 72, y: 90, w: 300, h: 11 }])]],
];

const TRIPS = CASES.map(
  ([rule, change, pages, places, more]) =>
    [rule, change, pages ?? [page(), page(), page()], places ?? [], more ?? {}] as const,
);

test('a clean packet shows nothing', () => {
  expect(check().findings).toEqual([]);
});

test.each(TRIPS)('%s is found, with a sentence and a place to go to', (rule, change, pages, places, more) => {
  const found = check(change, pages, places, more).findings.filter((f) => f.rule === rule);
  expect(found.length).toBeGreaterThan(0);
  for (const f of found) expect(f.sentence).toMatch(/^[A-Z0-9“].+[.]$/);
});

test('every rule has a packet that trips it', () => {
  const tripped = new Set(TRIPS.map(([rule]) => rule));
  expect(tripped.size).toBe(CHECK_RULES.length + FORM_ADVICE.length);
});

test.each([
  ['Name and phone', true],
  ['City, state', true],
  ['Phone/Email', true],
  ['Name of the city', false],
  ['Names and addresses', false],
  ['Address', false],
  ['Date of birth and that is all', false],
])('“%s” asks for two things: %s', (label, two) => {
  const { findings } = check((d) => d.marks.push({ ...mark('t', 'wren', 'text', 1, at(60, 400, 300)), label }));
  expect(findings.map((f) => f.rule)).toEqual(two ? ['two-answers-in-one'] : []);
  if (!two) return;
  // In one touch two places side by side, each with its own question.
  const draft = cleanDraft();
  draft.marks.push({ ...mark('t', 'wren', 'text', 1, at(60, 400, 300)), label });
  const made = applyEdits(draft, findings[0]!.mend!.edits);
  expect(made.marks.slice(-2).map((m) => [m.label, m.rect.x, m.rect.w])).toEqual([
    [expect.any(String), 60, 146],
    [expect.any(String), 214, 146],
  ]);
});

test('a last page with three lines, or with a place of its own, is no lone line', () => {
  const lines = (n: number) => page(Array.from({ length: n }, (_, i) => ({ x: 72, y: 90 + i * 16, w: 300, h: 11 })));
  expect(check(undefined, [page(), lines(3)]).findings).toEqual([]);
  expect(check(undefined, [lines(1)]).findings).toEqual([]);
  const own = check((d) => d.marks.push(mark('t', 'wren', 'text', 2, at(60, 400, 300))), [page(), lines(2)]);
  expect(own.findings).toEqual([]);
});

test('stops come before warnings', () => {
  const { findings } = check(
    (d) => (d.parties[0]!.email = ''),
    [page([{ x: 110, y: 605, w: 80, h: 10 }]), page(), page()],
  );
  expect(findings.map((f) => f.severity)).toEqual(['stops', 'warns']);
});

test.each(TRIPS)('where %s has a mend, the mend clears it', (rule, change, pages, places) => {
  const { draft, findings, pages: sheets } = check(change, pages, places);
  for (const f of findings.filter((x) => x.rule === rule && x.mend)) {
    const after = viewDraft(applyEdits(draft, f.mend!.edits), [facts([...sheets], 'doc', 'Disclosure', places)]);
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
  expect(pageRanges([3])).toBe('page 3');
  expect(pageRanges([7, 1, 2, 3])).toBe('pages 1 to 3, 7');
});

test('a printed place is no finding once it is filled, passed over, or belongs to somebody who is not in the packet', () => {
  const places = [blank('seller', 1)];
  const open = (change: (d: Draft) => void, p = places) =>
    check(change, undefined, p).findings.filter((f) => f.rule === 'printed-place-open');
  const both = [blank('seller', 1), blank('seller', 2, 560)];
  const byHand = (d: Draft) =>
    d.marks.push(
      mark('x', 'wren', 'signature', 2, { x: 70, y: 502, w: 150, h: 20 }),
      mark('y', 'callum', 'signature', 2, { x: 70, y: 562, w: 150, h: 20 }),
    );
  expect(open(byHand, both)).toEqual([]);
  expect(open((d) => d.passed.push({ id: 'doc.2.0' }, { id: 'doc.2.1' }), both)).toEqual([]);
  expect(open(() => undefined, [blank('buyer', 1)])).toEqual([]);
  // The form has a line for one seller: the other is missed only once the printed one is taken.
  const taken = acceptEdits(
    proposalsOf(cleanDraft(), [facts([page(), page()], 'doc', 'Disclosure', places)]).slice(0, 1),
    cleanDraft().parties,
  );
  expect(open((d) => Object.assign(d, applyEdits(d, taken))).map((f) => f.sentence)).toEqual([
    'Callum has no signature beside the printed one on page 2 of Disclosure.',
  ]);
  expect(open(() => undefined, [blank('seller', 2)])[0]!.sentence).toBe(
    '1 printed signature line for Callum on page 2 of Disclosure has no mark.',
  );
});

test('what an edit does not touch is not placed anew', () => {
  const a = facts([page(), page()], 'doc');
  const b = facts([page(), page()], 'b');
  const draft = { ...cleanDraft(), documents: [{ id: 'doc' }, { id: 'b' }] };
  draft.rules.push({ ...draft.rules[0]!, id: 'rb', documentId: 'b' });
  const first = viewDraft(draft, [a, b]);
  const again = viewDraft(
    applyEdits(draft, [{ op: 'put', list: 'marks', item: mark('n', 'wren', 'text', 2, at(60, 60)) }]),
    [a, b],
  );
  const inB = (v: typeof first) => v.marks.filter((m) => m.documentId === 'b');
  expect(inB(again).length).toBe(4);
  inB(again).forEach((m, i) => expect(m).toBe(inB(first)[i]));
});

test('after any edits a view that kept what it knew says what one made anew says', () => {
  const paper = () =>
    ['doc', 'b', 'c'].map((id) =>
      facts([page(), page(), page()], id, id, [blank('seller', 1), blank('buyer', 1, 560)]),
    );
  const doc = fc.constantFrom('doc', 'b', 'c');
  const who = fc.constantFrom('wren', 'callum', 'nobody-here');
  const edit: fc.Arbitrary<DraftEdit> = fc.oneof(
    fc
      .record({
        id: fc.constantFrom('m1', 'm2', 'm3', 'm4'),
        documentId: doc,
        partyId: who,
        page: fc.integer({ min: 1, max: 4 }),
        kind: fc.constantFrom('initials' as const, 'signature' as const, 'text' as const, 'label' as const),
        x: fc.integer({ min: -20, max: 600 }),
        y: fc.constantFrom(60, 500, 560, 780),
      })
      .map(({ documentId, x, y, ...m }): DraftEdit => ({
        op: 'put',
        list: 'marks',
        item: { ...mark(m.id, m.partyId, m.kind, m.page, at(x, y)), documentId },
      })),
    fc.constantFrom('m1', 'm2', 'm3').map((id): DraftEdit => ({ op: 'drop', list: 'marks', id })),
    fc
      .record({ documentId: doc, partyIds: fc.uniqueArray(who, { maxLength: 2 }) })
      .map(({ documentId, partyIds }): DraftEdit => ({
        op: 'put',
        list: 'rules',
        item: { id: `r-${documentId}`, documentId, partyIds, anchor: { fx: 0, fy: 1 }, except: [], moved: [] },
      })),
    fc
      .record({ id: who, name: fc.constantFrom('Wren Alder', 'Ada Quill') })
      .map(({ id, name }): DraftEdit => ({ op: 'put', list: 'parties', item: party(id, { name }) })),
    fc.constantFrom('doc.2.0', 'b.2.1').map((id): DraftEdit => ({ op: 'put', list: 'passed', item: { id } })),
    doc.map((id): DraftEdit => ({ op: 'put', list: 'documents', item: { id } })),
    fc.constant<DraftEdit>({ op: 'drop', list: 'documents', id: 'b' }),
  );
  fc.assert(
    fc.property(fc.array(edit, { minLength: 2, maxLength: 12 }), (edits) => {
      const kept = paper();
      let draft = cleanDraft();
      for (const e of edits) {
        draft = applyEdits(draft, [e]);
        const again = viewDraft(draft, kept);
        const anew = viewDraft(structuredClone(draft), paper());
        expect(again.findings).toEqual(anew.findings);
        expect(again.proposals).toEqual(anew.proposals);
        expect(again.ledger).toEqual(anew.ledger);
        expect(again.ledger).toEqual(
          buildLedger({
            documents: again.documents.map((d) => ({ id: d.id, pageCount: d.pages.length })),
            partyIds: again.ledger.partyIds,
            marks: again.marks,
            rules: draft.rules,
            filled: new Set(),
          }),
        );
      }
    }),
    { numRuns: 120 },
  );
});
