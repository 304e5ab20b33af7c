/** Imports point one way: core ← contract ← server and core ← contract ← web; stations never import each other. */
/** The folders of core from the ground up: each knows those before it alone, types among them, so there are no circles. */
const ORDER = [
  'house',
  'stats',
  'merge',
  'zones',
  'time',
  'head',
  'telling',
  'picture',
  'grain',
  'skin',
  'kit',
  'services',
  'looks',
  'regrowth',
  'lines',
  'hair',
  'screening',
  'care',
  'body',
  'order',
  'plan',
  'chair',
  'history',
  'ahead',
  'week',
  'formats',
  'register',
  'simulate',
  'visit',
]
const ONE_ORDER = ORDER.slice(0, -1).map((folder, i) => ({
  name: `core-${folder}-knows-nothing-above-it`,
  severity: 'error',
  from: { path: `^core/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^core/(${ORDER.slice(i + 1).join('|')})/` },
}))

module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(contract|server|web|demo|e2e|bench|scripts)/' },
    },
    {
      name: 'core-has-no-interface-or-server-code',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|^core/testing/' },
      to: {
        path: '^node_modules/(react|react-dom|@mantine|three|express|sequelize|sqlite3|zustand|echarts)/|^(fs|node:fs|path|node:path|http|node:http)$',
      },
    },
    {
      name: 'contract-imports-core-only',
      severity: 'error',
      from: { path: '^contract/' },
      to: { path: '^(server|web|demo|e2e|bench|scripts)/' },
    },
    {
      name: 'server-knows-no-web',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|e2e|bench|scripts)/' },
    },
    {
      name: 'only-the-start-knows-the-demo',
      severity: 'error',
      from: { path: '^server/', pathNot: '^server/serve\\.ts$|\\.test\\.ts$' },
      to: { path: '^demo/' },
    },
    {
      name: 'web-knows-no-server',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|demo|e2e|bench|scripts)/' },
    },
    {
      name: 'stations-stay-apart',
      severity: 'error',
      from: { path: '^web/stations/(ask|read|plan|chair|care|return)/' },
      to: {
        path: '^web/stations/(ask|read|plan|chair|care|return)/',
        pathNot: '^web/stations/$1/',
      },
    },
    {
      name: 'each-folder-of-core-has-one-door',
      comment:
        'From outside a folder of core only its index.ts is imported; what is fetched when it is first needed is fetched alone.',
      severity: 'error',
      from: { path: '^(contract|server|web|demo)/', pathNot: '\\.test\\.ts$|/testing/' },
      to: {
        path: '^core/[^/]+/',
        pathNot: '^core/[^/]+/index\\.ts$',
        dependencyTypesNot: ['dynamic-import'],
      },
    },
    {
      name: 'folders-of-core-go-through-doors',
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: '\\.test\\.ts$|^core/testing/' },
      to: { path: '^core/[^/]+/', pathNot: '^core/$1/|^core/[^/]+/index\\.ts$' },
    },
    ...ONE_ORDER,
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^generated/' },
  },
}
