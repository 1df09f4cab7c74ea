import type { Observation, ObservationRow } from '@treadle/contract'
import type { ReactNode } from 'react'
import { v5 } from 'uuid'
import { useJobData } from '../job/JobPage.tsx'
import { ownRow } from './ownRows.ts'
import { useRows } from './useRows.ts'

const NAMESPACE = '0c3b0a0e-6f0e-4f67-9d63-1b1c2c0f7a11'
const LABELS = { answer: 'Answer', figure: 'Figure', second: 'Second figure', note: 'Note' }

/** Our own row where it is newer than the page's, which may not have been fetched yet. */
function own(id: string, shown: ObservationRow | undefined): Partial<ObservationRow> {
  const mine = ownRow(id)
  return mine && mine.version > (shown?.version ?? 0) ? mine : {}
}

export interface Observations {
  dialog: ReactNode
  of: (key: string) => ObservationRow | undefined
  /** writes it, or changes what is said of it */
  set: (key: string, part: Partial<Pick<Observation, 'answer' | 'figure' | 'second' | 'note' | 'photoId'>>) => void
  takeBack: (key: string) => void
}

/** What was observed on this job, by its key; one key has one row, whoever writes it and however often. */
export function useObservations(): Observations {
  const { job, observations } = useJobData()
  const rows = useRows<ObservationRow>('observations', LABELS)
  const of = (key: string) => observations.find((o) => o.key === key)
  return {
    dialog: rows.dialog,
    of,
    set: (key, part) => {
      const blank: Observation = {
        id: v5(`${job.id} ${key}`, NAMESPACE),
        version: 0,
        key,
        answer: '',
        figure: null,
        second: null,
        note: '',
        photoId: null,
      }
      const now = () => ({ ...blank, ...of(key), ...own(blank.id, of(key)), ...part })
      rows.put(now(), undefined, now)
    },
    takeBack: (key) => {
      const row = of(key)
      if (row) rows.remove(row.id)
    },
  }
}
