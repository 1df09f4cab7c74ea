import type { DemoApi } from './api.ts'
import { DRUM_STEPS, takeApart } from './arrivals.ts'
import { putRow } from './history.ts'

/** What was taken apart, and what of it is in the baths. */
export async function layDownStripped(
  api: DemoApi,
  ago: (days: number) => Date,
  jobs: Record<'drum', string>,
): Promise<void> {
  await takeApart(api.at(ago(12), 'Rasmus Oake'), jobs.drum, DRUM_STEPS)
  const parts: [name: string, material: string, finish: string, done: boolean][] = [
    ['plates and cocks', 'brass', 'bare', true],
    ['wheels and arbors', 'brass', 'bare', true],
    ['bezel', 'brass', 'lacquered', false],
    ['dial', 'brass', 'silvered', false],
    ['mainsprings', 'mainspring', 'bare', false],
    ['hammer arbor', 'steel', 'rusty', false],
    ['hammer leather', 'leather', 'bare', false],
  ]
  for (const [name, material, finish, done] of parts)
    await putRow(api.at(ago(9)), jobs.drum, 'clean-parts', `clean ${name}`, { name, material, finish, done })
  await putRow(api.at(ago(0)), jobs.drum, 'timers', 'timer drum', {
    title: 'Rust bath, chelating',
    startedAt: ago(0.01).toISOString(),
    endsAt: new Date(ago(0.01).getTime() + 120 * 60_000).toISOString(),
    stopped: false,
    bath: 'chelating',
    step: 0,
  })
}
