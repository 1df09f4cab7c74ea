import { MADE_PARTS } from '@treadle/core/choices'
import { array, id, line, mixed, only, requiredLine, string, version, type InferType } from './fields.ts'
import type { Stamped } from './stamped.ts'

const isSize = (value: unknown) => typeof value === 'number' && value > 0 && value <= 1000

/** A part that is made for this clock: its sizes as measured, and the steps that are done. */
export const MadePartChange = only({
  id: id(),
  version: version(),
  part: string().oneOf(MADE_PARTS).required().label('Part'),
  name: line(80).defined().label('What for'),
  /** by key, mm */
  sizes: mixed<Record<string, number>>(
    (value): value is Record<string, number> => typeof value === 'object' && value !== null && !Array.isArray(value),
  )
    .required()
    .test('sizes', 'Sizes: each must be a number of mm above 0 and up to 1000', (value) => {
      if (typeof value !== 'object' || value === null) return true
      const entries = Object.entries(value)
      return entries.length <= 12 && entries.every(([key, mm]) => /^[A-Za-z]{1,20}Mm$/.test(key) && isSize(mm))
    })
    .label('Sizes'),
  done: array(requiredLine(30)).max(20).required().label('Steps done'),
})
export type MadePartChange = InferType<typeof MadePartChange>
export type MadePartRow = MadePartChange & Stamped
