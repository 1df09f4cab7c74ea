import { useState } from 'react'
import { sayNotKept, useChange } from '../data/queries.ts'
import { rowShown } from '../data/withRow.ts'
import { useJobData } from './useJobData.ts'
import { inTurn, lastVersion, ownRow, rememberRow } from './ownRows.ts'
import { without } from '../parts/clash.ts'
import { keepOver, meetConflict } from '../parts/conflict.tsx'
import { wordsOfRows, type RowKind } from './rowWords.ts'

interface Row {
  id: string
  version: number
}

/** What the server adds to a row is not sent back with it. */
type Kept<R> = Omit<R, 'jobId' | 'at' | 'who' | 'whoId'>

export interface Rows<R extends Row> {
  /** writes a row; one that is made only when its turn comes builds on what was written before it. `over`: kept or not */
  put: (row: Kept<R>, done?: () => void, atItsTurn?: () => Kept<R>, over?: () => void, from?: object) => void
  /** keeps what was typed over a row: asks first where somebody else changed a field of it meanwhile */
  keep: (draft: Kept<R>, base: object, forget: () => void) => void
  remove: (id: string) => void
  /** changes part of a row that the page shows, or begins it from a blank one: on top of all that was said before */
  set: (blank: Kept<R>, shown: R | undefined, part: Partial<R>) => void
  /** the row with what was just said of it, before the server has answered: the next press is made on that */
  seen: (blank: Kept<R>, shown: R | undefined) => R | undefined
  /** whether anything was just said of the row of that id */
  waits: (id: string) => boolean
  pending: boolean
}

/** Rows of this job at /jobs/:id/`path`: put, taken back, and two people's changes laid side by side. */
export function useRows<R extends Row>(path: RowKind, ...alsoStale: string[]): Rows<R> {
  const page = useJobData()
  const { job } = page
  const change = useChange<Row>(...alsoStale)
  const address = (id: string) => `/jobs/${job.id}/${path}/${id}`

  const [waiting, setWaiting] = useState<Record<string, Partial<R>[]>>({})

  const put: Rows<R>['put'] = (row, done, atItsTurn, over, from) => {
    const id = String(row.id)
    const base = from ?? rowShown(page, path, id)
    void inTurn(id, async () => {
      const latest = { ...(atItsTurn?.() ?? row) }
      // Our own earlier change is no conflict: the row is written on top of it, or anew where we took it back.
      const mine = lastVersion(id)
      const version = mine === undefined ? latest.version : mine === 0 ? 0 : Math.max(Number(latest.version), mine)
      const {
        jobId: _j,
        at: _a,
        who: _w,
        measuredBy: _m,
        whoId: _i,
        standing: _s,
        ...body
      } = { ...latest, version } as Kept<R> & Partial<Record<string, unknown>>
      try {
        rememberRow(await change.mutateAsync({ method: 'PUT', path: address(id), body }))
        done?.()
      } catch (error) {
        // Theirs may stand under an id of its own, where there can be one row only of this thing.
        const send = (merged: object, version: number, theirId: string) => {
          rememberRow({ id: theirId, version })
          put({ ...(merged as Kept<R>), id: theirId, version }, done, undefined, undefined, base)
        }
        const met = meetConflict(error, { words: wordsOfRows(path), base, mine: body, send })
        if (!met) sayNotKept(error)
      }
      over?.()
    })
  }
  const keep: Rows<R>['keep'] = (draft, base, forget) => {
    const kept = rowShown(page, path, String(draft.id))
    const send = (row: object, version: number, id: string) =>
      put({ ...(row as Kept<R>), id, version }, forget, undefined, undefined, base)
    if (kept) keepOver({ words: wordsOfRows(path), base, mine: draft, send, takeTheirs: forget }, kept)
    else put(draft, forget)
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
  const set: Rows<R>['set'] = (blank, shown, part) => {
    const id = String((shown ?? blank).id)
    const now = () => ({ ...blank, ...shown, ...newer(ownRow(id), shown), ...part })
    setWaiting((all) => ({ ...all, [id]: [...(all[id] ?? []), part] }))
    const over = () => setWaiting((all) => ({ ...all, [id]: (all[id] ?? []).filter((p) => p !== part) }))
    put(now(), undefined, now, over, shown && without(shown, part))
  }
  const seen: Rows<R>['seen'] = (blank, shown) => {
    const said = waiting[String((shown ?? blank).id)] ?? []
    if (said.length === 0) return shown
    return said.reduce<R>((row, part) => ({ ...row, ...part }), { ...blank, ...shown } as unknown as R)
  }
  const waits = (id: string) => (waiting[id] ?? []).length > 0
  return { put, keep, remove, set, seen, waits, pending: change.isPending }
}

/** Our own row where it is newer than the page's, which may not have been fetched yet. */
function newer(mine: Row | undefined, shown: Row | undefined): object {
  return mine && mine.version > (shown?.version ?? 0) ? mine : {}
}
