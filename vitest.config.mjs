import { defineConfig } from 'vitest/config'
import { BaseSequencer } from 'vitest/node'

/** The longest, in this order: each core has its share to the end when they begin first. */
const LONGEST = ['forged', 'start', 'outside', 'startTwice', 'strikeHeard', 'callBack', 'commands', 'rooms', 'hearing']

class LongestFirst extends BaseSequencer {
  async sort(files) {
    const rank = ({ moduleId }) => {
      const at = LONGEST.indexOf(/(\w+)\.test\.ts$/.exec(moduleId)?.[1] ?? '')
      return at < 0 ? LONGEST.length : at
    }
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b))
  }
}

// The limits on time are for what hangs, not for what a slow machine does slowly.
export default defineConfig({
  test: {
    // Every core: by itself Vitest leaves one idle, which of two is half.
    maxWorkers: '100%',
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          // What the tests try keeps nothing between them: a core is read once by each thread, not once by each file.
          pool: 'threads',
          isolate: false,
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
      {
        extends: true,
        test: {
          name: 'api',
          // The server is read once by each process; every file has a database and an app of its own.
          isolate: false,
          // One more than cores of the usual machine: these wait for the database, and for what is killed to come back.
          maxWorkers: 3,
          include: ['server/test/**/*.test.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
})
