import { jobChangeOf, type JobRow } from '@treadle/contract'
import type { Bay } from '@treadle/core'
import { notifications } from '@mantine/notifications'
import { ApiProblem } from '../data/api.ts'
import { sentenceOf, useChange } from '../data/queries.ts'

/** Moves a clock to another bay; what is returned moves it back. */
export function useMoveTo(job: JobRow): (bay: Bay) => () => void {
  const change = useChange()
  const move = (bay: Bay, from: JobRow) =>
    change.mutate(
      { method: 'PATCH', path: `/jobs/${job.id}`, body: { ...jobChangeOf(from), bay } },
      {
        onError: (error) => {
          // Only the bay is meant, so a change of anything else meanwhile is kept and the bay moved on it.
          if (error instanceof ApiProblem && error.status === 409 && error.current) move(bay, error.current as JobRow)
          else notifications.show({ color: 'red', title: 'Not moved', message: sentenceOf(error) })
        },
      },
    )
  return (bay) => {
    const was = job.bay
    move(bay, job)
    return () => move(was, { ...job, bay, version: job.version + 1 })
  }
}
