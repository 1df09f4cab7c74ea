import { StripMark, StripStep, TRAY_TITLES } from '@treadle/contract'
import { isPlate } from '@treadle/core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { stripMarks, stripSteps } from '../db/schema.ts'
import { requireGate } from '../gates/requireGate.ts'
import { apiRouter } from '../http/router.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'

/** Taking apart: the marks made before, and the log, step by step. */
export function stripRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'strip-marks',
      table: stripMarks,
      schema: StripMark,
      kind: 'strip',
      place: ['key'],
      sentence: (m) =>
        m.state === 'done'
          ? `Marked before parting: ${m.key}${m.note === '' ? '' : `, ${m.note}`}.`
          : `Mark waived, ${m.key}: ${m.note}`,
      goneSentence: (row) => `Mark taken back: ${row.key}.`,
    }),
    rowRoutes(db, {
      path: 'strip-steps',
      table: stripSteps,
      schema: StripStep,
      kind: 'strip',
      after: async (doing, body, was) => {
        if (!body) return
        if (isPlate(body.part) && !(was && isPlate(was.part))) await requireGate(doing, { work: 'plates-out' })
        if (body.back && !was?.back && doing.job.partedAt !== null) await requireGate(doing, { work: 'assemble' })
      },
      sentence: (s, state) =>
        state === 'created'
          ? `Out: ${s.part}, ${s.count} ${s.count === 1 ? 'part' : 'parts'}, ${TRAY_TITLES[s.tray].toLowerCase()}${s.screws === '' ? '' : `; ${s.screws}`}.`
          : s.back
            ? `Back in: ${s.part}.`
            : s.notBack !== ''
              ? `Does not go back: ${s.part}. ${s.notBack}`
              : `Strip step changed: ${s.part}.`,
      goneSentence: (row) => `Strip step taken back: ${row.part}.`,
    }),
  )
}
