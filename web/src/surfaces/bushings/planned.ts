import type { BushingRow, Hole } from '@treadle/contract'
import type { Plan as PlanOf, PlannedHole as PlannedHoleOf } from '@treadle/core'

/** The plan of a job, of its own rows. */
export type Plan = PlanOf<Hole, BushingRow>
export type PlannedHole = PlannedHoleOf<Hole, BushingRow>
