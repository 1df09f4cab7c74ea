import { findCure, type Cure, type EscapementGeometry } from '@treadle/core'

/** A thin shell over the core’s search for a cure, so that a dragged drawing never waits for it. */
export interface CureAsked {
  id: number
  geometry: EscapementGeometry
  swingDeg: number
  locks: boolean
}
export type CureFound = { id: number; cure: Cure | null }

self.onmessage = ({ data }: MessageEvent<CureAsked>) => {
  let cure: Cure | null = null
  try {
    cure = findCure(data.geometry, data.swingDeg, data.locks)
  } catch {
    // Figures that can’t be drawn have no cure; the sheet says which they are.
  }
  self.postMessage({ id: data.id, cure } satisfies CureFound)
}
