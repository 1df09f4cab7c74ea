import { notifications } from '@mantine/notifications'
import type { ReactNode } from 'react'
import { sentenceOf, useChange } from '../app/queries.ts'
import { useJobData } from '../job/JobPage.tsx'
import { useConflict } from './useConflict.tsx'

interface Row {
  id: string
  version: number
}

/** What the server adds to a row is not sent back with it. */
type Kept<R> = Omit<R, 'jobId' | 'at' | 'who'>

export interface Rows<R extends Row> {
  /** to be put on the page: asks which is right when somebody changed the same row meanwhile */
  dialog: ReactNode
  put: (row: Kept<R>, done?: () => void) => void
  remove: (id: string) => void
  pending: boolean
}

/** Rows of this job at /jobs/:id/`path`: put, taken back, and two people's changes laid side by side. */
export function useRows<R extends Row>(path: string, labels: Record<string, string>, ...alsoStale: string[]): Rows<R> {
  const { job } = useJobData()
  const change = useChange(...alsoStale)
  const conflict = useConflict(labels)
  const refused = (error: Error) =>
    notifications.show({ color: 'red', title: 'Not kept', message: sentenceOf(error), autoClose: 10_000 })
  const put: Rows<R>['put'] = (row, done) => {
    const { jobId: _j, at: _a, who: _w, ...body } = row as Kept<R> & { jobId?: string; at?: string; who?: string }
    change.mutate(
      { method: 'PUT', path: `/jobs/${job.id}/${path}/${body.id}`, body },
      {
        onSuccess: done,
        onError: (error) => {
          const again = (version: number) => put({ ...row, version }, done)
          if (!conflict.meet(error, { ...body }, again, () => undefined)) refused(error)
        },
      },
    )
  }
  const remove = (id: string) =>
    change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/${path}/${id}` }, { onError: refused })
  return { dialog: conflict.dialog, put, remove, pending: change.isPending }
}
