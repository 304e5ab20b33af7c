import { defineConfig } from '@playwright/test'
import { CHROMIUM, CHROMIUM_FLAT } from './e2e/chromium.ts'

/** Each run has its own data folder and its own free port: see e2e/setup.ts. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  // Machines differ by a factor of four, and halve their speed under way: these bound what hangs, not what is slow.
  timeout: 480_000,
  expect: { timeout: 75_000 },
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: [['list'], ['json']],
  outputDir: 'test-results/browser',
  use: {
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    // In software every frame takes long; what moves has tests of its own.
    contextOptions: { reducedMotion: 'reduce' },
    trace: 'off',
    // What a test sends and is answered is the house's own; the offline tests let it in.
    serviceWorkers: 'block',
    // What is not there by then is not coming.
    actionTimeout: 60_000,
  },
  // Most of what a worker does is the same on the head as it is drawn and on its flat views; what is not says so.
  projects: [
    { name: 'drawn', grep: /@drawn/, use: { launchOptions: CHROMIUM } },
    { name: 'flat', grepInvert: /@drawn/, use: { launchOptions: CHROMIUM_FLAT } },
  ],
})
