import type { HoleFacts, PivotFacts } from '../src/index.ts'

/** A hole of which nothing is known but its place. */
export function unmeasured(place: Pick<HoleFacts, 'train' | 'arbor' | 'plate' | 'role'>): HoleFacts {
  return {
    ...place,
    longAxisMm: null,
    shortAxisMm: null,
    wearDeg: null,
    pivotMm: null,
    plateMm: null,
    moduleMm: null,
    depthShiftMm: null,
    oldHoleMm: null,
    shakeMm: null,
    leanDeg: null,
    verdictOverride: null,
    waived: '',
    bushed: false,
  }
}

/** A pivot that nobody has looked at. */
export const UNSEEN_PIVOT: PivotFacts = {
  nail: '',
  firstMm: null,
  secondMm: null,
  outOfRoundMm: null,
  runoutMm: null,
  grooveDepthMm: null,
  originalMm: null,
  shoulder: '',
  rust: false,
}
