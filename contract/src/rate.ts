import type { RateEventKind, ReadingWay } from '@treadle/core'
import { EVENT_KINDS, READING_WAYS } from '@treadle/core/choices'
import type { Stamped } from './stamped.ts'
import { boolean, id, measured, moment, only, ruled, string, text, version, type InferType } from './fields.ts'

export const READING_WAY_TITLES: Record<ReadingWay, string> = {
  eye: 'by eye against a time signal',
  ear: 'by ear, on the strike',
  pedal: 'by pedal, minute hand on the mark',
  listening: 'by listening',
  strike: 'by the strike, as the microphone heard its first blow',
}
/** What the clock showed against true time. */
export const ReadingChange = only({
  id: id(),
  version: version(),
  at: moment().label('When'),
  errorSeconds: measured(-43_200, 43_200).required().label('Error'),
  sigmaSeconds: measured(0.001, 120).required().label('Good to'),
  way: string().oneOf(READING_WAYS).required().label('How'),
  /** of the air beside it; not said: nobody looked */
  temperatureC: measured(-40, 60).nullable().optional().default(undefined).label('Warmth'),
  semiArcDeg: measured(0.1, 45).nullable().optional().default(undefined).label('Semi-arc'),
  pressureHpa: measured(500, 1100).nullable().optional().default(undefined).label('Pressure of the air'),
})
export type ReadingChange = InferType<typeof ReadingChange>
export type Reading = ReadingChange & { jobId: string; who: string }

export const EVENT_TITLES: Record<RateEventKind, string> = {
  nut: 'nut turned',
  hands: 'hands set',
  winding: 'wound',
  weight: 'weight changed',
  tray: 'small weight on the tray',
  arc: 'arc changed',
  moved: 'clock moved',
  beat: 'beat changed',
  oiled: 'oiled',
  stopped: 'stopped and started',
  trial: 'trial begun',
  moon: 'moon seen to move',
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
    /** laid on the tray, − taken off; only for the tray */
    grams: measured(-500, 500).nullable().optional().default(undefined).label('Grams'),
    /** a stop: what the dial showed, such as 3:47; empty: nobody saw */
    showed: string()
      .defined()
      .matches(/^((1[0-2]|[1-9]):[0-5]\d)?$/, 'The dial showed must be a time on the dial, such as 3:47')
      .label('The dial showed'),
    note: text(500).defined().label('Note'),
  }),
  [
    'turns',
    'Turns: say how far the nut was turned, + to raise',
    (e) => e.kind !== 'nut' || (e.turns !== null && e.turns !== 0),
  ],
  [
    'grams',
    'Grams: say what was laid on the tray, − taken off',
    (e) => e.kind !== 'tray' || (typeof e.grams === 'number' && e.grams !== 0),
  ],
  ['showed', 'The dial showed: only a stop has it', (e) => e.showed === '' || e.kind === 'stopped'],
)
export type RateEventChange = InferType<typeof RateEventChange>
/** Something done to a clock now, to be kept. */
export function newEvent(id: string, kind: RateEventKind, at: string): RateEventChange {
  return { id, version: 0, at, kind, turns: null, showed: '', note: '' }
}
export type RateEventRow = RateEventChange & { jobId: string; who: string; whoId?: string | null }

/** How warm it was beside a clock, from readings of a thermometer or a logger's sheet, thinned. */
export interface ThermometerRow extends Stamped {
  id: string
  version: number
  temperatures: { at: string; celsius: number }[]
}
/** A year of days, and some. */
export const MOST_BESIDE_CLOCK = 400

/** Readings and events as lines of a sheet: looked at first, then kept. */
export const LogSheet = only({
  text: text(200_000).required().label('Lines'),
  keep: boolean().required(),
})
