import { LoggerSheet, MOST_BESIDE_CLOCK, WatchTemperatures } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { Router } from 'express'
import { v7 as uuid } from 'uuid'
import type { Database } from '../db/connect.ts'
import { thermometers } from '../db/schema.ts'
import { jobChange, type JobDoing } from '../door/jobChange.ts'
import { bodyOf, idOf } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'
import { readSettings } from '../settings/store.ts'
import { readLogger, thinned } from '../watches/logger.ts'

/** Of how many days before a clock came in a logger's sheet is still kept with it. */
const BEFORE_IT_CAME_MS = 2 * 86_400_000

/** How warm it was beside a clock: read off a thermometer, or from a logger's sheet. */
export function thermometerRoutes(db: Database): Router {
  return apiRouter()
    .put('/jobs/:id/thermometer', async (req, res) => {
      const { temperatures } = await bodyOf(WatchTemperatures, req)
      await jobChange(db, req, idOf(req), { kind: 'reading' }, async (doing) => {
        const added = await keepBesideClock(doing, temperatures)
        if (added > 0) await doing.write(`Beside the clock: ${added} ${added === 1 ? 'temperature' : 'temperatures'}.`)
      })
      res.status(204).end()
    })
    .delete('/jobs/:id/thermometer', async (req, res) => {
      await jobChange(db, req, idOf(req), { kind: 'reading' }, async ({ tx, job, write }) => {
        const gone = await tx.delete(thermometers).where(eq(thermometers.jobId, job.id)).returning()
        if (gone.length > 0) await write('Taken away: the temperatures beside the clock.')
      })
      res.status(204).end()
    })
    .post('/jobs/:id/thermometer/logger', async (req, res) => {
      const { text } = await bodyOf(LoggerSheet, req)
      const { timeZone } = await readSettings(db)
      const read = readLogger(text, timeZone)
      const kept = await jobChange(db, req, idOf(req), { kind: 'reading' }, async (doing) => {
        const from = doing.job.receivedAt.getTime() - BEFORE_IT_CAME_MS
        const during = read.temperatures.filter((t) => Date.parse(t.at) >= from)
        const added = await keepBesideClock(doing, during)
        if (added > 0) await doing.write(`From a logger beside the clock: ${added} temperatures.`)
        return added
      })
      res.json({ read: read.temperatures.length, kept, wrong: read.wrong.slice(0, 20) })
    })
}

/** Adds to what is there, thinned to what is kept; says how many moments were new. */
export async function keepBesideClock(
  { tx, job, person, at }: JobDoing,
  more: WatchTemperatures['temperatures'],
): Promise<number> {
  if (more.length === 0) return 0
  const [row] = await tx.select().from(thermometers).where(eq(thermometers.jobId, job.id)).for('update')
  const there = row?.temperatures ?? []
  const known = new Set(there.map((t) => t.at))
  const fresh = more.filter((t) => !known.has(t.at))
  if (fresh.length === 0) return 0
  const temperatures = thinned([...there, ...fresh], MOST_BESIDE_CLOCK)
  await tx
    .insert(thermometers)
    .values({ id: row?.id ?? uuid(), jobId: job.id, temperatures, at, ...person, version: (row?.version ?? 0) + 1 })
    .onConflictDoUpdate({
      target: thermometers.jobId,
      set: { temperatures, at, ...person, version: (row?.version ?? 0) + 1 },
    })
  return fresh.length
}

/** Takes away what was told beside the clock over the time of these, thinned or not. */
export async function forgetBesideClock(
  { tx, job, person, at }: JobDoing,
  gone: WatchTemperatures['temperatures'],
): Promise<void> {
  const moments = gone.map((t) => Date.parse(t.at))
  const [from, to] = [moments.reduce((a, b) => Math.min(a, b)), moments.reduce((a, b) => Math.max(a, b))]
  const [row] = await tx.select().from(thermometers).where(eq(thermometers.jobId, job.id)).for('update')
  if (!row) return
  const temperatures = row.temperatures.filter((t) => Date.parse(t.at) < from || Date.parse(t.at) > to)
  await tx
    .update(thermometers)
    .set({ temperatures, at, ...person, version: row.version + 1 })
    .where(eq(thermometers.id, row.id))
}
