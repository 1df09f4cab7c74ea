import type { ArchiveProgress, ArchiveTold } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { Request, RequestHandler, Response, Router } from 'express'
import { createReadStream } from 'node:fs'
import { mkdir, mkdtemp, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Database } from '../db/connect.ts'
import { clocks } from '../db/schema.ts'
import { shopChange } from '../door/shopChange.ts'
import type { Receive, UploadLimits } from '../files/receive.ts'
import { idOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { badField, problemOf } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import type { Asked } from './compare.ts'
import { lookAtArchive, takeArchiveIn } from './intake.ts'
import { Progress } from './progress.ts'
import { SHOPS } from './tables.ts'
import { writeArchive } from './write.ts'

const MOST_BYTES = 8_000_000_000
/** How often it is told how far it has come. */
const TOLD_EVERY_MS = 200
const LINES = 'application/x-ndjson'

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
  return apiRouter()
    .get('/archive.zip', async (req, res) => {
      const at = nowOf(req)
      await send(res, null, `treadle-workshop-${at.toISOString().slice(0, 10)}.zip`, at)
    })
    .get('/clocks/:id/archive.zip', async (req, res) => {
      const [clock] = await db
        .select()
        .from(clocks)
        .where(eq(clocks.id, idOf(req)))
      if (!clock) throw new Refused('no-such-clock')
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
      const asked = askedOf(req)
      await receive(req, res, MOST_BYTES, ({ path }) =>
        answered(req, res, (progress) => {
          const intake = { db, path, folder: dirname(path), asked, progress }
          return keep ? takeArchiveIn(intake, (work) => shopChange(db, req, 'archive', work)) : lookAtArchive(intake)
        }),
      )
    })
}

/**
 * Answers with what was told, or, where lines are asked for, with how far it has come and then with that. Whoever hangs up
 * stops it.
 */
async function answered(
  req: Request,
  res: Response,
  work: (progress: Progress) => Promise<ArchiveTold>,
): Promise<void> {
  const stop = new AbortController()
  const hungUp = () => stop.abort(new Refused('stopped'))
  res.once('close', hungUp)
  try {
    if (req.headers.accept !== LINES) {
      res.json(await work(new Progress(() => undefined, stop.signal)))
      return
    }
    res.type(LINES).set({ 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
    const line = (value: object) => void res.write(`${JSON.stringify(value)}\n`)
    let toldAt = -Infinity
    let step = ''
    const tell = (progress: ArchiveProgress) => {
      const now = performance.now()
      if (progress.step === step && now - toldAt < TOLD_EVERY_MS) return
      toldAt = now
      step = progress.step
      line({ progress })
    }
    await work(new Progress(tell, stop.signal)).then(
      (told) => line({ told }),
      (error: unknown) => line({ problem: problemOf(error, req) }),
    )
    res.end()
  } finally {
    res.off('close', hungUp)
  }
}

/** Which clashing rows are taken, all or those named as TABLE~KEY, and which of the shop’s own, by table. */
function askedOf(req: Request): Asked {
  const list = (field: 'take' | 'kinds', title: string): string[] => {
    const said = req.query[field]
    if (said === undefined || said === '') return []
    if (typeof said !== 'string') throw badField(field, `${title}, with commas between`)
    return said.split(',')
  }
  const take = list('take', 'Take: “all”, or rows as TABLE~KEY')
  const kinds = list('kinds', 'Kinds: tables of the shop’s own')
  const unknown = kinds.find((kind) => !SHOPS.has(kind as never))
  if (unknown !== undefined) throw badField('kinds', `Kinds: there is no “${unknown.slice(0, 60)}” of the shop’s own`)
  return { take: take[0] === 'all' ? 'all' : new Set(take), kinds: new Set(kinds) }
}
