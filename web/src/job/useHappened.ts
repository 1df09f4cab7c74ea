import { newEvent, type RateEventChange } from '@treadle/contract'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange } from '../data/queries.ts'
import { useJobData } from './useJobData.ts'

/** Writes into the log of this clock what was done to it; what it gives back takes it out again. */
export function useHappened(): (
  kind: RateEventChange['kind'],
  part?: Partial<Pick<RateEventChange, 'at' | 'turns' | 'grams' | 'showed' | 'note'>>,
) => () => void {
  const { job } = useJobData()
  const change = useChange()
  return (kind, part) => {
    const id = uuid()
    const path = `/jobs/${job.id}/events/${id}`
    const body = { ...newEvent(id, kind, new Date().toISOString()), ...part }
    change.mutate({ method: 'PUT', path, body }, { onError: sayNotKept })
    return () => change.mutate({ method: 'DELETE', path }, { onError: sayNotKept })
  }
}
