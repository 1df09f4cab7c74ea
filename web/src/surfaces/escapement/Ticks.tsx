import { TICKS } from '@treadle/contract'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Pick } from '../../parts/Pick.tsx'

/** Whether the clock ticks at every beat or once a period: said once for the clock; Listen, Trains and Beat follow. */
export function Ticks() {
  const { clock } = useJobData()
  const save = useClockChange(clock)
  return (
    <Pick
      label="It ticks"
      value={clock.pendulum.ticks ?? 'every beat'}
      of={TICKS}
      onPick={(ticks) => save({ pendulum: { ...clock.pendulum, ticks } })}
    />
  )
}
