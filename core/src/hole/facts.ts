import type { ArborRole } from '../bushing/schools.ts'

/** A hole on the list of a job, as far as its verdict asks; figures in mm, null: not measured. */
export interface HoleFacts {
  train: string
  arbor: string
  plate: 'front' | 'back'
  role: ArborRole
  longAxisMm: number | null
  shortAxisMm: number | null
  /** degrees clockwise from 12, as seen from the front */
  wearDeg: number | null
  pivotMm: number | null
  plateMm: number | null
  moduleMm: number | null
  depthShiftMm: number | null
  /** across the hole that an old bush leaves */
  oldHoleMm: number | null
  shakeMm: number | null
  leanDeg: number | null
  verdictOverride: 'bush' | 'leave' | null
  /** why it need not be judged; empty: it must be */
  waived: string
  bushed: boolean
}

/** How deep a hole is worn, mm: its long way over its short; null until both are measured. */
export function wearOf({ longAxisMm, shortAxisMm }: Pick<HoleFacts, 'longAxisMm' | 'shortAxisMm'>): number | null {
  return longAxisMm === null || shortAxisMm === null ? null : longAxisMm - shortAxisMm
}
