import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'core/test/**/*.test.ts',
            'contract/test/**/*.test.ts',
            'web/test/**/*.test.ts',
            'scripts/test/**/*.test.ts',
          ],
          testTimeout: 120_000,
        },
      },
      { test: { name: 'api', include: ['server/test/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 } },
    ],
  },
})
