import { RUN_DOWN_MOMENTS, RUN_DOWN_TITLES, type RunDownChange } from '@treadle/contract'
import { Pick } from '../parts/Pick.tsx'

/** Whether a pendulum ran down before the repair or after it. */
export function RunDownWhen({
  when,
  onPick,
}: {
  when: RunDownChange['when']
  onPick: (when: RunDownChange['when']) => void
}) {
  return (
    <Pick label="Run down" value={when} of={RUN_DOWN_MOMENTS.map((m) => [m, RUN_DOWN_TITLES[m]])} onPick={onPick} />
  )
}
