import type { DemoApi } from './api.ts'
import { demoEstimate } from './arrivals.ts'
import { putRow } from './history.ts'

/** What was offered, and what the owners said. */
export async function layDownEstimates(
  api: DemoApi,
  ago: (days: number) => Date,
  jobs: Record<'chapel' | 'drum', string>,
): Promise<void> {
  const chapel = demoEstimate(
    jobs.chapel,
    1,
    [
      ['look', 1],
      ['service', 2],
      ['bush', 1, 'if-needed'],
      ['fetch', 1],
    ],
    {},
  )
  await putRow(api.at(ago(7), 'Rasmus Oake'), jobs.chapel, 'estimates', 'estimate chapel', {
    ...chapel,
    state: 'sent',
    sentAt: ago(5).toISOString(),
    note: 'The strike’s silence is its fly: gummed, not broken.',
  })
  const first = demoEstimate(
    jobs.drum,
    1,
    [
      ['look', 1],
      ['service', 2],
      ['bush', 1, 'if-needed'],
      ['pivots', 4],
    ],
    {},
  )
  await putRow(api.at(ago(14)), jobs.drum, 'estimates', 'estimate drum 1', {
    ...first,
    state: 'accepted',
    sentAt: ago(14).toISOString(),
    answer: {
      how: 'call',
      by: 'The postmistress',
      at: ago(13.5).toISOString(),
      note: 'Go ahead up to 350; ask before a new spring.',
      strokes: [],
    },
  })
  const second = demoEstimate(
    jobs.drum,
    2,
    [
      ['look', 1],
      ['service', 2],
      ['bush', 4],
      ['pivots', 4],
      ['mainspring', 1],
    ],
    {
      note: 'Open, it shows four worn holes, and the strike spring is cracked at its hole.',
      chosen: 'overhaul',
    },
  )
  await putRow(api.at(ago(0.6)), jobs.drum, 'estimates', 'estimate drum 2', {
    ...second,
    state: 'sent',
    sentAt: ago(0.6).toISOString(),
  })
}
