/**
 * ESLint rules about words. `vocabulary` holds declared names and file names to docs/glossary.md, as far as a list can
 * judge. `literal-text` keeps what people read out of screens, so that each folder's words stand together in its `words.ts`.
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

/** Attributes whose text people read. */
const SHOWN = new Set(['label', 'title', 'placeholder', 'hint', 'more', 'what', 'aria-label', 'alt']);
/** Whether a text is words: two letters or more in a row. Names of things in code have no spaces and begin small. */
const isText = (text) => /\p{L}{2}/u.test(text) && (/\s/.test(text.trim()) || /^\p{Lu}/u.test(text.trim()));

/** Parents of text that is a name: of a module, an attribute, or a type. */
const NAMES = new Set([
  'ImportDeclaration',
  'ExportNamedDeclaration',
  'JSXAttribute',
  'JSXExpressionContainer',
  'TSLiteralType',
]);

/** Stands for a value in a template. */
const GAP = '\u2022';

/** Whether a text outside JSX is a sentence or a part of one: several words, and no style, address or key. */
const isSentence = (text) =>
  /[A-Za-z][a-z][,:;]? [A-Za-z]{2}|\u2022 [A-Za-z]{2}|[A-Za-z]{3} \u2022/.test(text) &&
  !/\dpx\b|\bpx\b|\b(?:solid|dashed)\b|sans-serif|rgba|var\(|[{}]|^(?:drop|nudge) \u2022/.test(text);

const branchesOf = (node) =>
  node.type === 'ConditionalExpression' ? [node.consequent, node.alternate].flatMap(branchesOf) : [node];

const literalText = {
  meta: {
    type: 'problem',
    schema: [],
    messages: { text: '“{{text}}”: what people read is in the words.ts of its folder.' },
  },
  create(context) {
    const judge = (node, text) => {
      if (isText(text)) context.report({ node, messageId: 'text', data: { text: text.trim().slice(0, 40) } });
    };
    const textOf = (node) => {
      if (node?.type === 'Literal' && typeof node.value === 'string') return node.value;
      return null;
    };
    return {
      JSXText(node) {
        if (/\p{L}{2}/u.test(node.value)) judge(node, `${node.value.trim()} .`);
      },
      JSXAttribute(node) {
        const name = node.name.type === 'JSXIdentifier' ? node.name.name : '';
        const text = textOf(node.value) ?? textOf(node.value?.expression);
        if (SHOWN.has(name) && text !== null) judge(node, text);
      },
      'JSXElement > JSXExpressionContainer > Literal'(node) {
        if (typeof node.value === 'string') judge(node, node.value);
      },
      // Words handed to a sentence, also the branches of a choice between them: "is" and "are" belong into words.ts.
      'CallExpression[callee.object.name="TEXT"]'(node) {
        for (const part of node.arguments.flatMap(branchesOf)) {
          const text = textOf(part);
          if (text && /\p{L}{2}/u.test(text)) context.report({ node: part, messageId: 'text', data: { text } });
        }
      },
      Literal(node) {
        if (!NAMES.has(node.parent.type) && isSentence(textOf(node) ?? '')) judge(node, node.value);
      },
      TemplateLiteral(node) {
        const text = node.quasis.map((q) => q.value.cooked).join(GAP);
        if (isSentence(text)) judge(node, text);
      },
    };
  },
};

export default { rules: { vocabulary, 'literal-text': literalText } };
