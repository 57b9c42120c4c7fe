/**
 * ESLint rule `docs/verb`: the docstring of a function begins with a third-person verb ("Returns …", "Deletes …").
 * Components, which are named with a capital letter, may be described by what they show.
 */

/** First words that end like a verb and are none. */
const NOUNS = new Set(
  (
    'Acts Blanks Boxes Buttons Codes Days Deals Documents Facts Fields Files Fingerprints Ids Initials Its Kits Lines ' +
    'Members Objects Others Packets Pages Papers Parties Parts Pieces Questions Rows Rules Settings Signatures Steps ' +
    'Strokes Tenancies This Values Waivers Ways Words'
  ).split(' '),
);

const isVerb = (word) => /^[A-Z][a-z]+s$/.test(word) && !NOUNS.has(word);

const verb = {
  meta: {
    type: 'problem',
    schema: [],
    messages: { verb: 'Begin the docstring of “{{name}}” with a third-person verb: “Returns …”, “Deletes …”.' },
  },
  create(context) {
    const judge = (node, name) => {
      if (!/^[a-z]/.test(name) || name === 'constructor') return;
      const outer = /^Export/.test(node.parent.type) ? node.parent : node;
      const doc = context.sourceCode.getCommentsBefore(outer).findLast((c) => c.value.startsWith('*'));
      if (!doc) return;
      const first = /[^\s*]+/.exec(doc.value)?.[0] ?? '';
      if (!isVerb(first.replace(/[,:.]$/, ''))) context.report({ node, messageId: 'verb', data: { name } });
    };
    return {
      FunctionDeclaration: (node) => node.id && judge(node, node.id.name),
      MethodDefinition: (node) => node.key.type === 'Identifier' && judge(node, node.key.name),
      VariableDeclarator(node) {
        if (node.init?.type === 'ArrowFunctionExpression' && node.id.type === 'Identifier')
          judge(node.parent, node.id.name);
      },
    };
  },
};

export default { rules: { verb } };
