/** As `npm test` runs Jest, on the tests that lie beside what is mutated; the long simulations are left out. */
import plain from './jest.config.js'

export default {
  ...plain,
  roots: [`<rootDir>/${process.env.BESIDE ?? 'core'}`],
  testPathIgnorePatterns: [
    '/node_modules/',
    'honest\\.test\\.ts$',
    ...JSON.parse(process.env.LEFT ?? '[]').map((file) => `/${file.replaceAll('.', '\\.')}$`),
  ],
  maxWorkers: 1,
}
