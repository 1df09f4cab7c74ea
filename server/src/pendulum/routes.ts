import { PendulumSheetChange, RUN_DOWN_TITLES, RunDownChange, SHEET_PART_TITLES } from '@treadle/contract'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { pendulums, runDowns } from '../db/schema.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { apiRouter } from '../http/router.ts'

/** The pendulum laid out, and its run-downs. */
export function pendulumRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'pendulums',
      table: pendulums,
      schema: PendulumSheetChange,
      kind: 'pendulum',
      place: [],
      sentence: ({ parts }) =>
        parts.length === 0
          ? 'Pendulum laid out: no part yet.'
          : `Pendulum laid out: ${parts.map((p) => `${SHEET_PART_TITLES[p.kind].toLowerCase()} of ${p.material}`).join(', ')}.`,
      goneSentence: () => 'The pendulum laid out was taken back.',
    }),
    rowRoutes(db, {
      path: 'run-downs',
      table: runDowns,
      schema: RunDownChange,
      kind: 'pendulum',
      values: (body) => ({ ...body, ranAt: new Date(body.ranAt) }),
      sentence: ({ when, readings }) => {
        const [first, last] = [readings[0], readings.at(-1)]
        const fell =
          first && last && last !== first
            ? ` from ${first.semiArcDeg.toFixed(2)}° to ${last.semiArcDeg.toFixed(2)}° in ${Math.round(last.atS - first.atS)} s`
            : ''
        return `Pendulum left to run down, ${RUN_DOWN_TITLES[when]}: ${readings.length} ${readings.length === 1 ? 'arc' : 'arcs'}${fell}.`
      },
      goneSentence: (row) => `Taken back: the run-down of ${row.ranAt.toISOString()}.`,
    }),
  )
}
