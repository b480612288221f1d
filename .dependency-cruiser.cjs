/** The arrows of the house: app → contract → core, server → contract → core; in core only downwards. */
const ORDER = ['quantity', 'food', 'soup', 'pot', 'prep', 'lot', 'par', 'batch', 'sequence', 'plan', 'safety', 'day'];
const TESTS = '[.](test|arbitrary)[.]tsx?$';

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    // The outside solver that checks the engine runs in a thread.
    { name: 'core-imports-nothing', severity: 'error', from: { path: '^core/src', pathNot: [TESTS, '^core/src/testing/outsideSolver[.]ts$'] }, to: { pathNot: '^core/src' } },
    ...ORDER.map((room, index) => ({
      name: `core-${room}-only-downwards`,
      severity: 'error',
      from: { path: `^core/src/${room}/`, pathNot: TESTS },
      to: { path: `^core/src/(${[...ORDER.slice(index + 1), 'index', 'planner', 'advice', 'packs', 'shops'].join('|')})([.]ts$|/)` },
    })),
    {
      name: 'core-rooms-by-their-door',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/' },
      to: { path: '^core/src/([^/]+)/', pathNot: ['^core/src/$1/', '^core/src/testing/', '^core/src/[^/]+/index[.]ts$', '^core/src/food/handbook[.]ts$'] },
    },
    { name: 'core-not-its-tests', severity: 'error', from: { path: '^core/src', pathNot: [TESTS, '^core/src/testing/'] }, to: { path: '^core/src/testing/' } },
    { name: 'contract-only-core', severity: 'error', from: { path: '^contract/src', pathNot: TESTS }, to: { path: '^(app|server|demo)/' } },
    { name: 'demo-only-core', severity: 'error', from: { path: '^demo/src' }, to: { path: '^(app|server)/' } },
    { name: 'app-not-server', severity: 'error', from: { path: '^app/' }, to: { path: '^(server|demo)/' } },
    { name: 'cli-only-core-and-contract', severity: 'error', from: { path: '^cli/src', pathNot: TESTS }, to: { path: '^(app|server|demo)/' } },
    { name: 'probes-alone', severity: 'error', from: { path: '^probes/src' }, to: { path: '^(core|contract|app|server|demo|cli)/' } },
    { name: 'server-not-app', severity: 'error', from: { path: '^server/' }, to: { path: '^app/' } },
    {
      name: 'rooms-by-their-door',
      severity: 'error',
      from: { path: '^(app|server|contract|demo|cli)/' },
      to: {
        path: '^(core|contract|demo)/src/',
        pathNot: ['^$1/', '^(core|contract|demo)/src/(index|planner|advice|packs|shops|refusals|record|words/advice|words/soup|formats/index|food/handbook)[.]ts$'],
      },
    },
    { name: 'routes-not-sequelize-models', severity: 'error', from: { path: '^server/src/routes/', pathNot: TESTS }, to: { path: '^server/src/store/migrations' } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: ['[.]d[.]ts$', '(^|/)[^/]*config[.](c|m)?[jt]s$', 'app/app/', 'app/src/rnw/', 'src/testing/setup[.]ts$'] },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|[.]expo|[.]cache|node_modules/[.]cache)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default', 'types'] },
  },
};
