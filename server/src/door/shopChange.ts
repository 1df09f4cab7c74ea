import type { About } from '@treadle/contract'
import type { Request } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { nowOf } from '../http/now.ts'
import type { Doer } from '../http/person.ts'
import { writeJournal } from '../journal/write.ts'
import { inTransaction } from './transaction.ts'

export interface ShopDoing {
  tx: Queries
  person: Doer
  at: Date
  /** a line in the workshop's journal, with what was before and what is now */
  write: (id: string | null, text: string, figures?: { before?: unknown; after?: unknown }) => Promise<void>
}

/** The one door for changes of what is no job's: the person, the moment and the journal, all in one transaction. */
export function shopChange<T>(
  db: Database,
  req: Request,
  about: Exclude<About, 'job'>,
  work: (doing: ShopDoing) => Promise<T>,
): Promise<T> {
  const { person } = req
  const at = nowOf(req)
  return inTransaction(db, (tx) =>
    work({
      tx,
      person,
      at,
      write: (id, text, figures) => writeJournal(tx, { about, aboutId: id, at, ...person, kind: about, text, figures }),
    }),
  )
}
