/**
 * Mutation of the computation, as `scripts/mutate.mjs` asks for it. Only the tests that lie beside the code are run. Words are
 * left alone: they are looked at, not computed. Constants are, too: their values are estimates, and named in one place each.
 */
export default {
  testRunner: 'jest',
  jest: {
    projectType: 'custom',
    configFile: 'jest.mutate.config.mjs',
    enableFindRelatedTests: true,
  },
  testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  mutate: JSON.parse(process.env.MUTATE ?? '[]'),
  mutator: { excludedMutations: ['StringLiteral'] },
  ignorePatterns: [
    'dist',
    'docs',
    '.cache',
    'test-results',
    'e2e',
    'web',
    'server',
    'demo',
    'bench',
  ],
  disableTypeChecks: false,
  // A line every ten seconds or so: how far it is, and how many live.
  reporters: ['json', 'progress-append-only'],
  jsonReporter: { fileName: '.cache/mutation/report.json' },
  tempDirName: '.cache/stryker',
  cleanTempDir: 'always',
  concurrency: 2,
  timeoutMS: 8000,
  timeoutFactor: 1.5,
  allowConsoleColors: false,
  thresholds: { high: 90, low: 80, break: null },
}
