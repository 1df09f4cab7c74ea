import type { Plate } from '@treadle/contract'
import { and, eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { gateOverrides, pivots } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'

/** Refuses what fits a bush while its pivot is on record and not finished, unless that was overridden in writing. */
export async function requireFinishedPivot(
  tx: Queries,
  jobId: string,
  hole: { train: string; arbor: string; plate: Plate },
): Promise<void> {
  const [pivot] = await tx
    .select()
    .from(pivots)
    .where(
      and(
        eq(pivots.jobId, jobId),
        eq(pivots.train, hole.train),
        eq(pivots.arbor, hole.arbor),
        eq(pivots.plate, hole.plate),
      ),
    )
  if (!pivot || pivot.finishedMm !== null) return
  const [override] = await tx
    .select({ id: gateOverrides.id })
    .from(gateOverrides)
    .where(and(eq(gateOverrides.jobId, jobId), eq(gateOverrides.gate, 'pivots')))
  if (!override)
    throw new Refused(422, 'gate', 'Finish the pivot first: the bush is fitted to the finished pivot.', {
      detail: `${hole.arbor}, ${hole.plate} plate. It may be overridden in writing on the pivots’ page.`,
    })
}
