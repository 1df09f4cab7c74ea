/** A side's loudness is kept from SHAPE_FROM_MS before its drop on, every SHAPE_STEP_MS, at so many points. */
export const SHAPE_FROM_MS = -16
export const SHAPE_STEP_MS = 0.5
export const SHAPE_POINTS = 92
