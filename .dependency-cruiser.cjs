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
  'abstract',
  'packet',
  'merge',
  'routing',
  'forecast',
  'shelf',
  'memory',
  'writing',
  'notices',
  'checks',
];

/** The server's folders from bottom to top: no two of them import each other. Each line needs lines above it only. */
const SERVER = [
  ['archives', 'db', 'live', 'mail'],
  ['files', 'find', 'jobs', 'links', 'sharing', 'throttle'],
  ['pdf'],
  ['scan', 'typesetting'],
  ['pdf-sealing', 'reading', 'uploads'],
  ['work'],
  ['http'],
  ['insight', 'mailroom', 'proof'],
  ['firm'],
  ['people'],
  ['deal-records'],
  ['documents', 'feeds', 'imports', 'today'],
  ['packets'],
  ['binder', 'returned', 'schedule', 'sealed-copies'],
  ['deals', 'signing'],
  ['csv', 'incoming', 'own', 'setup', 'shelf'],
  ['memory'],
  ['notices'],
];

/** The application's features from bottom to top. */
const FEATURES = [
  ['facts', 'frame', 'imports', 'insight', 'ledger', 'mailroom', 'packet-status', 'pages', 'uploads', 'verify'],
  ['changes', 'incoming', 'memory', 'people', 'rules', 'signing'],
  ['desk'],
  ['own', 'shelf'],
  ['deals', 'forms', 'notices', 'packet'],
  ['firm', 'today'],
  ['office'],
];

/** Rules that let the folders of a line import only what stands in lines above it. */
const inOrder = (name, root, lines) =>
  lines.map((folders, i) => ({
    name: `${name}-${folders.join('-')}-imports-downward`,
    severity: 'error',
    from: { path: `^${root}/(${folders.join('|')})/`, pathNot: '\\.test\\.tsx?$' },
    // A folder may import itself; `$1` is the folder the import is in.
    to: { path: `^${root}/(${lines.slice(i).flat().join('|')})/`, pathNot: `^${root}/$1/` },
  }));

/** A folder that no line names would escape the order. */
const known = (name, root, lines, beside) => ({
  name: `${name}-folder-has-its-line`,
  severity: 'error',
  from: { path: `^${root}/[^/]+/`, pathNot: `^${root}/(${[...lines.flat(), ...beside].join('|')})/` },
  to: {},
});

module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'product-needs-no-test-helper',
      severity: 'error',
      from: { path: '^(core|contract|server|app)/', pathNot: '/test/|\\.test\\.tsx?$' },
      to: { path: '/test/', pathNot: 'node_modules' },
    },
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
    ...inOrder('server', 'server', SERVER),
    known('server', 'server', SERVER, ['test', 'node_modules']),
    ...inOrder('app', 'app/features', FEATURES),
    known('app', 'app/features', FEATURES, []),
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
