import type { ReactNode } from 'react'
import { sayNotKept, useChange } from '../app/queries.ts'
import { useJobData } from '../job/JobPage.tsx'
import { inTurn, lastVersion, rememberRow } from './ownRows.ts'
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
  /** writes a row; one that is made only when its turn comes builds on what was written before it */
  put: (row: Kept<R>, done?: () => void, atItsTurn?: () => Kept<R>) => void
  remove: (id: string) => void
  pending: boolean
}

/** Rows of this job at /jobs/:id/`path`: put, taken back, and two people's changes laid side by side. */
export function useRows<R extends Row>(path: string, labels: Record<string, string>, ...alsoStale: string[]): Rows<R> {
  const { job } = useJobData()
  const change = useChange<Row>(...alsoStale)
  const conflict = useConflict(labels)
  const address = (id: string) => `/jobs/${job.id}/${path}/${id}`

  const put: Rows<R>['put'] = (row, done, atItsTurn) => {
    const id = String(row.id)
    void inTurn(id, async () => {
      const latest = { ...(atItsTurn?.() ?? row) }
      // Our own earlier change is no conflict: the row is written on top of it, or anew where we took it back.
      const mine = lastVersion(id)
      const version = mine === undefined ? latest.version : mine === 0 ? 0 : Math.max(Number(latest.version), mine)
      const {
        jobId: _j,
        at: _a,
        who: _w,
        ...body
      } = { ...latest, version } as Kept<R> & Partial<Record<string, unknown>>
      try {
        rememberRow(await change.mutateAsync({ method: 'PUT', path: address(id), body }))
        done?.()
      } catch (error) {
        const again = (now: number) => {
          rememberRow({ id, version: now })
          put({ ...latest, version: now }, done)
        }
        if (!conflict.meet(error, { ...body }, again, () => undefined)) sayNotKept(error)
      }
    })
  }
  const remove = (id: string) =>
    void inTurn(id, async () => {
      try {
        await change.mutateAsync({ method: 'DELETE', path: address(id) })
        rememberRow({ id, version: 0 })
      } catch (error) {
        sayNotKept(error)
      }
    })
  return { dialog: conflict.dialog, put, remove, pending: change.isPending }
}
