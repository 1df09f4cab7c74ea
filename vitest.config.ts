import { defineConfig } from 'vitest/config'

// The limits on time are for what hangs, not for what a slow machine does slowly.
export default defineConfig({
  test: {
    // Every core: by itself Vitest leaves one idle, which of two is half.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'core/test/**/*.test.ts',
            'reckon/test/**/*.test.ts',
            'contract/test/**/*.test.ts',
            'web/test/**/*.test.ts',
            'scripts/test/**/*.test.ts',
          ],
          testTimeout: 240_000,
        },
      },
      { test: { name: 'api', include: ['server/test/**/*.test.ts'], testTimeout: 240_000, hookTimeout: 240_000 } },
    ],
  },
})
