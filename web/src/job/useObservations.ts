import type { Observation, ObservationRow } from '@treadle/contract'
import { v5 } from 'uuid'
import { useJobData } from './useJobData.ts'
import { useRows } from './useRows.ts'

const NAMESPACE = '0c3b0a0e-6f0e-4f67-9d63-1b1c2c0f7a11'

type Said = Partial<Pick<Observation, 'answer' | 'figure' | 'second' | 'note' | 'photoId'>>

export interface Observations {
  of: (key: string) => ObservationRow | undefined
  /** writes it, or changes what is said of it */
  set: (key: string, part: Said) => void
  takeBack: (key: string) => void
}

/**
 * What was observed on this job, by its key; one key has one row, whoever writes it and however often. What was just said
 * shows at once, so that a second press is made on what the first one did.
 */
export function useObservations(): Observations {
  const { job, observations } = useJobData()
  const rows = useRows<ObservationRow>('observations')
  const kept = (key: string) => observations.find((o) => o.key === key)
  const blank = (key: string): Observation => ({
    id: v5(`${job.id} ${key}`, NAMESPACE),
    version: 0,
    key,
    answer: '',
    figure: null,
    second: null,
    note: '',
    photoId: null,
  })
  const whole = (key: string) => ({ ...blank(key), jobId: job.id, who: '', at: new Date().toISOString() })
  const of = (key: string): ObservationRow | undefined => rows.seen(whole(key), kept(key))
  return {
    of,
    set: (key, part) => rows.set(blank(key), kept(key), part),
    takeBack: (key) => {
      const row = of(key)
      if (row) rows.remove(row.id)
    },
  }
}
