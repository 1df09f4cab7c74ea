import { beatOffset, beatRemedy, twoReadings } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, only } from './fields.ts'

/** Calculations of the beat. */
export const BEAT: Calculation[] = [
  calculation({
    name: 'beat.offset',
    title: 'Out of beat, by how much',
    about: 'Where the escapement stands from plumb, from the two intervals; exact for a sinusoidal swing.',
    input: only({
      rightToLeftMs: figure('Right to left').required(),
      leftToRightMs: figure('Left to right').required(),
      semiArcDeg: figure('Semi-arc').required(),
      releaseDeg: figure('Release angle').required(),
    }),
    fields: {
      rightToLeftMs: { unit: 'ms', example: 465.16 },
      leftToRightMs: { unit: 'ms', example: 534.84 },
      semiArcDeg: { unit: '°', example: 5 },
      releaseDeg: { unit: '°', example: 2, note: 'half the angle between the two releases' },
    },
    output: { offsetDeg: '° (+ right)', splitPercent: '%', outOfBeatMs: 'ms', marginDeg: '°' },
    run: (i) => ({ ...beatOffset(i, i.semiArcDeg, i.releaseDeg) }),
  }),
  calculation({
    name: 'beat.remedy',
    title: 'What puts it in beat',
    about: 'Bend, packing or swing for an escapement that stands off plumb, as seen from the front.',
    input: only({
      offsetDeg: figure('Offset, + right').required(),
      crutchLengthMm: figure('Length of the crutch'),
      footSpacingMm: figure('Distance of the feet'),
      seatSpacingMm: figure('Distance of the seat board’s bearers'),
      caseHeightMm: figure('Height of the case'),
    }),
    fields: {
      offsetDeg: { unit: '°', example: 0.5 },
      crutchLengthMm: { unit: 'mm', example: 120 },
      footSpacingMm: { unit: 'mm', example: 300 },
      seatSpacingMm: { unit: 'mm', example: 180 },
      caseHeightMm: { unit: 'mm', example: 700 },
    },
    output: {
      crutchBendMm: 'mm',
      crutchBendToward: 'left or right',
      packMm: 'mm',
      packUnder: 'left or right',
      seatPackMm: 'mm',
      seatPackUnder: 'left or right',
      swingBottomMm: 'mm',
      swingBottomToward: 'left or right',
    },
    run: (i) => ({ ...beatRemedy(i.offsetDeg, i) }),
  }),
  calculation({
    name: 'beat.twoReadings',
    title: 'Two readings and one known change',
    about: 'Where the beat will be even, without knowing arc or release.',
    input: only({
      firstMs: figure('First, signed').required(),
      secondMs: figure('Second, signed').required(),
      changeMm: figure('Change between them').required(),
    }),
    fields: {
      firstMs: { unit: 'ms', example: 48 },
      secondMs: { unit: 'ms', example: 35 },
      changeMm: { unit: 'mm', example: 0.4 },
    },
    output: { fromStartMm: 'mm', fromNowMm: 'mm' },
    run: (i) => ({ ...twoReadings(i.firstMs, i.secondMs, i.changeMm) }),
  }),
]
