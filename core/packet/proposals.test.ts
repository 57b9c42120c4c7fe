import fc from 'fast-check';
import { facts, page, party } from '../test/support';
import type { PrintedPlace } from '../reading/types';
import { applyEdits, emptyDraft, type Draft } from './draft';
import { overlapArea } from '../paper/geometry';
import { peopleWithoutLine } from './further';
import type { Proposal } from './proposal';
import { acceptEdits, canAccept, isSure, leaveOutEdits, proposalsOf, twinsOf } from './proposals';
import { resolveMarks } from './resolve';
import type { Rect } from '../paper/types';

const place = (
  kind: PrintedPlace['kind'],
  ordinal: number | null,
  rect: Rect,
  more: Partial<PrintedPlace> = {},
): PrintedPlace => ({
  page: 1,
  kind,
  role: 'seller',
  ordinal,
  rect,
  label: kind,
  source: 'print',
  confidence: 0.9,
  ...more,
});
/** A form for two sellers: signature and date lines, and initials at the foot. */
const twoLines = [1, 2].flatMap((o) => [
  place('signature', o, { x: 66, y: 180 + o * 54, w: 240, h: 24 }),
  place('date', o, { x: 340, y: 188 + o * 54, w: 120, h: 16 }),
  place('initials', o, { x: 100 + o * 40, y: 740, w: 28, h: 14 }),
]);
const lines = twoLines.map((p) => ({ x: p.rect.x, y: p.rect.y + p.rect.h, w: p.rect.w, h: 1 }));
const sheet = () => page([...lines, { x: 66, y: 60, w: 480, h: 120 }, { x: 66, y: 400, w: 480, h: 200 }]);

function packet(sellers: number, places = twoLines, sheets = [sheet()]) {
  const draft: Draft = {
    ...emptyDraft('Papers'),
    documents: [{ id: 'doc' }],
    parties: Array.from({ length: sellers }, (_, i) =>
      party(`s${i + 1}`, { ordinal: i + 1, name: `Seller ${i + 1} Alder`, ink: i }),
    ),
  };
  const doc = facts(sheets, 'doc', 'Form', places);
  return { draft, doc };
}

test('places go to the people their captions name, and become marks only when accepted', () => {
  const { draft, doc } = packet(2);
  const open = proposalsOf(draft, [doc]);
  expect(open.map((p) => [p.kind, p.partyId, p.state])).toEqual([
    ['signature', 's1', 'open'],
    ['date_signed', 's1', 'open'],
    ['initials', 's1', 'open'],
    ['signature', 's2', 'open'],
    ['date_signed', 's2', 'open'],
    ['initials', 's2', 'open'],
  ]);
  expect(resolveMarks(draft, [doc]).marks).toEqual([]);
  const after = applyEdits(draft, acceptEdits(open.filter(canAccept), draft.parties));
  expect(after.marks).toHaveLength(6);
  expect(proposalsOf(after, [doc]).every((p) => p.state === 'accepted')).toBe(true);
  // Two people accepting at the same time put the same marks.
  expect(applyEdits(after, acceptEdits(open, draft.parties)).marks).toHaveLength(6);
});

test('what is passed over stays passed over, and can be taken back by accepting it', () => {
  const { draft, doc } = packet(2);
  const all = proposalsOf(draft, [doc]);
  const passed = applyEdits(draft, leaveOutEdits(all));
  expect(proposalsOf(passed, [doc]).map((p) => p.state)).toEqual(Array(6).fill('passed'));
  const back = applyEdits(passed, acceptEdits([proposalsOf(passed, [doc])[0]!], draft.parties));
  expect(proposalsOf(back, [doc])[0]!.state).toBe('accepted');
});

test('what is doubtful is not accepted together with others, and a date of the text is nobody’s day of signing', () => {
  const at = (y: number) => ({ x: 66, y, w: 200, h: 20 });
  const { draft, doc } = packet(1, [
    place('signature', 1, at(200), { confidence: 0.6 }),
    place('initials', 1, at(240)),
    place('text', 1, at(280), { confidence: 0.35 }),
    place('date', 1, at(320), { signed: false }),
    place('date', 1, at(360), { signed: true }),
    place('name', 1, at(400), { confidence: 0.6 }),
    place('text', 1, at(440), { confidence: 0.35, role: 'unknown', ordinal: null }),
  ]);
  const all = proposalsOf(draft, [doc]);
  expect(all.map((p) => [p.kind, canAccept(p), isSure(p)])).toEqual([
    ['signature', true, false],
    ['initials', true, true],
    ['text', true, false],
    ['date', true, true],
    ['date_signed', true, true],
    ['printed_name', true, false],
    ['text', false, false],
  ]);
  // What is nobody's is to be filled in by the sender: there is nothing to be uncertain about.
  expect(all.map((p) => p.doubtful ?? false)).toEqual([true, false, true, false, false, true, false]);
});

test('uncertain places at one spot of several pages are decided together, and nothing else with them', () => {
  const foot = (page: number, more: Partial<PrintedPlace> = {}) =>
    place('initials', 1, { x: 66, y: 740, w: 40, h: 16 }, { page, confidence: 0.5, ...more });
  const places = [
    foot(1),
    foot(2, { rect: { x: 68, y: 739, w: 40, h: 16 } }),
    foot(3, { rect: { x: 90, y: 740, w: 40, h: 16 } }),
    foot(3, { ordinal: 2 }),
    foot(4, { kind: 'signature' }),
    foot(5, { confidence: 0.9 }),
    foot(1, { rect: { x: 66, y: 741, w: 40, h: 16 } }),
  ];
  const { draft, doc } = packet(2, places, [1, 2, 3, 4, 5].map(sheet));
  const all = proposalsOf(draft, [doc]);
  const pages = (p: Proposal) => twinsOf(p, all).map((o) => all.indexOf(o));
  expect(pages(all[0]!)).toEqual([0, 1]);
  expect(pages(all[1]!)).toEqual([0, 1, 6]);
  expect(pages(all[5]!)).toEqual([5]);
  // What is decided already stays as it is.
  const decided = applyEdits(draft, acceptEdits([all[1]!], draft.parties));
  const later = proposalsOf(decided, [doc]);
  expect(twinsOf(later[0]!, later)).toEqual([later[0]]);
});

test('an uncertain place names what else it may be, and one touch gives it and its twins to that person', () => {
  const foot = (page: number, more: Partial<PrintedPlace> = {}) =>
    place('initials', 1, { x: 66, y: 740, w: 40, h: 16 }, { page, confidence: 0.5, ...more });
  const second = { kind: 'initials', role: 'seller', ordinal: 2 } as const;
  const places = [
    foot(1, { other: second }),
    foot(2, { other: second }),
    foot(3),
    // Of one who is not in the packet, of what is certain, and of the same again, nothing else is offered.
    foot(4, { other: { ...second, ordinal: 5 } }),
    foot(5, { other: second, confidence: 0.9 }),
    foot(6, { other: { ...second, ordinal: 1 } }),
  ];
  const { draft, doc } = packet(2, places, [1, 2, 3, 4, 5, 6].map(sheet));
  const all = proposalsOf(draft, [doc]).filter((p) => !p.beside);
  expect(all.map((p) => p.other)).toEqual([
    { kind: 'initials', partyId: 's2' },
    { kind: 'initials', partyId: 's2' },
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  const twins = twinsOf(all[0]!, all);
  expect(twins).toEqual(all.slice(0, 2));
  const { partyId, kind } = all[0]!.other!;
  const after = applyEdits(draft, acceptEdits(twins, draft.parties, { partyId, kind }));
  expect(after.marks.map((m) => [m.page, m.partyId, m.kind])).toEqual([
    [1, 's2', 'initials'],
    [2, 's2', 'initials'],
  ]);
});

test('the uncertain day on the row of an uncertain signature is decided with it, and stays a day', () => {
  const other = { kind: 'name', role: 'seller', ordinal: 2 } as const;
  const at = (x: number, y: number) => ({ x, y, w: 120, h: 20 });
  const places = [
    place('signature', 1, at(66, 200), { confidence: 0.5, other }),
    place('date', 1, at(300, 202), { signed: true, confidence: 0.5, other: { ...other, kind: 'date' } }),
    place('date', 1, at(300, 260), { signed: true, confidence: 0.5, other: { ...other, kind: 'date' } }),
    place('date', 1, at(440, 202), { signed: true }),
  ];
  const { draft, doc } = packet(2, places);
  const all = proposalsOf(draft, [doc]).filter((p) => !p.beside);
  expect(all.map((p) => p.doubtful ?? false)).toEqual([true, true, true, false]);
  const together = twinsOf(all[0]!, all);
  expect(together).toEqual(all.slice(0, 2));
  expect(twinsOf(all[1]!, all)).toEqual([all[1]]);
  const { partyId, kind } = all[0]!.other!;
  const { marks } = applyEdits(draft, acceptEdits(together, draft.parties, { partyId, kind }));
  expect(marks.map((m) => [m.kind, m.partyId])).toEqual([
    ['printed_name', 's2'],
    ['date_signed', 's2'],
  ]);
});

test('a place can be given to another person and be of another kind', () => {
  const { draft, doc } = packet(2);
  const [first] = proposalsOf(draft, [doc]);
  const after = applyEdits(draft, acceptEdits([first!], draft.parties, { partyId: 's2', kind: 'initials' }));
  expect(after.marks).toMatchObject([{ partyId: 's2', kind: 'initials', rect: first!.rect }]);
});

test('“seller or landlord” is whoever of them is in the packet; strangers are told apart', () => {
  const lease = [place('signature', 1, { x: 66, y: 200, w: 240, h: 24 }, { label: 'Seller or landlord' })];
  const { draft, doc } = packet(0, lease);
  draft.parties = [party('lan', { side: 'landlord' })];
  expect(proposalsOf(draft, [doc])[0]).toMatchObject({ partyId: 'lan', stranger: false });
  draft.parties = [party('bo', { side: 'buyer' })];
  expect(proposalsOf({ ...draft }, [doc])[0]).toMatchObject({ partyId: null, stranger: true });
});

test('five sellers on a form for two: everybody has the same kinds, named underneath', () => {
  const { draft, doc } = packet(5);
  const all = proposalsOf(draft, [doc]);
  const after = applyEdits(draft, acceptEdits(all.filter(canAccept), draft.parties));
  for (const p of draft.parties) {
    const mine = after.marks.filter((m) => m.partyId === p.id && m.kind !== 'label');
    expect(mine.map((m) => m.kind).sort()).toEqual(['date_signed', 'initials', 'signature']);
  }
  const names = after.marks.filter((m) => m.kind === 'label');
  expect(names.map((m) => m.value).sort()).toEqual([
    'Seller 3 Alder',
    'Seller 3 Alder',
    'Seller 4 Alder',
    'Seller 4 Alder',
    'Seller 5 Alder',
    'Seller 5 Alder',
  ]);
  expect(proposalsOf(after, [doc]).every((p) => p.state === 'accepted')).toBe(true);
});

test('places that the product adds never touch print, nor each other', () => {
  const boxes = fc.array(
    fc.record({
      x: fc.integer({ min: 20, max: 520 }),
      y: fc.integer({ min: 20, max: 740 }),
      w: fc.integer({ min: 20, max: 300 }),
      h: fc.integer({ min: 6, max: 40 }),
    }),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(boxes, fc.integer({ min: 3, max: 8 }), (print, sellers) => {
      const clear = print.filter((b) => !twoLines.some((p) => overlapArea(b, p.rect) > 0));
      const { draft, doc } = packet(sellers, twoLines, [page([...lines, ...clear])]);
      const added = proposalsOf(draft, [doc]).filter((p) => /\.x\./.test(p.id));
      const rects = added.flatMap((p) => [p.rect, ...(p.nameAt ? [p.nameAt] : [])]);
      rects.forEach((r, i) => {
        for (const b of [...clear, ...lines]) expect(overlapArea(r, b)).toBe(0);
        for (const p of twoLines) expect(overlapArea(r, p.rect)).toBe(0);
        rects.slice(i + 1).forEach((o) => expect(overlapArea(r, o)).toBeLessThan(0.01));
        expect(r.x >= 0 && r.y >= 0 && r.x + r.w <= 612 && r.y + r.h <= 792).toBe(true);
      });
    }),
    { numRuns: 60 },
  );
});

test('yes, no and unknown on one row are choices of one question; other boxes are ticks of their own', () => {
  const box = (label: string, x: number, y: number) =>
    place('checkbox', null, { x, y, w: 9, h: 9 }, { role: 'unknown', label });
  const { draft, doc } = packet(1, [
    box('Yes', 400, 100),
    box('No', 440, 100.5),
    box('Yes', 400, 130),
    box('No', 440, 130),
    box('Smoke alarms', 60, 200),
  ]);
  const read = proposalsOf(draft, [doc]);
  expect(read.map((p) => p.kind)).toEqual(['choice', 'choice', 'choice', 'choice', 'tick']);
  const after = applyEdits(draft, acceptEdits(read, draft.parties, { partyId: 's1' }));
  expect(new Set(after.marks.map((m) => m.group)).size).toBe(3);
  expect(after.marks.every((m) => m.partyId === 's1' && !m.required)).toBe(true);
});

test('who has no line and no room beside the printed ones is told of, and stands in no far corner of the page', () => {
  const full = page([{ x: 0, y: 0, w: 612, h: 660 }, ...lines]);
  const { draft, doc } = packet(4, twoLines, [full]);
  const all = proposalsOf(draft, [doc]);
  expect(all.filter((p) => p.beside && p.kind === 'signature')).toEqual([]);
  expect(peopleWithoutLine(draft, doc, all, []).map((p) => p.id)).toEqual(['s3', 's4']);
  // Placed by hand, or excused from this paper, nobody misses a line.
  const mark = { ...applyEdits(draft, acceptEdits(all.slice(0, 1), draft.parties)).marks[0]!, partyId: 's3' };
  draft.parties[3]!.only = ['another'];
  expect(peopleWithoutLine(draft, doc, proposalsOf({ ...draft }, [doc]), [mark])).toEqual([]);
  // A paper on which a role has no line at all is not for that role to sign.
  const buyers = { ...draft, parties: [party('b1', { side: 'buyer' })] };
  expect(peopleWithoutLine(buyers, doc, proposalsOf(buyers, [doc]), [])).toEqual([]);
});
