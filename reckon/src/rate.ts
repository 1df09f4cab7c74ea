import { RATE_GOAL, RATE_TOLERANCE, rateBook } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'
import { isoOf, secondsOf } from './moment.ts'

/** Calculations of the rate. */
export const RATE: Calculation[] = [
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
          temperatureC: number(),
          semiArcDeg: number(),
          pressureHpa: number(),
        }),
      )
        .min(1)
        .required()
        .label('Readings'),
      adjustments: array(only({ at: string().required(), turns: number().required() })).label('Turns of the nut'),
      handsSet: array(string().required()).label('Hands set'),
      wound: array(string().required()).label('Wound'),
      toleranceSecondsPerDay: figure('Rate within'),
      goalSecondsPerDay: figure('To be known to'),
      pitchMm: figure('Pitch'),
      lengthMm: figure('Length'),
    }),
    fields: {
      readings: {
        unit: 'ISO, s, s, °C, °, hPa',
        example: [
          { at: '2026-03-02T09:00:00Z', errorSeconds: 2 },
          { at: '2026-03-05T09:00:00Z', errorSeconds: -71.5 },
          { at: '2026-03-08T09:00:00Z', errorSeconds: -98 },
        ],
        note: '+ ahead of true time; warmth and arc where they were read: with three readings or more their figures are learnt',
      },
      adjustments: { unit: 'ISO, turns', example: [{ at: '2026-03-05T09:05:00Z', turns: 0.5 }], note: '+ raises' },
      handsSet: { unit: 'ISO', note: 'shifts the error and not the rate' },
      wound: { unit: 'ISO', note: 'three or more: a rhythm of its winding is looked for' },
      toleranceSecondsPerDay: { unit: 's/day', note: `${RATE_TOLERANCE} when not given` },
      goalSecondsPerDay: { unit: 's/day', note: `${RATE_GOAL} when not given` },
      pitchMm: { unit: 'mm', example: 0.8 },
      lengthMm: { unit: 'mm', example: 994 },
    },
    output: {
      rateSecondsPerDay: 's/day now, at the warmth and arc of the last three days',
      standardError: 's/day',
      secondsPerDayPerTurn: 's/day a turn',
      perTurnStandardError: 's/day a turn',
      priorSecondsPerDayPerTurn: 's/day a turn, by pitch and length alone',
      secondsPerDayPerC: 's/day for each °C, + gains when warmer',
      perCStandardError: 's/day for each °C',
      arcShare: 'of its circular error that it follows as its arc changes',
      arcShareStandardError: '',
      secondsPerDayPerHpa: 's/day for each hPa of heavier air',
      perHpaStandardError: 's/day for each hPa',
      windingSecondsPerDay: 's/day that it gains run down against wound',
      windingStandardError: 's/day',
      turnsLearntFrom: 'turns of the nut between readings',
      suggestedTurns: 'turns; 0 when none is called for',
      suggestedTurnsStandardError: 'turns',
      move: 'raise or lower',
      nextReadingAt: 'ISO',
      advice: 'turn, within-tolerance, not-told-from-zero, too-few-readings, nut-unknown, doubted or beyond-the-nut',
      suspects: 'places of the readings that don’t belong, counted from 0; the rate is reckoned without them',
    },
    run: (i) => {
      const book = rateBook({
        readings: i.readings.map((r, n) => ({
          atS: secondsOf(`readings[${n}].at`, r.at),
          errorS: r.errorSeconds,
          sigmaS: r.sigmaSeconds,
          temperatureC: r.temperatureC,
          semiArcDeg: r.semiArcDeg,
          pressureHpa: r.pressureHpa,
        })),
        windingsS: (i.wound ?? []).map((at, n) => secondsOf(`wound[${n}]`, at)),
        events: [
          ...(i.adjustments ?? []).map((a, n) => ({
            atS: secondsOf(`adjustments[${n}].at`, a.at),
            kind: 'nut' as const,
            turns: a.turns,
          })),
          ...(i.handsSet ?? []).map((at, n) => ({ atS: secondsOf(`handsSet[${n}]`, at), kind: 'hands' as const })),
        ],
        toleranceSecondsPerDay: i.toleranceSecondsPerDay,
        goalSecondsPerDay: i.goalSecondsPerDay,
        pitchMm: i.pitchMm,
        lengthMm: i.lengthMm,
      })
      const { segments: _, walk: _w, nextReadingAtS, suspects, ...rest } = book
      return {
        ...rest,
        suspects: suspects.map((s) => s.index),
        nextReadingAt: nextReadingAtS === null ? null : isoOf(nextReadingAtS),
      }
    },
  }),
]
