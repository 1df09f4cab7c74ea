import { EVENT_TITLES, RateEventChange, READING_WAY_TITLES, ReadingChange } from '@treadle/contract'
import { turnFraction } from '@treadle/core'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { rateEvents, readings } from '../db/schema.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'

export function rateRoutes(db: Database): Router {
  const readingRows = rowRoutes(db, {
    path: 'readings',
    table: readings,
    schema: ReadingChange,
    kind: 'reading',
    values: (body) => ({ ...body, at: new Date(body.at) }),
    stamp: (person) => person,
    sentence: ({ errorSeconds, sigmaSeconds, way }, state) =>
      `${state === 'created' ? 'Read' : 'Corrected a reading'}: ${signed(errorSeconds)} s, ${READING_WAY_TITLES[way]} (±${sigmaSeconds} s).`,
    goneSentence: (row) => `Taken back: the reading of ${row.at.toISOString()}, ${signed(row.errorSeconds)} s.`,
  })
  const eventRows = rowRoutes(db, {
    path: 'events',
    table: rateEvents,
    schema: RateEventChange,
    kind: 'event',
    values: (body) => ({ ...body, at: new Date(body.at) }),
    stamp: (person) => person,
    sentence: eventSentence,
    goneSentence: (row) =>
      `Taken back: ${EVENT_TITLES[row.kind as RateEventChange['kind']]} of ${row.at.toISOString()}.`,
  })
  return Router().use(readingRows, eventRows)
}

function signed(value: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`
}

function eventSentence({ kind, turns, note }: RateEventChange): string {
  const what =
    kind === 'nut' && turns !== null
      ? `Nut ${turns > 0 ? 'raised' : 'lowered'} ${turnFraction(turns)} turn`
      : EVENT_TITLES[kind].replace(/^./, (c) => c.toUpperCase())
  return `${what}.${note === '' ? '' : ` ${note}`}`
}
