import type { JobPage } from '@treadle/contract'
import { movementOfJob, type HoleRules, type Movement } from '@treadle/core'
import { once } from '../data/once.ts'
import { useHoleRules } from '../data/queries.ts'
import { useJobData } from './useJobData.ts'

const movementOf = once((data: JobPage, rules: HoleRules) => movementOfJob(data, rules))

/** The movement of this job: its trains on the plates, and what the rules say of each hole. Nothing until they are here. */
export function useMovement(): Movement | undefined {
  const data = useJobData()
  const rules = useHoleRules()
  return rules && movementOf(data, rules)
}
