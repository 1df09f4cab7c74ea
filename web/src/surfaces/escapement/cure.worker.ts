import { findCure, type Cure, type EscapementGeometry } from '@treadle/core'
import { answering } from '../../parts/answering.ts'

export interface CureAsked {
  geometry: EscapementGeometry
  swingDeg: number
  locks: boolean
}

/** A thin shell over the core’s search for a cure, so that a dragged drawing never waits for it. */
answering(({ geometry, swingDeg, locks }: CureAsked): Cure | null => {
  try {
    return findCure(geometry, swingDeg, locks)
  } catch {
    // Figures that can’t be drawn have no cure; the sheet says which they are.
    return null
  }
})
