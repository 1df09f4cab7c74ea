import { defineConfig } from '@playwright/test'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results/e2e',
  workers: 2,
  // Limits for what hangs, far above what a slow machine needs.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  // What hears by the clock wants the machine to itself: it comes last, with nothing beside it.
  projects: [
    { name: 'pages', testIgnore: /realTime/ },
    { name: 'sound', testMatch: /realTime/, dependencies: ['pages'] },
  ],
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    launchOptions: { executablePath: ensureChromium(), args: CHROMIUM_FLAGS },
  },
})
