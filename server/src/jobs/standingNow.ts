import type { Standing } from '@treadle/contract'
import { standingOf } from '@treadle/core'
import type { Queries } from '../db/connect.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { gatherJobs } from './gather.ts'

/** The standing of a job as these queries see it: inside a change, with the change. */
export async function standingNow(queries: Queries, jobId: string, at: Date): Promise<Standing> {
  const [rows] = await gatherJobs(queries, [jobId])
  if (!rows) return { gates: [], owed: [] }
  const settings = await readSettings(queries)
  return standingOf(rows, settings, await readHoleRules(queries, settings), at.getTime() / 1000)
}
