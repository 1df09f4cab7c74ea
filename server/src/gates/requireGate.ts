import { workHeld, type Work } from '@treadle/core'
import type { JobDoing } from '../door/jobChange.ts'
import { Refused } from '../http/refusals.ts'
import { gatherJob } from '../jobs/gather.ts'
import { readTable } from '../tables/store.ts'

/**
 * The only one that asks whether work may stand as done: of the job as it is in this change, so after the row that says so
 * was written. What is refused undoes it all. The pages ask the same of the core.
 */
export async function requireGate({ tx, job }: JobDoing, work: Work): Promise<void> {
  const rows = await gatherJob(tx, job.id)
  if (!rows) return
  const { values } = await readTable(tx, 'ways')
  const forGood = values.ways.filter((way) => !way.undone).map((way) => way.key)
  const held = workHeld({ ...rows, forGood }, work)
  if (held) throw new Refused('gate', held)
}
