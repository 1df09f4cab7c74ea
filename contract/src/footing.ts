import { FOOTING_WAYS } from '@treadle/core/choices'
import { id, measured, only, string, version, type InferType } from './fields.ts'
import type { Stamped } from './stamped.ts'

export const FOOTING_WAY_TITLES: Record<(typeof FOOTING_WAYS)[number], string> = {
  sensor: 'by the tilt sensor of the device on its case',
  level: 'by a level',
}

/** Where a clock was found to be in beat, as its case was rocked. */
export const FootingChange = only({
  id: id(),
  version: version(),
  way: string().oneOf(FOOTING_WAYS).required().label('How'),
  /** how it stood, degrees, + right side down, as the sensor or level gives it */
  stoodAtDeg: measured(-20, 20).required().label('It stood at'),
  evenAtDeg: measured(-30, 30).required().label('Even at'),
  standardError: measured(0, 10).required(),
  /** by how much a degree changes its beat, ms, either way */
  msPerDeg: measured(0, 1000).required(),
  swings: measured(0, 5000).integer().required(),
})
export type FootingChange = InferType<typeof FootingChange>
export type FootingRow = FootingChange & Stamped
