/** Use cases say which problems they throw: what a file throws is compared with what its docstrings say. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

/** Files that turn errors of any kind into answers, or assemble routes. */
const NOT_USE_CASES = ['api.ts', 'problem.ts', 'http/', 'work/failure.ts', 'signing/visit.ts', 'test/', 'work/built/'];

/** Returns the kinds of problem that functions of a file throw and do not mention, as "function: kind, kind". */
function unmentioned(text: string): string[] {
  const file = ts.createSourceFile('x.ts', text, ts.ScriptTarget.Latest, true);
  const functions = new Map<string, { node: ts.Node; kinds: Set<string>; calls: Set<string> }>();
  const add = (name: string, node: ts.Node) => {
    const found = { node, kinds: new Set<string>(), calls: new Set<string>() };
    const walk = (n: ts.Node): void => {
      const [first, second] = ts.isNewExpression(n) || ts.isCallExpression(n) ? (n.arguments ?? []) : [];
      const called = ts.isNewExpression(n) || ts.isCallExpression(n) ? n.expression.getText() : '';
      const kind = called === 'Problem' ? first : called === 'clientProblem' ? second : undefined;
      if (kind && ts.isStringLiteral(kind)) found.kinds.add(kind.text);
      if (called === 'notFound') found.kinds.add('not-found');
      if (ts.isCallExpression(n)) found.calls.add(called);
      ts.forEachChild(n, walk);
    };
    walk(node);
    functions.set(name, found);
  };
  for (const n of file.statements) {
    if (ts.isFunctionDeclaration(n) && n.name) add(n.name.text, n);
    if (ts.isVariableStatement(n))
      for (const d of n.declarationList.declarations)
        if (d.initializer && ts.isArrowFunction(d.initializer)) add(d.name.getText(), n);
  }
  for (let grew = true; grew;) {
    grew = false;
    for (const { kinds, calls } of functions.values())
      for (const call of calls)
        for (const kind of functions.get(call)?.kinds ?? []) {
          grew ||= !kinds.has(kind);
          kinds.add(kind);
        }
  }
  const docOf = (node: ts.Node) =>
    (ts.getLeadingCommentRanges(text, node.pos) ?? []).map((r) => text.slice(r.pos, r.end)).join('');
  /** Returns the docstring with those of functions it refers to ("those of `enter`"). */
  const docsOf = (node: ts.Node): string =>
    docOf(node).replace(/those of\s+(?:\*\s+)?`(\w+)`/g, (_, other: string) => docOf(functions.get(other)!.node));
  return [...functions].flatMap(([name, { node, kinds }]) => {
    const exported = ts.canHaveModifiers(node) && ts.getModifiers(node)?.some((m) => m.getText() === 'export');
    const missing = [...kinds].filter((kind) => !docsOf(node).includes(`\`${kind}\``));
    return exported && missing.length ? [`${name}: ${missing.join(', ')}`] : [];
  });
}

test('every exported function mentions the problems that its file throws in it', () => {
  const files = readdirSync(__dirname, { recursive: true, encoding: 'utf8' }).filter(
    (f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !NOT_USE_CASES.some((n) => f.startsWith(n)),
  );
  expect(files.length).toBeGreaterThan(150);
  const all = files.flatMap((f) =>
    unmentioned(readFileSync(path.join(__dirname, f), 'utf8')).map((missing) => `${f} ${missing}`),
  );
  expect(all).toEqual([]);
});

test('one that says nothing of what it throws, or leaves one out, is found', () => {
  const inner = "function inner() { throw new Problem('late', 'Too late.'); }\n";
  expect(unmentioned(`${inner}/** Saves it. @throws Problem \`late\` */ export const save = () => inner();`)).toEqual(
    [],
  );
  expect(unmentioned(`${inner}/** Saves it. */ export function save() { inner(); throw notFound('It'); }`)).toEqual([
    'save: not-found, late',
  ]);
  expect(
    unmentioned(
      `${inner}/** A. @throws Problem \`late\` */ export const a = () => inner();\n/** B. @throws Problem those of \`a\` */ export const b = () => a();`,
    ),
  ).toEqual([]);
});
