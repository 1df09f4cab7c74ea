import type { RateBookInput, RateEvent } from '@treadle/core'
import { id, measured, moment, only, ruled, string, text, version, type InferType } from './fields.ts'

export const READING_WAYS = ['eye', 'ear', 'pedal', 'listening'] as const
export const READING_WAY_TITLES: Record<(typeof READING_WAYS)[number], string> = {
  eye: 'by eye against a time signal',
  ear: 'by ear, on the strike',
  pedal: 'by pedal, minute hand on the mark',
  listening: 'by listening',
}
/** How good each way of reading is, s. */
export const READING_SIGMAS: Record<(typeof READING_WAYS)[number], number> = {
  eye: 1,
  ear: 0.5,
  pedal: 0.5,
  listening: 0.1,
}

/** What the clock showed against true time. */
export const ReadingChange = only({
  id: id(),
  version: version(),
  at: moment().label('When'),
  errorSeconds: measured(-43_200, 43_200).required().label('Error'),
  sigmaSeconds: measured(0.001, 120).required().label('Good to'),
  way: string().oneOf(READING_WAYS).required().label('How'),
})
export type ReadingChange = InferType<typeof ReadingChange>
export type Reading = ReadingChange & { jobId: string; who: string }

export const EVENT_KINDS = [
  'nut',
  'hands',
  'winding',
  'weight',
  'arc',
  'moved',
  'beat',
  'oiled',
  'stopped',
  'trial',
] as const
export const EVENT_TITLES: Record<(typeof EVENT_KINDS)[number], string> = {
  nut: 'nut turned',
  hands: 'hands set',
  winding: 'wound',
  weight: 'weight changed',
  arc: 'arc changed',
  moved: 'clock moved',
  beat: 'beat changed',
  oiled: 'oiled',
  stopped: 'stopped and started',
  trial: 'trial begun',
}

/** What was done to the clock between readings. */
export const RateEventChange = ruled(
  only({
    id: id(),
    version: version(),
    at: moment().label('When'),
    kind: string().oneOf(EVENT_KINDS).required().label('What was done'),
    /** + raises; only for the nut */
    turns: measured(-50, 50).nullable().defined().label('Turns'),
    note: text(500).defined().label('Note'),
  }),
  [
    'turns',
    'Turns: say how far the nut was turned, + to raise',
    (e) => e.kind !== 'nut' || (e.turns !== null && e.turns !== 0),
  ],
)
export type RateEventChange = InferType<typeof RateEventChange>
export type RateEventRow = RateEventChange & { jobId: string; who: string; whoId?: string | null }

const seconds = (iso: string) => Date.parse(iso) / 1000

/** A job's log as the rate book reckons with it. Winding and the start of a trial change no rate. */
export function rateBookInput(
  readings: Pick<ReadingChange, 'at' | 'errorSeconds' | 'sigmaSeconds'>[],
  events: Pick<RateEventChange, 'at' | 'kind' | 'turns'>[],
  rest: Pick<RateBookInput, 'pitchMm' | 'lengthMm' | 'toleranceSecondsPerDay' | 'goalSecondsPerDay'>,
): RateBookInput {
  return {
    ...rest,
    readings: readings.map((r) => ({ atS: seconds(r.at), errorS: r.errorSeconds, sigmaS: r.sigmaSeconds })),
    events: events.flatMap((e): RateEvent[] => {
      const atS = seconds(e.at)
      if (e.kind === 'winding' || e.kind === 'trial') return []
      if (e.kind === 'nut') return [{ atS, kind: 'nut', turns: e.turns ?? 0 }]
      return [{ atS, kind: e.kind === 'hands' ? 'hands' : 'change' }]
    }),
  }
}
