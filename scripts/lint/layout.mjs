/**
 * ESLint rule `layout/primitive`: a view that only places others beside or below each other is a `Row` or a `Stack` of
 * `app/ui/layout.tsx`, so that distances come in few sizes. Views with a look of their own keep their style.
 */

/** Style keys that the primitives have as props. */
const LAYOUT = new Set(['alignItems', 'flex', 'flexDirection', 'flexWrap', 'gap', 'justifyContent']);

const styleOf = (node) =>
  node.attributes.find((a) => a.type === 'JSXAttribute' && a.name.name === 'style')?.value?.expression;

const primitive = {
  meta: {
    type: 'suggestion',
    schema: [],
    messages: { use: 'Use Row, Stack or Columns of app/ui/layout.tsx for a view that only places others.' },
  },
  create: (context) => ({
    JSXOpeningElement(node) {
      if (node.name.name !== 'View' || node.attributes.some((a) => a.name?.name === 'ref')) return;
      const style = styleOf(node);
      if (style?.type !== 'ObjectExpression' || !style.properties.length) return;
      // A value that changes while the view stays is no layout of a screen: a column that grows with its content.
      const isPlain = style.properties.every(
        (p) => p.type === 'Property' && LAYOUT.has(p.key.name) && p.value.type === 'Literal',
      );
      if (isPlain) context.report({ node, messageId: 'use' });
    },
  }),
};

export default { rules: { primitive } };
