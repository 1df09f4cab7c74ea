import { errorByStrike, READING_SIGMAS, timeOfStrike, timeThere } from '@treadle/core'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { v5 as uuid } from 'uuid'
import { clocks, readings, watchMarks } from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { Refused } from '../http/refusals.ts'
import { readSettings } from '../settings/store.ts'
import { watchOf } from './find.ts'

const NAMESPACE = '2f3c9a1e-6a51-4d3e-8b41-0b6f7ad2c9d4'
const DAY_S = 86_400

/**
 * What a watch heard strike as readings of the rate book: the hours alone, since each time of the round is let off a
 * little earlier or later than the others. Done twice it is done once. Returns how many are new.
 */
export async function readStrikes({ tx, job, person, write }: JobDoing, watchId: string): Promise<number> {
  const watch = await watchOf(tx, job.id, watchId)
  const [clock] = await tx.select({ work: clocks.work }).from(clocks).where(eq(clocks.id, job.clockId))
  const strike = clock?.work.strike
  if (!strike) throw new Refused('no-strike')
  const { timeZone } = await readSettings(tx)
  const marks = await tx
    .select()
    .from(watchMarks)
    .where(and(eq(watchMarks.watchId, watchId), eq(watchMarks.kind, 'strike'), eq(watchMarks.bird, false)))
    .orderBy(asc(watchMarks.fromS))
  const read = marks.flatMap((mark) => {
    const atS = watch.beganAt.getTime() / 1000 + mark.fromS
    const there = timeThere(atS, timeZone, 'second').slice(-8)
    const time = timeOfStrike(there.slice(0, 5), mark.blows ?? 0, strike)
    if (!time || time.quarter !== 0) return []
    return [
      {
        id: idOf(mark.id),
        version: 1,
        jobId: job.id,
        at: new Date(1000 * atS),
        errorSeconds: Math.round(100 * errorByStrike(secondsOfDay(there) + (atS % 1), time)) / 100,
        sigmaSeconds: READING_SIGMAS.strike,
        way: 'strike' as const,
        ...person,
      },
    ]
  })
  if (read.length === 0) return 0
  const made = await tx.insert(readings).values(read).onConflictDoNothing().returning({ id: readings.id })
  if (made.length > 0)
    await write(`Read by its strike, as the watch of ${watch.beganAt.toISOString()} heard it: ${made.length} times.`)
  return made.length
}

/** Takes those readings back. */
export async function unreadStrikes({ tx, job, write }: JobDoing, watchId: string): Promise<void> {
  await watchOf(tx, job.id, watchId)
  const marks = await tx.select({ id: watchMarks.id }).from(watchMarks).where(eq(watchMarks.watchId, watchId))
  if (marks.length === 0) return
  const ids = readingsOf(marks)
  const gone = await tx
    .delete(readings)
    .where(and(eq(readings.jobId, job.id), inArray(readings.id, ids)))
    .returning({ id: readings.id })
  if (gone.length > 0) await write(`Taken back: ${gone.length} readings by the strike.`)
}

/** The readings that these marks became, or would. */
export function readingsOf(marks: { id: string }[]): string[] {
  return marks.map((m) => idOf(m.id))
}

function idOf(markId: string): string {
  return uuid(markId, NAMESPACE)
}

function secondsOfDay(there: string): number {
  const [hours = 0, minutes = 0, seconds = 0] = there.split(':').map(Number)
  return (3600 * hours + 60 * minutes + seconds) % DAY_S
}
