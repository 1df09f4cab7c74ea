import type { Ticks, WatchMinute, WatchRun } from '@treadle/core'
import {
  array,
  boolean,
  id,
  line,
  measured,
  moment,
  only,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { Stamped } from './stamped.ts'

/** A longer record of a logger is thinned to so many. */
export const MOST_TEMPERATURES = 1000

/** A watch that is kept on a clock: who listens, since when, and with what. */
export const WatchChange = ruled(
  only({
    id: id(),
    version: version(),
    beganAt: moment().label('Began'),
    endedAt: moment().nullable().defined().label('Ended'),
    /** the device that listens, as it is called there */
    device: line(80).defined(),
    pickup: string().oneOf(['microphone', 'practice', 'file']).required(),
    beatsPerHour: measured(1000, 40_000).required().label('Beats an hour'),
    ticks: string<Ticks>().oneOf(['every beat', 'once a period']).required(),
    /** how much too fast the recorder's own clock is taken to run, parts per million */
    ppm: measured(-1000, 1000).required(),
    /** how far that is known; null: it was never compared */
    ppmError: measured(0, 1000).nullable().defined(),
  }),
  ['endedAt', 'Ended: it must not be before it began', (w) => w.endedAt === null || w.endedAt >= w.beganAt],
)
export type WatchChange = InferType<typeof WatchChange>
/** How warm it was, by a logger or read off: moment and °C. */
export const WatchTemperatures = only({
  temperatures: array(only({ at: moment(), celsius: measured(-40, 60).required().label('Temperature') }))
    .max(MOST_TEMPERATURES)
    .required(),
})
export type WatchTemperatures = InferType<typeof WatchTemperatures>

/** A logger's own sheet, as it saved it. */
export const LoggerSheet = only({
  text: text(900_000).required().label('Lines'),
})

export type WatchRow = WatchChange & Stamped & { run: WatchRun | null }

const figure = (low: number, high: number) => measured(low, high).nullable().defined()

/** One minute of a watch. */
export const WatchMinuteKept = only({
  /** its number from the beginning of the watch: one of 0 is the first */
  minute: measured(0, 200_000).integer().required(),
  fromS: measured(0, 1.2e7).required(),
  seconds: measured(0, 120).required(),
  beatsHeard: measured(0, 2000).integer().required(),
  beatsExpected: measured(0, 2000).integer().required(),
  rateSecondsPerDay: figure(-86_400, 86_400),
  rateStandardError: figure(0, 1e6),
  outOfBeatMs: figure(0, 1e4),
  outOfBeatStandardError: figure(0, 1e4),
  scatterMs: figure(0, 1e4),
  firstDb: figure(-200, 50),
  secondDb: figure(-200, 50),
  /** how far it got ahead since the listening that this minute is of began, s */
  aheadS: figure(-1e6, 1e6),
  /** when that listening began: it goes on from there as long as nothing was lost between */
  sinceS: measured(0, 1.2e7).required(),
})
export type WatchMinuteKept = InferType<typeof WatchMinuteKept>

export const WATCH_MARKS = ['strike', 'silent', 'odd'] as const

/** What a watch heard besides the beats: a strike, a silence, a minute unlike the others. */
export const WatchMark = only({
  id: id(),
  kind: string().oneOf(WATCH_MARKS).required(),
  fromS: measured(0, 1.2e7).required(),
  /** till when; null: it lasts, or has no length */
  toS: measured(0, 1.2e7).nullable().defined(),
  blows: measured(0, 200).integer().nullable().defined(),
  bird: boolean().required(),
  /** in words, for a silence whether there was sound at all */
  note: line(200).defined(),
})
export type WatchMark = InferType<typeof WatchMark>

/** What a watch tells the server, a minute or many at once; told twice it is written once. */
export const WatchTold = only({
  minutes: array(WatchMinuteKept).max(600).required(),
  marks: array(WatchMark).max(200).required(),
})
export type WatchTold = InferType<typeof WatchTold>

export interface WatchPage {
  watch: WatchRow & WatchTemperatures
  minutes: WatchMinuteKept[]
  marks: (WatchMark & { soundStored: boolean })[]
}

/** A minute as it is kept. */
export function minuteFrom(row: WatchMinute, sinceS: number): WatchMinuteKept {
  const { loudnessDb, fromS, ...rest } = row
  return {
    ...rest,
    fromS: fromS + sinceS,
    minute: Math.round((fromS + sinceS) / 60),
    firstDb: loudnessDb?.[0] ?? null,
    secondDb: loudnessDb?.[1] ?? null,
    sinceS,
  }
}
