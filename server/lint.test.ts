/** The lint holds names to the glossary, and promises to be awaited: what it refuses is planted here. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Linter } from 'eslint';

const ROOT = path.join(__dirname, '..');
let words: object;
let layout: object;
let docs: object;
beforeAll(async () => {
  const rules = async (name: string) => (await import(path.join(ROOT, 'scripts', 'lint', name))).default;
  words = await rules('vocabulary.mjs');
  layout = await rules('layout.mjs');
  docs = await rules('docstrings.mjs');
});

const said = (code: string, file = 'core/deal/facts.ts', rule = 'words/vocabulary'): string[] =>
  new Linter()
    .verify(
      code,
      [
        {
          files: ['**/*.{ts,tsx}'],
          languageOptions: { parserOptions: { ecmaFeatures: { jsx: true } } },
          plugins: { words, layout, docs },
          rules: { [rule]: 'error' },
        },
      ] as never,
      file,
    )
    .map((m) => m.message);

test.each([
  ['function keepRule() {}', 'save, cache, retain or reuse'],
  ['function dropDraft() {}', 'delete, remove or release'],
  ['const tellOf = 1;', 'notify or report'],
  ['function lookAtDeal() {}', 'compute, read or appearance'],
  ['class PassRow {}', 'link'],
  ['const standing = 1;', 'status'],
  ['const reminders = 1;', 'nudge'],
  ['class A { checkValue() {} }', 'validate, verify or review'],
])('a second word for one thing is refused: %s', (code, use) => {
  expect(said(code)).toEqual([expect.stringContaining(use)]);
});

test('names that only contain such a word, and other people’s names, are let be', () => {
  expect(said('const keepAlive = 1; const password = 2; function looks() {} const checkList = [];')).toEqual([]);
});

test('a file named by a second word is refused', () => {
  expect(said('', 'server/links/passes.ts')).toEqual([expect.stringContaining('link')]);
  expect(said('', 'server/links/links.ts')).toEqual([]);
});

test.each([
  ['<Button>Save tags</Button>', 'Save tags'],
  ['<Input label="Street address" />', 'Street address'],
  ["<Body>{'Nothing yet.'}</Body>", 'Nothing yet.'],
  ["<Pill label={'Open'} />", 'Open'],
])('text in JSX is refused: %s', (code, text) => {
  expect(said(`const x = ${code};`, 'app/features/deals/x.tsx', 'words/literal-text')).toEqual([
    expect.stringContaining(text),
  ]);
});

test.each([
  ["export const said = 'Nothing was sent.';", 'Nothing was sent.'],
  ['export const said = (n) => `${n} selected`;', 'selected'],
  ["export const said = { label: `Sent to ${'x'}` };", 'Sent to'],
])('text beside JSX is refused: %s', (code, text) => {
  expect(said(code, 'app/features/deals/x.ts', 'words/literal-text')).toEqual([expect.stringContaining(text)]);
});

test('words handed to a sentence are refused, each branch of a choice too', () => {
  const code = "export const x = TEXT.asked(name, n === 1 ? 'is' : 'are', 'now', '', `${n}`);";
  expect(said(code, 'app/features/deals/x.ts', 'words/literal-text')).toHaveLength(3);
});

test.each([
  '/** The bytes of a file. */\nfunction read() {}',
  '/** Whether it is there. */\nexport const isThere = () => true;',
  '/** Pages of a list. */\nexport function pages() {}',
  '/** @param n a number */\nexport function part(n) {}',
  'class A {\n/** Its age. */\nage() {} }',
])('a docstring that does not begin with a verb is refused: %s', (code) => {
  expect(said(code, 'core/deal/x.ts', 'docs/verb')).toHaveLength(1);
});

test('a verb, a component, a constant and a function without a docstring are let be', () => {
  const code = `
    /** Returns the bytes. */ export function read() {}
    /** Adds, moves and removes marks. */ const change = () => 1;
    /** One act. */ function ActRow() {}
    /** The largest. */ const most = 5;
    // The usual.
    function usual() {}`;
  expect(said(code, 'core/deal/x.ts', 'docs/verb')).toEqual([]);
});

test('styles, addresses and keys are no text', () => {
  const code = "export const x = [`1px solid ${'a'}`, `drop ${'a'}`, `/deals/${'a'}`, '0 auto', 'nearest', 'a.b'];";
  expect(said(code, 'app/features/deals/x.ts', 'words/literal-text')).toEqual([]);
});

test('names in JSX that nobody reads are let be', () => {
  const code = 'const x = <Button kind="quiet" testID="Save Tags" style="A b">{TEXT.saveTags} · {n}</Button>;';
  expect(said(code, 'app/features/deals/x.tsx', 'words/literal-text')).toEqual([]);
});

test('a view that only places others is refused, and one with a look of its own is not', () => {
  const faults = (style: string) =>
    said(`const x = <View style={{ ${style} }} />;`, 'app/ui/x.tsx', 'layout/primitive');
  expect(faults("flexDirection: 'row', gap: 10")).toEqual([expect.stringContaining('Use Row')]);
  expect(faults('flex: 1')).toHaveLength(1);
  expect(faults("flexDirection: 'row', borderTopWidth: 1")).toEqual([]);
});

test.each([
  ['fetch("/x");', 'no-floating-promises'],
  ['["a"].forEach(async () => { await fetch("/x"); });', 'no-misused-promises'],
])('a promise that nobody awaits is refused: %s', (code, rule) => {
  const dir = mkdtempSync(path.join(tmpdir(), 'gatepath-lint-'));
  writeFileSync(path.join(dir, 'tsconfig.json'), JSON.stringify({ compilerOptions: { lib: ['ES2023', 'DOM'] } }));
  writeFileSync(path.join(dir, 'planted.ts'), `export function planted() {\n  ${code}\n}\n`);
  const config = path.join(ROOT, '.oxlintrc.json');
  const bin = path.join(ROOT, 'node_modules', '.bin');
  // It looks for its other half on the path.
  const env = { ...process.env, PATH: `${bin}${path.delimiter}${process.env['PATH'] ?? ''}` };
  const args = ['--type-aware', '-c', config, 'planted.ts'];
  const { status, stdout } = spawnSync(path.join(bin, 'oxlint'), args, { cwd: dir, env });
  expect([status, stdout.toString()]).toEqual([1, expect.stringContaining(rule)]);
});
