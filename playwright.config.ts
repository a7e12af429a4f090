import { defineConfig } from '@playwright/test'
import { chromiumOptions } from './scripts/chromium.mjs'

/** One world for all tests, in their own corners of it: the production build, its demo data, the practice carrier. */
export default defineConfig({
  testDir: 'tests/e2e',
  // two worlds may be tested beside each other
  outputDir: `test-results/${process.env.E2E_PORT ?? 4610}`,
  globalSetup: './tests/e2e/world.ts',
  workers: 1,
  forbidOnly: !!process.env.CI,
  // machines differ: nothing here is about time, and what is waited for are events
  timeout: 300_000,
  expect: { timeout: 40_000 },
  reporter: [['list'], ['./tests/support/count-e2e.ts']],
  use: {
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: chromiumOptions(),
  },
})
