import { workHeld, type HeldWork, type Work } from '@treadle/core'
import { useJobData } from './useJobData.ts'

/** Asks of this job, as its page stands, what the server asks before work may be said to be done; null: it may. */
export function useWorkHeld(forGood: readonly string[] = []): (work: Work) => HeldWork | null {
  const data = useJobData()
  return (work) => workHeld({ ...data, forGood }, work)
}
