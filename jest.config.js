export default {
  testEnvironment: 'node',
  roots: [
    '<rootDir>/core',
    '<rootDir>/contract',
    '<rootDir>/server',
    '<rootDir>/web',
    '<rootDir>/demo',
  ],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  // What the build turns into addresses and names of classes.
  moduleNameMapper: { '[.](css|bin)([?]url)?$': '<rootDir>/scripts/cssStub.mjs' },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '<rootDir>/scripts/jestTransform.mjs',
      {
        jsc: {
          target: 'es2023',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
        sourceMaps: 'inline',
      },
    ],
  },
  setupFiles: ['<rootDir>/scripts/jestSeed.mjs'],
  // Jest would leave one of two cores idle.
  maxWorkers: 2,
  // Bounds what hangs; a busy machine takes a minute for what a quiet one does in ten seconds.
  testTimeout: 150_000,
}
