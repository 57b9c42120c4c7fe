import { cleanDraft } from '../core/test/support';
import { emptyGrid, inkRect, packGrid } from '@gatepath/core/paper';
import { editsBody, handBody, partyBody, urlOf, pathWith, setupBody, unpackFacts } from './index';
import { allRoutes, openApi, problemsOf, PROBLEMS } from './routes-entry';

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
    company: '',
    capacity: '',
    personId: null,
  });
});

test('paths are filled in and escaped; a forgotten name is an error', () => {
  expect(urlOf('fill', { token: 'a b', markId: 'x/y' })).toBe('/api/signing/a%20b/marks/x%2Fy');
  expect(() => pathWith('fill', { token: 'a' })).toThrow('markId');
  const seen = allRoutes.map(([, r]) => `${r.method} ${r.path}`);
  expect(new Set(seen).size).toBe(seen.length);
});

type Described = {
  paths: Record<
    string,
    Record<
      string,
      {
        parameters: { name: string; in: string; required: boolean }[];
        requestBody?: { content: Record<string, { schema: { oneOf?: object[]; properties?: object } }> };
        security: object[];
        responses: Record<string, { content?: object }>;
      }
    >
  >;
};
const description = openApi('1', 'https://gate.test') as Described;

test('the API’s description is one by an independent validator’s judgement, and tells of every route', async () => {
  const { Validator } = await import('@seriousme/openapi-schema-validator');
  expect(await new Validator().validate(structuredClone(description))).toMatchObject({ valid: true });
  // The control: it does find fault.
  const broken = { ...description, paths: { deals: { get: { responses: 1 } } } };
  expect(await new Validator().validate(broken)).toMatchObject({ valid: false });
  for (const [, r] of allRoutes)
    expect(description.paths[r.path.replace(/:(\w+)/g, '{$1}')]).toHaveProperty(r.method.toLowerCase());
});

test('the description tells who may come, what goes in, what comes out and what goes wrong', () => {
  const { paths } = description;
  expect(paths['/deals']!['get']!.security).toEqual([{ session: [] }]);
  expect(paths['/signing/{token}']!['get']!.security).toEqual([]);
  expect(paths['/deals/{dealId}/documents']!['post']!.requestBody!.content).toHaveProperty(['multipart/form-data']);
  expect(Object.keys(paths['/documents/{documentId}']!['delete']!.responses)).toContain('204');
  const change = paths['/packets/{packetId}/changes']!['post']!.requestBody!.content['application/json']!.schema;
  expect(change.oneOf).toHaveLength(15);
  expect(paths['/documents/{documentId}/pages/{page}']!['get']!.parameters).toMatchObject([
    { name: 'documentId', in: 'path', required: true, schema: { type: 'string' } },
    { name: 'page', in: 'path', required: true, schema: { type: 'integer', minimum: 1 } },
    { name: 'dpi', in: 'query', required: false, schema: { type: 'number', default: 108 } },
  ]);
  const told = (status: number) => JSON.stringify(paths['/packets/{packetId}/send']!['post']!.responses[status]);
  expect(told(409)).toContain('/problems/warnings');
  expect(told(422)).toContain('/problems/gate-check');
});

test('every problem has a route that may answer with it', () => {
  const told = new Set(allRoutes.flatMap(([, r]) => problemsOf(r)));
  expect(Object.keys(PROBLEMS).filter((code) => !told.has(code as keyof typeof PROBLEMS))).toEqual([]);
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
