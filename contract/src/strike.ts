import type { Halves, StrikeKind } from '@treadle/core'
import { HALVES, STRIKE_KIND_FACTS, STRIKE_KINDS } from '@treadle/core/choices'
import { id, measured, moment, only, ruled, string, version, type InferType } from './fields.ts'
import type { Stamped } from './stamped.ts'

const arbor = (label: string) => measured(0, 8).integer().nullable().defined().label(label)

/** How a clock strikes, and by which arbors; it is the clock's, whatever visit found it out. */
export const StrikeWork = ruled(
  only({
    kind: string<StrikeKind>().oneOf(STRIKE_KINDS).required().label('How it strikes'),
    halves: string<Halves>().oneOf(HALVES).required().label('At the half hour'),
    /** the arbor whose pins lift the hammer (0 = great), and its pins */
    pinArbor: arbor('Pin wheel, arbor'),
    pins: measured(1, 200).integer().nullable().defined().label('Pins'),
    lockingArbor: arbor('Locking arbor'),
  }),
  [
    'halves',
    'At the half hour: a clock that strikes so can’t do that',
    (s) => STRIKE_KIND_FACTS[s.kind].halves.includes(s.halves),
  ],
)
export type StrikeWork = InferType<typeof StrikeWork>

export const STRIKE_WAYS = ['pedal', 'hand', 'microphone'] as const

/** What a clock struck at one time of the round. */
export const StrikeCountChange = ruled(
  only({
    id: id(),
    version: version(),
    hour: measured(1, 12).integer().required().label('Hour'),
    quarter: measured(0, 3).integer().required().label('Quarter'),
    /** phrases, pairs or calls of the quarters */
    quarters: measured(0, 60).integer().nullable().defined().label('Quarters'),
    blows: measured(0, 60).integer().nullable().defined().label('Blows'),
    way: string().oneOf(STRIKE_WAYS).required().label('Counted'),
    heardAt: moment().label('When'),
  }),
  ['counted', 'Blows: say how many were counted', (c) => c.blows !== null || c.quarters !== null],
)
export type StrikeCountChange = InferType<typeof StrikeCountChange>
export type StrikeCountRow = StrikeCountChange & Stamped
