import type { ArchiveTold } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import { Router, type RequestHandler, type Response } from 'express'
import { createReadStream } from 'node:fs'
import { mkdir, mkdtemp, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Database } from '../db/connect.ts'
import { clocks } from '../db/schema.ts'
import { inTransaction } from '../door/transaction.ts'
import { shopChange } from '../door/shopChange.ts'
import type { Receive, UploadLimits } from '../files/receive.ts'
import { idOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { badField, Refused } from '../http/problem.ts'
import { bringIn, type Take } from './bringIn.ts'
import { writeArchive } from './write.ts'

const MOST_BYTES = 8_000_000_000

/** A clock’s history, or the whole workshop, carried away in one zip and brought in again. */
export function archiveRoutes(
  db: Database,
  receive: Receive,
  { folder }: UploadLimits,
  aMinute: RequestHandler,
  version: string,
): Router {
  const send = async (res: Response, clockId: string | null, name: string, at: Date) => {
    await mkdir(folder, { recursive: true })
    const own = await mkdtemp(join(folder, 'treadle-archive-'))
    try {
      const path = join(own, 'archive.zip')
      await writeArchive(db, path, clockId, { at, version })
      const { size } = await stat(path)
      res.type('application/zip').attachment(name).set('Content-Length', String(size))
      await pipeline(createReadStream(path), res)
    } finally {
      await rm(own, { recursive: true, force: true })
    }
  }
  return Router()
    .get('/archive.zip', async (req, res) => {
      const at = nowOf(req)
      await send(res, null, `treadle-workshop-${at.toISOString().slice(0, 10)}.zip`, at)
    })
    .get('/clocks/:id/archive.zip', async (req, res) => {
      const [clock] = await db
        .select()
        .from(clocks)
        .where(eq(clocks.id, idOf(req)))
      if (!clock) throw new Refused(404, 'not-found', 'There is no such clock.')
      const name = clock.name
        .normalize('NFKD')
        .replace(/[^A-Za-z0-9]+/g, '-')
        .replace(/^-|-$/g, '')
        .toLowerCase()
      await send(res, clock.id, `treadle-${name || 'clock'}.zip`, nowOf(req))
    })
    .post('/archive', aMinute, async (req, res) => {
      // Without `keep` it is only laid beside what is here: nothing is changed until somebody has seen what would be.
      const keep = req.query.keep === 'true'
      const take = takeOf(req.query.take)
      const told = await receive(req, res, MOST_BYTES, ({ path }) =>
        keep
          ? shopChange(db, req, 'archive', async ({ tx, write }) => {
              const done = await bringIn(tx, path, true, take)
              await write(null, inWords(done), {
                after: { fresh: done.fresh, taken: done.taken, renumbered: done.renumbered },
              })
              return done
            })
          : inTransaction(db, (tx) => bringIn(tx, path, false, take)),
      )
      res.json(told)
    })
}

/** Which clashing rows are taken: all, or those named as TABLE~KEY, one after another with commas between. */
function takeOf(said: unknown): Take {
  if (said === undefined || said === '') return new Set()
  if (said === 'all') return 'all'
  if (typeof said !== 'string') throw badField('take', 'Take: “all”, or rows as TABLE~KEY with commas between')
  return new Set(said.split(','))
}

function inWords({ of, workshop, at, fresh, freshFiles, same, taken, clashes, moreClashes }: ArchiveTold): string {
  const rows = fresh.reduce((n, f) => n + f.rows, 0)
  const what = of === 'clock' ? 'a clock' : 'a workshop'
  return `Brought in ${what} from ${workshop || 'another workshop'}, as of ${at.slice(0, 10)}: ${rows} rows and ${freshFiles} files new, ${same} as they are here, ${taken.length} taken as they are there, ${clashes.length + moreClashes} otherwise and left.`
}
