import { FieldError, rateBook } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

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
]

function secondsOf(field: string, iso: string): number {
  const ms = Date.parse(iso)
  if (Number.isNaN(ms)) throw new FieldError(field, iso, 'it must be a moment such as 2026-03-01T09:30:00Z')
  return ms / 1000
}
