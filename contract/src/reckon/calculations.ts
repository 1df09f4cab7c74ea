import {
  beatOffset,
  beatRemedy,
  bushingPlan,
  circularLossSecondsPerDay,
  FieldError,
  gravityAt,
  nutTurnFor,
  pendulumLengthMm,
  rateBook,
  secondsPerDayPerTurn,
  trainBeats,
  twoReadings,
} from '@treadle/core'
import { array, number, only, string } from '../fields.ts'
import { ARRIVE_AND_STRIP } from './arriveAndStrip.ts'
import { MENDING } from './mending.ts'
import { calculation, type Calculation } from './calculation.ts'

const figure = (label: string) => number().label(label)

/** Every calculation that stands on its own, as the command and the Reckoner offer it. */
export const CALCULATIONS: Calculation[] = [
  calculation({
    name: 'pendulum.length',
    title: 'Length of the pendulum',
    about: 'Suspension to centre of oscillation of the simple pendulum that makes so many beats an hour.',
    input: only({ beatsPerHour: figure('Beats an hour').required(), gravity: figure('Gravity') }),
    fields: {
      beatsPerHour: { unit: '', example: 7200 },
      gravity: { unit: 'm/s²', note: '9.80665 when not given' },
    },
    output: { lengthMm: 'mm' },
    run: (i) => ({ lengthMm: pendulumLengthMm(i.beatsPerHour, i.gravity) }),
  }),
  calculation({
    name: 'pendulum.gravity',
    title: 'Gravity at a place',
    about: 'Normal gravity on the WGS 84 ellipsoid, with height.',
    input: only({ latitudeDeg: figure('Latitude').required(), altitudeM: figure('Altitude') }),
    fields: { latitudeDeg: { unit: '°', example: 57 }, altitudeM: { unit: 'm', note: '0 when not given' } },
    output: { gravity: 'm/s²' },
    run: (i) => ({ gravity: gravityAt(i.latitudeDeg, i.altitudeM) }),
  }),
  calculation({
    name: 'pendulum.circularLoss',
    title: 'Circular error',
    about: 'What a free pendulum loses at a semi-arc against a very small swing; exact.',
    input: only({ semiArcDeg: figure('Semi-arc').required() }),
    fields: { semiArcDeg: { unit: '°', example: 3 } },
    output: { secondsPerDay: 's/day lost' },
    run: (i) => ({ secondsPerDay: circularLossSecondsPerDay(i.semiArcDeg) }),
  }),
  calculation({
    name: 'pendulum.nut',
    title: 'Turn of the rating nut',
    about: 'How far to turn the nut for a rate. Lower is slower.',
    input: only({
      rateSecondsPerDay: figure('Rate, + gains').required(),
      lengthMm: figure('Length').required(),
      pitchMm: figure('Pitch').required(),
      share: figure('Share of the bob'),
    }),
    fields: {
      rateSecondsPerDay: { unit: 's/day', example: -9 },
      lengthMm: { unit: 'mm', example: 994 },
      pitchMm: { unit: 'mm', example: 0.8 },
      share: { unit: '', note: '1 when not given: a heavy bob on a light rod' },
    },
    output: { turns: 'turns', move: 'raise or lower', secondsPerDayPerTurn: 's/day a turn' },
    run: (i) => {
      const perTurn = secondsPerDayPerTurn(i.lengthMm, i.pitchMm, i.share)
      return { ...nutTurnFor(i.rateSecondsPerDay, perTurn), secondsPerDayPerTurn: perTurn }
    },
  }),
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
      caseHeightMm: figure('Height of the case'),
    }),
    fields: {
      offsetDeg: { unit: '°', example: 0.5 },
      crutchLengthMm: { unit: 'mm', example: 120 },
      footSpacingMm: { unit: 'mm', example: 300 },
      caseHeightMm: { unit: 'mm', example: 700 },
    },
    output: {
      crutchBendMm: 'mm',
      crutchBendToward: 'left or right',
      packMm: 'mm',
      packUnder: 'left or right',
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
  calculation({
    name: 'train.beats',
    title: 'Beats of a train',
    about: 'Beats an hour and the turning time of each arbor, from the one that turns once an hour.',
    input: only({
      wheels: array(number().required()).required().label('Wheels'),
      pinions: array(number().required()).required().label('Pinions'),
      escapeTeeth: figure('Escape wheel').required(),
    }),
    fields: {
      wheels: { unit: 'teeth', example: [64, 60], note: 'from the wheel that turns once an hour' },
      pinions: { unit: 'leaves', example: [8, 8] },
      escapeTeeth: { unit: 'teeth', example: 30 },
    },
    output: { beatsPerHour: '', periodsS: 's' },
    run: (i) => ({ ...trainBeats(i.wheels, i.pinions, i.escapeTeeth) }),
  }),
  calculation({
    name: 'bushing.plan',
    title: 'A worn hole',
    about: 'Verdict of the three schools and the sizes to cut, for one hole.',
    input: only({
      longAxisMm: figure('Long way').required(),
      shortAxisMm: figure('Short way').required(),
      pivotMm: figure('Pivot, finished').required(),
      plateMm: figure('Plate here').required(),
      role: string()
        .oneOf(['escape', 'pallet', 'other'] as const)
        .required()
        .label('Role'),
      moduleMm: figure('Module'),
      depthShiftMm: figure('Shift along the line of centres'),
      cutters: array(number().required()).required().label('Cutters'),
    }),
    fields: {
      longAxisMm: { unit: 'mm', example: 1.32 },
      shortAxisMm: { unit: 'mm', example: 1.1 },
      pivotMm: { unit: 'mm', example: 1 },
      plateMm: { unit: 'mm', example: 2.4 },
      role: { unit: '', example: 'other' },
      moduleMm: { unit: 'mm' },
      depthShiftMm: { unit: 'mm' },
      cutters: { unit: 'mm', example: [1.6, 1.8, 2, 2.3] },
    },
    output: {
      wearMm: 'mm',
      originalCentreOffsetMm: 'mm',
      fileBackMm: 'mm',
      playPercent: '%',
      verdict: 'bush or leave',
      reasons: '',
      cutterMm: 'mm',
      bushOutsideMm: 'mm',
      drilledMm: 'mm',
      finishedHoleMm: 'mm',
      wallMm: 'mm',
      lengthMm: 'mm',
    },
    run: ({ cutters, ...hole }) => ({ ...bushingPlan(hole, cutters) }),
  }),
  calculation({
    name: 'rate.book',
    title: 'The rate book',
    about: 'Rate now, what a turn of the nut does on this clock, the next turn and the next reading.',
    input: only({
      readings: array(
        only({
          at: string().required(),
          errorSeconds: number().required(),
          sigmaSeconds: number(),
        }),
      )
        .min(1)
        .required()
        .label('Readings'),
      adjustments: array(only({ at: string().required(), turns: number().required() })).label('Adjustments'),
      pitchMm: figure('Pitch'),
      lengthMm: figure('Length'),
    }),
    fields: {
      readings: {
        unit: 'ISO, s, s',
        example: [
          { at: '2026-03-02T09:00:00Z', errorSeconds: 2 },
          { at: '2026-03-05T09:00:00Z', errorSeconds: -71.5 },
          { at: '2026-03-08T09:00:00Z', errorSeconds: -98 },
        ],
        note: '+ ahead of true time',
      },
      adjustments: { unit: 'ISO, turns', example: [{ at: '2026-03-05T09:05:00Z', turns: 0.5 }], note: '+ raises' },
      pitchMm: { unit: 'mm', example: 0.8 },
      lengthMm: { unit: 'mm', example: 994 },
    },
    output: {
      rateSecondsPerDay: 's/day now',
      standardError: 's/day',
      secondsPerDayPerTurn: 's/day a turn',
      perTurnStandardError: 's/day a turn',
      suggestedTurns: 'turns',
      move: 'raise or lower',
      nextReadingAt: 'ISO',
      advice: '',
    },
    run: (i) => {
      const book = rateBook({
        readings: i.readings.map((r, n) => ({
          atS: secondsOf(`readings[${n}].at`, r.at),
          errorS: r.errorSeconds,
          sigmaS: r.sigmaSeconds,
        })),
        events: (i.adjustments ?? []).map((a, n) => ({
          atS: secondsOf(`adjustments[${n}].at`, a.at),
          kind: 'nut',
          turns: a.turns,
        })),
        pitchMm: i.pitchMm,
        lengthMm: i.lengthMm,
      })
      const { segments: _, nextReadingAtS, ...rest } = book
      return { ...rest, nextReadingAt: nextReadingAtS === null ? null : new Date(nextReadingAtS * 1000).toISOString() }
    },
  }),
  ...ARRIVE_AND_STRIP,
  ...MENDING,
]

function secondsOf(field: string, iso: string): number {
  const ms = Date.parse(iso)
  if (Number.isNaN(ms)) throw new FieldError(field, iso, 'it must be a moment such as 2026-03-01T09:30:00Z')
  return ms / 1000
}
