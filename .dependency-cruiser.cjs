/** The direction of imports, and no circle anywhere. Run by `npm test -- lint`. */

/** The core from bottom to top; a layer imports nothing above it. */
const BENEATH = '^core/(calendar|inks|patterns|proof|sure|text|words)/';
const LAYERS = [
  'paper',
  'reading',
  'scan',
  'returned',
  'changed',
  'deal',
  'intake',
  'packet',
  'merge',
  'routing',
  'forecast',
  'shelf',
  'writing',
  'notices',
  'checks',
];

module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    ...LAYERS.slice(0, -1).map((layer, i) => ({
      name: `core-${layer}-knows-nothing-above`,
      severity: 'error',
      from: { path: `^core/${layer}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^core/(${LAYERS.slice(i + 1).join('|')})/` },
    })),
    {
      name: 'core-beneath-knows-no-layer',
      severity: 'error',
      from: { path: BENEATH, pathNot: '\\.test\\.ts$' },
      to: { path: `^core/(${LAYERS.join('|')})/` },
    },
    {
      name: 'core-needs-little',
      comment: 'Dates, messages in many languages, and patterns in linear time; nothing else from outside.',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: ['^core/', '^node_modules/(luxon|intl-messageformat|re2js|@types/luxon)/'],
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|\\.expo|built)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
