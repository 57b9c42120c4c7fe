/**
 * ESLint rules that hold the code to docs/glossary.md: a declared name, or a file's, must not use a word for something that
 * has another word. Only words that a list can judge are here; the glossary has all of them.
 */
import path from 'node:path';

/** Patterns over names, with the word to use. Names of other people's interfaces and of stored data are excepted. */
const WORDS = [
  [/^(?:keep|kept)[A-Z]|[a-z](?:Keep|Kept)(?:[A-Z]|$)/, 'save, cache, retain or reuse', /^(?:keepAlive|codeKept)$/],
  [/^(?:drop|forget|throwAway|letGo|takeAway)[A-Z]/, 'delete, remove or release', /^drop(?:down|zone)/i],
  [/^(?:tell|told)[A-Z]/, 'notify or report'],
  [/^look(?:At|Again|Through|In|Ahead)(?:[A-Z]|$)|(?:^|[a-z])Look$/, 'compute, read or appearance', /^set/],
  [/^(?:pass|Pass)(?:es|Row|Id|Of)?(?:[A-Z]|$)/, 'link', /^(?:pass|password|passphrase)$/i],
  [/Standing(?:s|$)|^standing(?:s|Of|On)?$/, 'status'],
  [/^house$|^house[A-Z]/, 'firm', /^(?:houseRules|household)/],
  [/^(?:remind|Remind)(?:er|ers)?(?:[A-Z]|$)/, 'nudge'],
  [/^check(?:Value|Copy|Seal|Seals|Cms|Paper|Returned)(?:[A-Z]|$)/, 'validate, verify or review'],
];

/** The same over names of files and folders, without their endings. */
const FILES = [
  [/(?:^|-)(?:passes|pass)(?:-|$)/, 'link'],
  [/(?:^|-)standing(?:-|$)/, 'status', /^standing-still$/],
  [/^(?:look|looks)$/, 'appearance'],
  [/^(?:keep|kept|drop)(?:-|$)/, 'save, reuse, delete or remove'],
];

const wordFor = (list, name) => list.find(([no, , but]) => no.test(name) && !but?.test(name))?.[1];

const DECLARED = new Set([
  'FunctionDeclaration',
  'ClassDeclaration',
  'TSInterfaceDeclaration',
  'TSTypeAliasDeclaration',
  'VariableDeclarator',
]);

const vocabulary = {
  meta: {
    type: 'problem',
    schema: [],
    messages: { word: '“{{name}}” uses a second word for one thing: {{use}} (docs/glossary.md).' },
  },
  create(context) {
    const judge = (node, name) => {
      const use = wordFor(WORDS, name);
      if (use) context.report({ node, messageId: 'word', data: { name, use } });
    };
    const declared = (node) => {
      const id = node.id ?? node.key;
      if (id?.type === 'Identifier') judge(id, id.name);
    };
    return {
      Program(node) {
        const name = path.basename(context.filename).split('.', 1)[0];
        const use = wordFor(FILES, name);
        if (use) context.report({ node, messageId: 'word', data: { name, use } });
      },
      ...Object.fromEntries([...DECLARED].map((type) => [type, declared])),
      MethodDefinition: declared,
      TSPropertySignature: declared,
      TSMethodSignature: declared,
    };
  },
};

export default { rules: { vocabulary } };
