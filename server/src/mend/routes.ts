import { ArborTestChange, BushingChange, PIVOT_WORK_TITLES, PivotChange, ReservationChange } from '@treadle/contract'
import { samePlace, stepDone } from '@treadle/core'
import { and, eq, ne, sql } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { arborTests, bushings, holes, pivots, reservations } from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { requireGate } from '../gates/requireGate.ts'
import { badField } from '../http/problem.ts'
import { apiRouter } from '../http/router.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { followBush, holdStock } from '../stock/hold.ts'

/** Inspecting and mending: the test between the plates, the pivots, the work on each hole, what is promised of the stock. */
export function mendRoutes(db: Database): Router {
  return apiRouter().use(
    rowRoutes(db, {
      path: 'arbor-tests',
      table: arborTests,
      schema: ArborTestChange,
      kind: 'test',
      place: ['train', 'arbor'],
      sentence: (t) =>
        `Between the plates, ${t.arbor}: ${[
          t.endshakeMm === null ? '' : `endshake ${t.endshakeMm.toFixed(2)} mm`,
          t.binds.length > 0 ? `binds ${t.binds.join(', ')}` : t.tried ? 'free in every position' : '',
          t.feel,
          t.note,
        ]
          .filter((w) => w !== '')
          .join('; ')}.`,
      goneSentence: (row) => `Test between the plates taken back: ${row.arbor}.`,
    }),
    rowRoutes(db, {
      path: 'pivots',
      table: pivots,
      schema: PivotChange,
      kind: 'pivot',
      place: ['train', 'arbor', 'plate'],
      after: async (doing, body, was) => {
        if (was && body?.finishedMm === null && (was.finishedMm !== null || !samePlace(was, body)))
          await requireGate(doing, { work: 'unfinish', place: body })
      },
      sentence: pivotSentence,
      goneSentence: (row) => `Pivot taken off the list: ${row.arbor}, ${row.plate} plate.`,
    }),
    rowRoutes(db, {
      path: 'bushings',
      table: bushings,
      schema: BushingChange,
      kind: 'bushing',
      ofDrawers: true,
      place: ['holeId'],
      may: async (doing, body) => {
        if (body) await ownHole(doing, body.holeId)
      },
      after: async (doing, body, was) => {
        if (body && (was?.holeId !== body.holeId || body.done.some((key) => !was.done.includes(key))))
          await requireGate(doing, { work: 'cut', holeId: body.holeId })
        // Work that is moved to another hole leaves the first as it was.
        if (was && was.holeId !== body?.holeId) await followHole(doing, was.holeId, false)
        if (body) await followHole(doing, body.holeId, body.done.includes('pair'))
        await followBush(doing, was, body)
      },
      sentence: (b) => {
        const last = b.done.at(-1)
        const bush =
          b.outsideMm === null || b.insideMm === null || b.lengthMm === null
            ? ''
            : ` Bush ${b.outsideMm.toFixed(2)} × ${b.insideMm.toFixed(2)} × ${b.lengthMm.toFixed(2)} mm, ${b.source === 'stock' ? 'from the drawer' : 'turned'}.`
        return `Bushing: ${last === undefined ? 'begun' : stepDone(last)}; ${b.done.length} ${b.done.length === 1 ? 'step' : 'steps'} so far.${bush}`
      },
      goneSentence: () => 'Work on a hole taken back.',
    }),
    rowRoutes(db, {
      path: 'reservations',
      table: reservations,
      schema: ReservationChange,
      kind: 'stock',
      ofDrawers: true,
      may: async (doing, body) => {
        if (body) await ownHole(doing, body.holeId)
      },
      after: ({ tx }, body, was) => holdStock(tx, was, body),
      sentence: (r) => `${r.taken ? 'Taken from the drawer' : 'Promised from the drawer'}: ${r.count}.`,
      goneSentence: (row) => `Back in the drawer: ${row.count}.`,
    }),
  )
}

function pivotSentence(p: PivotChange): string {
  const place = `${p.arbor}, ${p.plate} pivot`
  if (p.work !== '') return `Pivot ${PIVOT_WORK_TITLES[p.work]}: ${place}, now ${p.finishedMm?.toFixed(2) ?? '?'} mm.`
  const found = [
    p.firstMm === null ? '' : `${p.firstMm.toFixed(2)} mm`,
    p.nail === 'catches' ? 'a fingernail catches' : '',
    p.runoutMm === null ? '' : `runs out ${p.runoutMm.toFixed(2)} mm`,
    p.rust ? 'rust' : '',
  ].filter((w) => w !== '')
  return `Pivot looked at: ${place}${found.length > 0 ? `, ${found.join(', ')}` : ''}.`
}

/** A hole of this job; none where none is named. */
async function ownHole({ tx, job }: JobDoing, id: string | null): Promise<void> {
  if (id === null) return
  const [hole] = await tx
    .select({ id: holes.id })
    .from(holes)
    .where(and(eq(holes.id, id), eq(holes.jobId, job.id)))
  if (!hole) throw badField('holeId', 'Hole: it is not one of this job')
}

/** A hole is bushed once its bush is in and tried, and no longer when that is taken back. */
async function followHole({ tx, job }: JobDoing, holeId: string, bushed: boolean): Promise<void> {
  const mine = and(eq(holes.id, holeId), eq(holes.jobId, job.id), ne(holes.bushed, bushed))
  await tx
    .update(holes)
    .set({ bushed, version: sql`${holes.version} + 1` })
    .where(mine)
}
