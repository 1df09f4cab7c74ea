import { EVENT_TITLES, LogSheet, RateEventChange, READING_WAY_TITLES, ReadingChange } from '@treadle/contract'
import { turnFraction } from '@treadle/core'
import { eq } from 'drizzle-orm'
import type { Router, Request } from 'express'
import type { Database } from '../db/connect.ts'
import { rateEvents, readings } from '../db/schema.ts'
import { jobChange } from '../door/jobChange.ts'
import { bodyOf, idOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { apiRouter } from '../http/router.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { readSettings } from '../settings/store.ts'
import { requireGate } from '../gates/requireGate.ts'
import { logCsv, newIn, readLogSheet, type ReadSheet } from './sheet.ts'

export function rateRoutes(db: Database): Router {
  const readingRows = rowRoutes(db, {
    path: 'readings',
    table: readings,
    schema: ReadingChange,
    kind: 'reading',
    values: (body) => ({ ...body, at: new Date(body.at) }),
    stamp: (person) => person,
    sentence: ({ errorSeconds, sigmaSeconds, way, ...beside }, state, was) =>
      `${state === 'created' ? 'Read' : 'Corrected a reading'}: ${signed(errorSeconds)} s, ${READING_WAY_TITLES[way]} (±${sigmaSeconds} s)${besideWords(beside)}${was ? `; it was ${signed(was.errorSeconds)} s, ${was.at.toISOString()}` : ''}.`,
    goneSentence: (row) => `Taken back: the reading of ${row.at.toISOString()}, ${signed(row.errorSeconds)} s.`,
  })
  const eventRows = rowRoutes(db, {
    path: 'events',
    table: rateEvents,
    schema: RateEventChange,
    kind: 'event',
    after: async (doing, body, was) => {
      if (body?.kind === 'oiled' && was?.kind !== 'oiled') await requireGate(doing, { work: 'oil' })
    },
    values: (body) => ({ ...body, at: new Date(body.at) }),
    stamp: (person) => person,
    sentence: eventSentence,
    goneSentence: (row) =>
      `Taken back: ${EVENT_TITLES[row.kind as RateEventChange['kind']]} of ${row.at.toISOString()}.`,
  })
  return apiRouter()
    .use(readingRows, eventRows)
    .get('/jobs/:id/log.csv', async (req, res) => {
      const jobId = idOf(req)
      const [read, happened, settings] = await Promise.all([
        db.select().from(readings).where(eq(readings.jobId, jobId)),
        db.select().from(rateEvents).where(eq(rateEvents.jobId, jobId)),
        readSettings(db),
      ])
      res
        .type('text/csv')
        .set('Content-Disposition', 'attachment; filename="treadle-rate.csv"')
        .send(logCsv({ readings: read, events: happened }, settings.timeZone))
    })
    .post('/jobs/:id/log', async (req, res) => {
      const { text, keep } = await bodyOf(LogSheet, req)
      const jobId = idOf(req)
      const { timeZone } = await readSettings(db)
      const sheet = readLogSheet(text, jobId, timeZone, nowOf(req))
      const kept = keep ? await keepSheet(db, req, jobId, sheet) : 0
      res.json({ ...sheet, kept })
    })
}

/** Writes what could be read of a sheet, in one go and one line of the journal; what is there already is not written twice. */
function keepSheet(db: Database, req: Request, jobId: string, sheet: ReadSheet): Promise<number> {
  return jobChange(db, req, jobId, { kind: 'reading' }, async (doing) => {
    const { tx, job, person, write } = doing
    const own = <R extends { at: string }>(row: R) => ({
      ...row,
      at: new Date(row.at),
      version: 1,
      jobId: job.id,
      ...person,
    })
    const fresh = newIn(sheet, {
      readings: await tx.select().from(readings).where(eq(readings.jobId, job.id)),
      events: await tx.select().from(rateEvents).where(eq(rateEvents.jobId, job.id)),
    })
    if (fresh.events.some((e) => e.kind === 'oiled')) await requireGate(doing, { work: 'oil' })
    const made = [
      ...(fresh.readings.length === 0
        ? []
        : await tx
            .insert(readings)
            .values(fresh.readings.map(own))
            .onConflictDoNothing()
            .returning({ id: readings.id })),
      ...(fresh.events.length === 0
        ? []
        : await tx
            .insert(rateEvents)
            .values(fresh.events.map(own))
            .onConflictDoNothing()
            .returning({ id: rateEvents.id })),
    ]
    if (made.length > 0)
      await write(`Read from a sheet: ${made.length} ${made.length === 1 ? 'line' : 'lines'} of its log.`, {
        ...fresh,
      })
    return made.length
  })
}

function signed(value: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`
}

/** ", at 18.5 °C, semi-arc 2.1°" */
function besideWords({
  temperatureC,
  semiArcDeg,
  pressureHpa,
}: Pick<ReadingChange, 'temperatureC' | 'semiArcDeg' | 'pressureHpa'>): string {
  return [
    temperatureC == null ? '' : `, at ${temperatureC} °C`,
    semiArcDeg == null ? '' : `, semi-arc ${semiArcDeg}°`,
    pressureHpa == null ? '' : `, ${pressureHpa} hPa`,
  ].join('')
}

function eventSentence({ kind, turns, grams, showed, note }: RateEventChange): string {
  const what =
    kind === 'nut' && turns !== null
      ? `Nut ${turns > 0 ? 'raised' : 'lowered'} ${turnFraction(turns)} turn`
      : kind === 'tray' && grams != null
        ? `${Math.abs(grams)} g ${grams > 0 ? 'laid on' : 'taken off'} the tray`
        : EVENT_TITLES[kind].replace(/^./, (c) => c.toUpperCase())
  return `${what}${showed === '' ? '' : `; its dial showed ${showed}`}.${note === '' ? '' : ` ${note}`}`
}
