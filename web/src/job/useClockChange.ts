import type { Clock, ClockChange } from '@treadle/contract'
import type { ReactNode } from 'react'
import { sayNotKept, useChange } from '../data/queries.ts'
import { useConflict } from '../parts/useConflict.tsx'

const LABELS = { name: 'Name', kind: 'Kind', marks: 'Marks', trains: 'Trains', pendulum: 'Figures', work: 'Works' }

/** Changes what is known of a clock, part by part; a clash with somebody else’s change is laid side by side. */
export function useClockChange(clock: Clock): {
  dialog: ReactNode
  save: (part: Partial<Omit<ClockChange, 'version'>>, done?: () => void, dropped?: () => void) => void
} {
  const change = useChange('clocks', 'clock')
  const conflict = useConflict(LABELS)
  const save = (
    part: Partial<Omit<ClockChange, 'version'>>,
    done?: () => void,
    dropped?: () => void,
    version = clock.version,
  ) => {
    const { name, kind, marks, trains, pendulum, work } = clock
    const body = { name, kind, marks, trains, pendulum, work, ...part, version }
    change.mutate(
      { method: 'PATCH', path: `/clocks/${clock.id}`, body },
      {
        onSuccess: done,
        onError: (error) => {
          const again = (now: number) => save(part, done, dropped, now)
          if (!conflict.meet(error, body, again, () => dropped?.())) sayNotKept(error)
        },
      },
    )
  }
  return { dialog: conflict.dialog, save: (part, done, dropped) => save(part, done, dropped) }
}
