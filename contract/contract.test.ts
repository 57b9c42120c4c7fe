import { cleanDraft } from '../core/test-support';
import { emptyGrid, inkRect, packGrid } from '@gatepath/core/paper';
import {
  editsBody,
  handBody,
  jsonSchema,
  openApi,
  partyBody,
  pathOf,
  routes,
  sendBody,
  setupBody,
  unpackFacts,
} from './index';

const edits = (...list: unknown[]) => editsBody.isValidSync({ edits: list });

test('every kind of edit a draft can hold passes, and nothing else does', () => {
  const d = cleanDraft();
  for (const list of ['parties', 'documents', 'gates', 'marks', 'rules'] as const)
    for (const item of d[list]) expect([list, edits({ op: 'put', list, item })]).toEqual([list, true]);
  expect(edits({ op: 'drop', list: 'marks', id: 's1' }, { op: 'set', field: 'name', value: 'Papers' })).toBe(true);
  expect(edits()).toBe(false);
  expect(edits({ op: 'set', field: 'status', value: 'executed' })).toBe(false);
  expect(edits({ op: 'put', list: 'events', item: { id: 'x' } })).toBe(false);
  expect(edits({ op: 'drop', list: 'marks', id: '../etc' })).toBe(false);
  const mark = d.marks[0]!;
  expect(edits({ op: 'put', list: 'marks', item: { ...mark, page: 0 } })).toBe(false);
  expect(edits({ op: 'put', list: 'marks', item: { ...mark, rect: { ...mark.rect, w: -5 } } })).toBe(false);
  expect(edits({ op: 'put', list: 'marks', item: { ...mark, kind: 'stamp' } })).toBe(false);
  // What nobody asked for is dropped at the edge and never stored.
  const kept = editsBody.validateSync({ edits: [{ op: 'put', list: 'marks', item: { ...mark, secret: 1 } }] });
  expect(JSON.stringify(kept)).not.toContain('secret');
});

test.each([
  [{ form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' }, true],
  [{ form: 'typed', face: 'papyrus', signature: 'Wren Alder', initials: 'WA' }, false],
  [{ form: 'typed', face: 'caveat', signature: '', initials: 'WA' }, false],
  [{ form: 'typed', face: 'caveat', signature: 'Wren', initials: 'far too long' }, false],
  [{ form: 'drawn', signature: box([[1, 2, 3, 4]]), initials: box([[5, 6]]), initialsText: 'WA' }, true],
  [{ form: 'drawn', signature: box([]), initials: box([[5, 6]]), initialsText: 'WA' }, false],
  [{ form: 'drawn', signature: box([[1, 2, 3]]), initials: box([[5, 6]]), initialsText: 'WA' }, false],
  [{ form: 'picture' }, false],
])('hand %j: %s', (hand, ok) => expect(handBody.isValidSync(hand)).toBe(ok));

function box(strokes: number[][]) {
  return { width: 300, height: 100, strokes };
}

test('what is wrong is said by field, in words', () => {
  const fields = (schema: { validateSync(v: unknown, o: object): unknown }, value: unknown) => {
    try {
      schema.validateSync(value, { abortEarly: false });
      return {};
    } catch (e) {
      return Object.fromEntries(
        (e as { inner: { path: string; message: string }[] }).inner.map((i) => [i.path, i.message]),
      );
    }
  };
  expect(fields(partyBody, { side: 'seller', name: ' ', email: 'wren at home' })).toEqual({
    name: 'Give a name.',
    email: expect.stringContaining('not an email address'),
  });
  expect(Object.keys(fields(setupBody, {})).sort()).toEqual(['email', 'firmName', 'name', 'password', 'timeZone']);
  expect(partyBody.cast({ side: 'seller', name: ' Wren ' })).toEqual({
    side: 'seller',
    name: 'Wren',
    email: '',
    phone: null,
  });
});

test('paths are filled in and escaped; a forgotten name is an error', () => {
  expect(pathOf('fill', { token: 'a b', markId: 'x/y' })).toBe('/api/signing/a%20b/marks/x%2Fy');
  expect(() => pathOf('fill', { token: 'a' })).toThrow('markId');
  const seen = Object.values(routes).map((r) => `${r.method} ${r.path}`);
  expect(new Set(seen).size).toBe(seen.length);
});

test('schemas become JSON Schema with their limits', () => {
  expect(jsonSchema(sendBody)).toEqual({
    type: 'object',
    properties: { version: { type: 'integer', minimum: 1 }, despiteWarnings: { type: 'boolean' } },
    required: ['version'],
  });
  const doc = openApi('1', 'https://gate.test') as {
    paths: Record<string, Record<string, { requestBody?: unknown; security?: unknown }>>;
  };
  expect(doc.paths['/api/deals']!.post!.requestBody).toBeDefined();
  expect(doc.paths['/api/deals']!.get!.security).toEqual([{ session: [] }]);
  expect(doc.paths['/api/signing/{token}']!.get!.security).toBeUndefined();
});

test('page facts come out of their travelling form as they went in', () => {
  const ink = emptyGrid(60, 30);
  inkRect(ink, { x: 5, y: 5, w: 20, h: 10 });
  const facts = unpackFacts('d', 'Paper', {
    cell: 3,
    places: [],
    pages: [
      {
        width: 60,
        height: 30,
        cols: ink.cols,
        rows: ink.rows,
        words: 'Seller',
        ink: packGrid(ink),
        print: [5, 5, 20, 10, 30, 5, 8, 10],
      },
    ],
  });
  expect(facts.pages[0]).toEqual({
    width: 60,
    height: 30,
    words: ['Seller'],
    ink,
    print: [
      { x: 5, y: 5, w: 20, h: 10 },
      { x: 30, y: 5, w: 8, h: 10 },
    ],
  });
});
