import {
  LoggerSheet,
  WatchChange,
  WatchTemperatures,
  WatchTold,
  type WatchMark,
  type WatchMinuteKept,
} from '@treadle/contract'
import { runOf, timeOfStrike, timeThere } from '@treadle/core'
import { and, asc, eq, gt, inArray, max, sql } from 'drizzle-orm'
import type { Router, RequestHandler } from 'express'
import { v7 as uuid } from 'uuid'
import type { Database, Queries } from '../db/connect.ts'
import { clocks, files, rateEvents, readings, strikeCounts, watches, watchMarks, watchMinutes } from '../db/schema.ts'
import { sameValues } from '../db/versioned.ts'
import { jobChange, type JobDoing } from '../door/jobChange.ts'
import type { Receive } from '../files/receive.ts'
import { sendFile } from '../files/send.ts'
import { storeFile } from '../files/store.ts'
import { bodyOf, idOf } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { watchOf } from './find.ts'
import { readLogger, thinned } from './logger.ts'
import { readingsOf, readStrikes, unreadStrikes } from './strikesRead.ts'
import { forgetBesideClock, keepBesideClock } from '../rate/thermometer.ts'
import { requireWave } from '../listenings/requireWave.ts'
import { readSettings } from '../settings/store.ts'

const BESIDE_MS = 3_600_000
const MOST_SOUND_BYTES = 20_000_000

/** Watches kept on a clock: their minutes, what they heard, and the sound about what was odd. */
export function watchRoutes(db: Database, receive: Receive, aMinute: RequestHandler): Router {
  return apiRouter()
    .use(
      rowRoutes(db, {
        path: 'watches',
        table: watches,
        schema: WatchChange,
        kind: 'watch',
        values: (body) => ({
          ...body,
          beganAt: new Date(body.beganAt),
          endedAt: body.endedAt === null ? null : new Date(body.endedAt),
        }),
        may: async ({ tx }, body, was) => {
          if (body === null && was) await forgetSounds(tx, was.id)
          // Over, it gives what all of it tells, down to the last minute.
          if (body !== null && body.endedAt !== null && was) await keepRun(tx, was.id)
        },
        sentence: (w, state) =>
          w.endedAt !== null
            ? `The watch is over: by ${w.pickup}, at ${w.beatsPerHour} beats an hour.`
            : state === 'created'
              ? `A watch begins: by ${w.pickup}${w.device === '' ? '' : ` on ${w.device}`}, at ${w.beatsPerHour} beats an hour.`
              : 'The watch goes on.',
        goneSentence: (row) => `Taken back: the watch that began ${row.beganAt.toISOString()}.`,
      }),
    )
    .put('/jobs/:id/watches/:row/told', async (req, res) => {
      const told = await bodyOf(WatchTold, req)
      const watchId = idOf(req, 'row')
      await jobChange(db, req, idOf(req), { kind: 'watch' }, async (doing) => {
        const watch = await watchOf(doing.tx, doing.job.id, watchId)
        if (told.minutes.length > 0) {
          const before = await halfHours(doing.tx, watchId)
          await keepMinutes(doing.tx, watchId, told.minutes)
          // A week is ten thousand minutes: they are not all read again for each.
          if (watch.endedAt !== null || (await halfHours(doing.tx, watchId)) !== before)
            await keepRun(doing.tx, watchId)
        }
        for (const mark of told.marks) await keepMark(doing, watch, mark)
      })
      res.status(204).end()
    })
    .put('/jobs/:id/watches/:row/temperatures', async (req, res) => {
      const { temperatures: more } = await bodyOf(WatchTemperatures, req)
      await jobChange(db, req, idOf(req), { kind: 'watch' }, async (doing) => {
        const { tx, job, write } = doing
        const watch = await watchOf(tx, job.id, idOf(req, 'row'))
        // Added to what is there: another device may have told some meanwhile.
        const temperatures = thinned([...watch.temperatures, ...more])
        if (sameValues({ temperatures }, watch)) return
        await tx.update(watches).set({ temperatures }).where(eq(watches.id, watch.id))
        // What was told beside a watch is told beside the clock.
        await keepBesideClock(doing, more)
        const n = more.length
        await write(
          `Beside the watch of ${watch.beganAt.toISOString()}: ${n} ${n === 1 ? 'temperature' : 'temperatures'}.`,
        )
      })
      res.status(204).end()
    })
    .delete('/jobs/:id/watches/:row/temperatures', async (req, res) => {
      await jobChange(db, req, idOf(req), { kind: 'watch' }, async (doing) => {
        const { tx, job, write } = doing
        const watch = await watchOf(tx, job.id, idOf(req, 'row'))
        if (watch.temperatures.length === 0) return
        await forgetBesideClock(doing, watch.temperatures)
        await tx.update(watches).set({ temperatures: [] }).where(eq(watches.id, watch.id))
        await write(
          `Taken away: the temperatures beside the watch of ${watch.beganAt.toISOString()}, and those of its time beside the clock.`,
        )
      })
      res.status(204).end()
    })
    .post('/jobs/:id/watches/:row/logger', async (req, res) => {
      const { text } = await bodyOf(LoggerSheet, req)
      const jobId = idOf(req)
      const { timeZone } = await readSettings(db)
      const read = readLogger(text, timeZone)
      const kept = await jobChange(db, req, jobId, { kind: 'watch' }, async (doing) => {
        const { tx, job, write } = doing
        const watch = await watchOf(tx, job.id, idOf(req, 'row'))
        const during = read.temperatures.filter((t) => isDuring(watch, Date.parse(t.at)))
        if (during.length === 0) return 0
        await tx
          .update(watches)
          .set({ temperatures: thinned([...watch.temperatures, ...during]) })
          .where(eq(watches.id, watch.id))
        await keepBesideClock(doing, during)
        await write(`From a logger beside the watch of ${watch.beganAt.toISOString()}: ${during.length} temperatures.`)
        return during.length
      })
      res.json({ read: read.temperatures.length, kept, wrong: read.wrong.slice(0, 20) })
    })
    .put('/jobs/:id/watches/:row/strikes-read', async (req, res) => {
      const kept = await jobChange(db, req, idOf(req), { kind: 'reading' }, (doing) =>
        readStrikes(doing, idOf(req, 'row')),
      )
      res.json({ kept })
    })
    .delete('/jobs/:id/watches/:row/strikes-read', async (req, res) => {
      await jobChange(db, req, idOf(req), { kind: 'reading' }, (doing) => unreadStrikes(doing, idOf(req, 'row')))
      res.status(204).end()
    })
    .get('/watches/:row', async (req, res) => {
      const id = idOf(req, 'row')
      const after = Number(req.query.after ?? -1)
      const [watch] = await db.select().from(watches).where(eq(watches.id, id))
      if (!watch) throw new Refused('no-such-watch')
      const minutes = await db
        .select()
        .from(watchMinutes)
        .where(and(eq(watchMinutes.watchId, id), gt(watchMinutes.minute, Number.isFinite(after) ? after : -1)))
        .orderBy(asc(watchMinutes.minute))
      const marks = await db.select().from(watchMarks).where(eq(watchMarks.watchId, id)).orderBy(asc(watchMarks.fromS))
      res.json({
        watch,
        minutes: minutes.map(({ watchId: _, ...m }) => m),
        marks: marks.map(({ watchId: _, soundId, ...m }) => ({ ...m, soundStored: soundId !== null })),
      })
    })
    .put('/jobs/:id/watches/:row/marks/:mark/sound', aMinute, async (req, res) => {
      if (!/^audio\/(wav|x-wav|wave|vnd\.wave)$/.test(req.headers['content-type'] ?? '')) throw new Refused('not-sound')
      const mine = and(eq(watchMarks.id, idOf(req, 'mark')), eq(watchMarks.watchId, idOf(req, 'row')))
      await receive(req, res, MOST_SOUND_BYTES, async ({ path }) => {
        await requireWave(path)
        await jobChange(db, req, idOf(req), { kind: 'watch' }, async ({ tx, job }) => {
          await watchOf(tx, job.id, idOf(req, 'row'))
          const [mark] = await tx.select({ soundId: watchMarks.soundId }).from(watchMarks).where(mine)
          if (!mark) throw new Refused('no-such-mark')
          if (mark.soundId !== null) return
          const soundId = uuid()
          await storeFile(tx, soundId, 'audio/wav', path)
          await tx.update(watchMarks).set({ soundId }).where(mine)
        })
      })
      res.status(204).end()
    })
    .get('/watch-marks/:row/sound', async (req, res) => {
      const [mark] = await db
        .select({ soundId: watchMarks.soundId, fromS: watchMarks.fromS })
        .from(watchMarks)
        .where(eq(watchMarks.id, idOf(req, 'row')))
      if (!mark?.soundId) throw new Refused('no-sound-of-mark')
      await sendFile(db, res, mark.soundId, `watch-${Math.round(mark.fromS)}s.wav`)
    })
}

/** Before and after the watch it was as warm as when it began and ended, for an hour. */
function isDuring(watch: typeof watches.$inferSelect, ms: number): boolean {
  return ms > watch.beganAt.getTime() - BESIDE_MS && ms < (watch.endedAt ?? new Date(8.64e15)).getTime() + BESIDE_MS
}

/** A minute told again takes the place of what was told before: it was heard to its end since. */
async function keepMinutes(tx: Queries, watchId: string, minutes: WatchMinuteKept[]): Promise<void> {
  // The last of one number counts: one statement can't write a row twice.
  const rows = [...new Map(minutes.map((m) => [m.minute, { ...m, watchId }])).values()]
  const set = Object.fromEntries(
    Object.entries(watchMinutes)
      .filter(([key]) => key !== 'watchId' && key !== 'minute' && key in (rows[0] ?? {}))
      .map(([key, column]) => [key, sql.raw(`excluded.${(column as { name: string }).name}`)]),
  )
  await tx
    .insert(watchMinutes)
    .values(rows)
    .onConflictDoUpdate({ target: [watchMinutes.watchId, watchMinutes.minute], set })
}

const HALF_HOUR = 30

/** How many half hours it has lasted: its rate is told by those. */
async function halfHours(tx: Queries, watchId: string): Promise<number> {
  const [last] = await tx
    .select({ minute: max(watchMinutes.minute) })
    .from(watchMinutes)
    .where(eq(watchMinutes.watchId, watchId))
  return Math.floor(((last?.minute ?? -1) + 1) / HALF_HOUR)
}

/** The rate it gives the rate book, by all of its minutes so far. */
async function keepRun(tx: Queries, watchId: string): Promise<void> {
  const minutes = await tx
    .select()
    .from(watchMinutes)
    .where(eq(watchMinutes.watchId, watchId))
    .orderBy(asc(watchMinutes.minute))
  await tx
    .update(watches)
    .set({ run: runOf(minutes) })
    .where(eq(watches.id, watchId))
}

async function keepMark(doing: JobDoing, watch: typeof watches.$inferSelect, mark: WatchMark): Promise<void> {
  const { tx, write } = doing
  const [was] = await tx.select().from(watchMarks).where(eq(watchMarks.id, mark.id))
  if (was && was.watchId !== watch.id) throw new Refused('other-watch')
  const { id, ...figures } = mark
  await tx
    .insert(watchMarks)
    .values({ id, ...figures, watchId: watch.id })
    .onConflictDoUpdate({ target: watchMarks.id, set: figures })
  if (was) return
  const at = new Date(watch.beganAt.getTime() + 1000 * mark.fromS)
  if (mark.kind === 'silent') await write(`Watched: silent from ${at.toISOString()}; ${mark.note}.`)
  if (mark.kind === 'strike' && mark.blows !== null) await countInTrial(doing, at, mark.blows)
}

/** In a trial a strike that was heard fills its time of the round, unless a later one was counted there. */
async function countInTrial({ tx, job, person, write }: JobDoing, heardAt: Date, blows: number): Promise<void> {
  const [clock] = await tx.select({ work: clocks.work }).from(clocks).where(eq(clocks.id, job.clockId))
  const begun = await tx
    .select({ at: rateEvents.at })
    .from(rateEvents)
    .where(and(eq(rateEvents.jobId, job.id), eq(rateEvents.kind, 'trial')))
  const strike = clock?.work.strike
  if (!strike || !begun.some((e) => e.at <= heardAt)) return
  const { timeZone } = await readSettings(tx)
  const time = timeOfStrike(timeThere(heardAt.getTime() / 1000, timeZone).slice(-5), blows, strike)
  if (!time) return
  const [was] = await tx
    .select()
    .from(strikeCounts)
    .where(
      and(eq(strikeCounts.jobId, job.id), eq(strikeCounts.hour, time.hour), eq(strikeCounts.quarter, time.quarter)),
    )
  if (was && was.heardAt >= heardAt) return
  // What was counted of its quarters stands: the watch counts blows.
  const values = { blows, quarters: was?.quarters ?? null, way: 'microphone' as const, heardAt, at: heardAt, ...person }
  if (was)
    await tx
      .update(strikeCounts)
      .set({ ...values, version: was.version + 1 })
      .where(eq(strikeCounts.id, was.id))
  else
    await tx
      .insert(strikeCounts)
      .values({ id: uuid(), jobId: job.id, hour: time.hour, quarter: time.quarter, ...values })
  await write(
    `Heard by the watch: ${blows} struck at ${time.quarter === 0 ? time.hour : `${time.hour}:${time.quarter * 15}`}.`,
  )
}

/** Sounds go with their watch, and what was read of its strikes; its minutes and marks follow it by themselves. */
async function forgetSounds(tx: Queries, watchId: string): Promise<void> {
  const marks = await tx
    .select({ id: watchMarks.id, soundId: watchMarks.soundId })
    .from(watchMarks)
    .where(eq(watchMarks.watchId, watchId))
  if (marks.length === 0) return
  await tx.delete(readings).where(inArray(readings.id, readingsOf(marks)))
  const sounds = marks.flatMap((m) => (m.soundId ? [m.soundId] : []))
  await tx.delete(watchMarks).where(eq(watchMarks.watchId, watchId))
  if (sounds.length > 0) await tx.delete(files).where(inArray(files.id, sounds))
}
