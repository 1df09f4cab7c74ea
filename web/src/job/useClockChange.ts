import { ClockChange, type Clock } from '@treadle/contract'
import { sayNotKept, useChange } from '../data/queries.ts'
import { keepOver, meetConflict } from '../parts/conflict.tsx'
import { wordsOf } from '../parts/fieldWords.ts'

type Part = Partial<Omit<ClockChange, 'version'>>
const WORDS = wordsOf(ClockChange)

/** Changes what is known of a clock, part by part; a clash with somebody else’s change is laid side by side. */
export function useClockChange(
  clock: Clock,
): (part: Part, done?: () => void, dropped?: () => void, from?: object) => void {
  const change = useChange('clocks', 'clock')
  return (part, done, dropped, from) => {
    const { name, kind, marks, trains, pendulum, work, home, card } = clock
    const kept = { name, kind, marks, trains, pendulum, work, home, card }
    const base = { ...kept, ...from }
    const send = (row: Part, version: number) =>
      change.mutate(
        { method: 'PATCH', path: `/clocks/${clock.id}`, body: { ...row, version } },
        {
          onSuccess: done,
          onError: (error) => {
            const met = meetConflict(error, { words: WORDS, base, mine: row, send, takeTheirs: dropped })
            if (!met) sayNotKept(error)
          },
        },
      )
    const typed = { words: WORDS, base, mine: { ...kept, ...part }, send, takeTheirs: dropped }
    keepOver(typed, clock)
  }
}
