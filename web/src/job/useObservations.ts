import type { Observation, ObservationRow } from '@treadle/contract'
import { useMemo } from 'react'
import { v5 } from 'uuid'
import { useJobData } from './useJobData.ts'
import { useRows } from './useRows.ts'

const NAMESPACE = '0c3b0a0e-6f0e-4f67-9d63-1b1c2c0f7a11'

const ids = new Map<string, string>()

/** The id of what is observed of a job under a key. Kept: a page asks for hundreds at each press. */
function idOf(jobId: string, key: string): string {
  const name = `${jobId} ${key}`
  const id = ids.get(name) ?? v5(name, NAMESPACE)
  ids.set(name, id)
  return id
}

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
  const byKey = useMemo(() => new Map(observations.toReversed().map((o) => [o.key, o])), [observations])
  const kept = (key: string) => byKey.get(key)
  const blank = (key: string): Observation => ({
    id: idOf(job.id, key),
    version: 0,
    key,
    answer: '',
    figure: null,
    second: null,
    note: '',
    photoId: null,
  })
  const whole = (key: string) => ({ ...blank(key), jobId: job.id, who: '', at: new Date().toISOString() })
  // A page asks for hundreds at each press: a blank row is made only for what was just said.
  const of = (key: string): ObservationRow | undefined =>
    rows.waits(idOf(job.id, key)) ? rows.seen(whole(key), kept(key)) : kept(key)
  return {
    of,
    set: (key, part) => rows.set(blank(key), kept(key), part),
    takeBack: (key) => {
      const row = of(key)
      if (row) rows.remove(row.id)
    },
  }
}
