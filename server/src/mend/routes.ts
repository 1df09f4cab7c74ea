import { ArborTestChange, BushingChange, PIVOT_WORK_TITLES, PivotChange, ReservationChange } from '@treadle/contract'
import { mayCut } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { Router } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { arborTests, bushings, holes, pivots, reservations } from '../db/schema.ts'
import { badField, Refused } from '../http/problem.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { requireFinishedPivot } from './pivotFirst.ts'
import { holdStock } from '../stock/hold.ts'

/** Inspecting and mending: the test between the plates, the pivots, the work on each hole, what is promised of the stock. */
export function mendRoutes(db: Database): Router {
  return Router().use(
    rowRoutes(db, {
      path: 'arbor-tests',
      table: arborTests,
      schema: ArborTestChange,
      kind: 'test',
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
      sentence: pivotSentence,
      goneSentence: (row) => `Pivot taken off the list: ${row.arbor}, ${row.plate} plate.`,
    }),
    rowRoutes(db, {
      path: 'bushings',
      table: bushings,
      schema: BushingChange,
      kind: 'bushing',
      before: async (tx, jobId, id, body) => {
        if (body) await readyToCut(tx, jobId, body)
        else await followHole(tx, jobId, await holeOfBushing(tx, id), false)
      },
      after: (tx, jobId, body) => followHole(tx, jobId, body.holeId, body.done.includes('pair')),
      sentence: (b) => {
        const last = b.done.at(-1)
        const bush =
          b.outsideMm === null || b.insideMm === null || b.lengthMm === null
            ? ''
            : ` Bush ${b.outsideMm.toFixed(2)} × ${b.insideMm.toFixed(2)} × ${b.lengthMm.toFixed(2)} mm, ${b.source === 'stock' ? 'from the drawer' : 'turned'}.`
        return `Bushing: ${last === undefined ? 'begun' : `“${last}” done`}, ${b.done.length} ${b.done.length === 1 ? 'step' : 'steps'}.${bush}`
      },
      goneSentence: () => 'Work on a hole taken back.',
    }),
    rowRoutes(db, {
      path: 'reservations',
      table: reservations,
      schema: ReservationChange,
      kind: 'stock',
      before: (tx, jobId, id, body) => holdStock(tx, jobId, id, body),
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

/** Cutting waits for the marks, and for the finished pivot that the bush is sized by. */
async function readyToCut(tx: Queries, jobId: string, body: BushingChange): Promise<void> {
  const [hole] = await tx
    .select()
    .from(holes)
    .where(and(eq(holes.id, body.holeId), eq(holes.jobId, jobId)))
  if (!hole) throw badField('holeId', 'Hole: it is not one of this job')
  if (!body.done.includes('cut')) return
  if (!mayCut(body.done))
    throw new Refused(422, 'gate', 'Mark the wear, the reference marks and the neighbours before the plate is cut.')
  await requireFinishedPivot(tx, jobId, hole)
}

async function holeOfBushing(tx: Queries, id: string): Promise<string | null> {
  const [row] = await tx.select({ holeId: bushings.holeId }).from(bushings).where(eq(bushings.id, id))
  return row?.holeId ?? null
}

/** A hole is bushed once its bush is in and tried, and no longer when that is taken back. */
async function followHole(tx: Queries, jobId: string, holeId: string | null, bushed: boolean): Promise<void> {
  if (holeId === null) return
  const [hole] = await tx
    .select()
    .from(holes)
    .where(and(eq(holes.id, holeId), eq(holes.jobId, jobId)))
  if (hole && hole.bushed !== bushed)
    await tx
      .update(holes)
      .set({ bushed, version: hole.version + 1 })
      .where(eq(holes.id, holeId))
}
