import { dryStanding } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { clocks, dryRuns, gateOverrides } from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { Refused } from '../http/problem.ts'

/** Refuses oil in a movement that was apart before each of its trains has run dry, unless that was overridden in writing. */
export async function requireDry({ tx, job }: JobDoing): Promise<void> {
  if (job.partedAt === null) return
  const [clock] = await tx.select({ trains: clocks.trains }).from(clocks).where(eq(clocks.id, job.clockId))
  const trains = (clock?.trains ?? []).map((t) => t.train)
  const runs = await tx.select().from(dryRuns).where(eq(dryRuns.jobId, job.id))
  const { freeAtS, open, tight } = dryStanding(
    trains.filter((t) => job.scope !== 'one-train' || t === job.scopeTrain),
    runs,
  )
  if (freeAtS !== null) return
  const [override] = await tx
    .select({ id: gateOverrides.id })
    .from(gateOverrides)
    .where(and(eq(gateOverrides.jobId, job.id), eq(gateOverrides.gate, 'dry')))
  if (override) return
  const what = [
    tight.length > 0 ? `Tight: the ${tight.join(' and ')} train.` : '',
    open.length > 0 ? `Not run dry and judged yet: the ${open.join(' and ')} train.` : '',
  ]
  throw new Refused(422, 'gate', 'Run it dry first: oil hides a tight train.', {
    detail: `${what.filter((w) => w !== '').join(' ')} It may be overridden in writing on the oil’s page.`,
  })
}
