import { nth } from '../check/nth.ts'
import { SECONDS_PER_PPM } from '../sound/ownClock.ts'
import { fitBeats, type BeatFit } from './fit.ts'
import { nearestUsualCount } from './nominal.ts'
import { soundOfSides, type SideSound } from './sideSound.ts'
import { periodicFaults, type GoingCounts, type Periodic } from './periodic.ts'
import { findPeriod, type FoundPeriod } from './period.ts'
import { trainBeats } from '../train/beats.ts'
import { retime } from './retime.ts'
import { amplitudeTrack } from './shape.ts'
import { findSlips, type Slip } from './slips.ts'
import { onsetStrength, type OnsetStrength } from './strength.ts'
import { toothReports, type ToothReport } from './teeth.ts'
import { REACH_S, trackBeats, type TrackedBeat } from './track.ts'

/** Raised whenever a change of the analyser moves its figures; kept with every listening. */
export const ANALYSER_VERSION = '2'

export interface ListenOptions {
  /** beats an hour the clock should make; the nearest usual count when not given */
  beatsPerHour?: number | undefined
  /** teeth of the escape wheel, for the report tooth by tooth */
  teeth?: number | undefined
  /** counts from the hourly arbor up, for the wheels and meshes that are heard in the beats */
  train?: GoingCounts | undefined
  /** how much too fast the recorder's own clock runs, parts per million */
  ppm?: number | undefined
  /** how far that is known, parts per million: it stays in the error of the rate */
  ppmError?: number | undefined
  /** where its beats are known to come, from what was heard just before: then it is not sought anew */
  known?: KnownCourse | undefined
  /** seconds of the recording that were lost and stand as silence in it */
  lostS?: number | undefined
  /** an escapement that drops once a period only: its return is almost silent; every beat when not said */
  ticks?: Ticks | undefined
}

/** A clock's course in the recording: its full period, a release of either side, and from there to the next of the other. */
export interface KnownCourse {
  periodS: number
  firstS: number
  firstToSecondS: number
}

export type Ticks = 'every beat' | 'once a period'

export interface HeardBeat {
  index: number
  atS: number
  lateMs: number
  healthy: boolean
}

export interface Hearing {
  heard: true
  beatsPerHour: number
  nominalBeatsPerHour: number
  /** + gains */
  rateSecondsPerDay: number
  rateStandardError: number
  /** the longer interval's share, ≥ 50 */
  splitPercent: number
  /** half the difference of the two intervals, ≥ 0 */
  outOfBeatMs: number
  outOfBeatStandardError: number
  /** first side to second, second to first */
  intervalsMs: [number, number]
  beatsHeard: number
  beatsExpected: number
  /** beats missed or left out because they did not fit */
  rejected: number
  slips: number
  slipsFound: Slip[]
  /** standard deviation of one healthy beat's time */
  scatterMs: number
  teeth?: ToothReport[]
  /** wheels and meshes whose turns come back in the beats; where the train was given */
  periodic?: Periodic
  /** how each side sounds, the first side's first */
  sides: [SideSound, SideSound]
  /** what makes one doubt that this is a clock, or this clock; empty when nothing does */
  doubts: string[]
  confidence: number
  secondsAnalysed: number
  beats: HeardBeat[]
  analyserVersion: string
  /** told where the clock ticks once a period: its split can’t be told by ear then, and stands as even and wholly unsure */
  ticks?: Ticks
}

/** Why nothing was made of a recording. */
export interface NothingHeard {
  heard: false
  reason: 'silence' | 'too-short' | 'lost' | 'no-clock' | 'another-rhythm' | 'too-few-beats'
  sentence: string
  /** what beats here instead of the count that was given */
  insteadBeatsPerHour?: number
}

const SECONDS_PER_DAY = 86_400
const LEAST_SECONDS = 4
const LEAST_BEATS = 5
/** With more than this share lost, it is the computer that would be judged, not the clock. */
const MOST_LOST = 0.1
/** Fewer of the beats that should be there than this are no clock; with fewer than that, no figure can be trusted. */
const LEAST_FOUND = 0.35
const LEAST_USED = 0.65
/** Where a clock is known, its shapes are learnt in so long a stretch, its beats looked for so near, and it is taken to be clear. */
const LEARNT_S = 20
const KNOWN_REACH_S = 0.014
const KNOWN_EXPLAINS = 0.6
/** Farther from every usual count than this a count is unusual. */
const UNUSUAL_SHARE = 0.015
/** Two sides nearer to even than this can't be told from one sound, s. */
const EVEN_S = 4e-4
/** A clock's beats scatter by less than this, s. */
const UNSTEADY_S = 2e-3
const DOUBTED = 0.6
/** A train makes this beat when they agree so far. */
const SAME_COUNT = 0.02
const FAINT_SPREADS = 1.2
/** Mean power of −110 dB: digital silence and what filters leave of it. */
const SILENCE_POWER = 1e-11

/**
 * What a recording says of a clock: beats an hour, rate, beat, scatter, slips; or why nothing can be said.
 *
 * @param bins - power above 900 Hz in bins of `binS` seconds
 */
export function hear(bins: Float32Array, binS: number, options: ListenOptions = {}): Hearing | NothingHeard {
  if (options.ticks !== 'once a period') return hearTicks(bins, binS, options)
  const heard = hearTicks(bins, binS, asTicks(options))
  if (heard.heard) return oncePerPeriod(heard, options)
  return heard.insteadBeatsPerHour === undefined
    ? heard
    : { ...heard, insteadBeatsPerHour: 2 * heard.insteadBeatsPerHour }
}

/** Ticks that come once a period are listened for as the beats of a clock half as fast. */
export function asTicks(options: ListenOptions): ListenOptions {
  if (options.ticks !== 'once a period') return options
  const { beatsPerHour, teeth: _, train: _train, ...rest } = options
  return { ...rest, ticks: 'every beat', ...(beatsPerHour !== undefined && { beatsPerHour: beatsPerHour / 2 }) }
}

/** A hearing of ticks as one of swings: twice as many beats, the rate as it was, and nothing told of the split. */
function oncePerPeriod(heard: Hearing, options: ListenOptions): Hearing {
  const beatsPerHour = 2 * heard.beatsPerHour
  const nominal = options.beatsPerHour ?? nearestUsualCount(beatsPerHour)
  const beatMs = 3_600_000 / beatsPerHour
  const { teeth: _, ...rest } = heard
  return {
    ...rest,
    beatsPerHour,
    nominalBeatsPerHour: nominal,
    rateSecondsPerDay: SECONDS_PER_DAY * (beatsPerHour / nominal - 1),
    splitPercent: 50,
    outOfBeatMs: 0,
    outOfBeatStandardError: beatMs / 2,
    intervalsMs: [beatMs, beatMs],
    doubts: heard.doubts.filter((doubt) => doubt !== ONE_SOUND && !doubt.includes('no usual count')),
    beats: heard.beats.map((beat) => ({ ...beat, index: 2 * beat.index })),
    ticks: 'once a period',
  }
}

const ONE_SOUND = 'Tick and tock sound the same and come quite evenly: a tap that drips would sound so too.'

function hearTicks(bins: Float32Array, binS: number, options: ListenOptions): Hearing | NothingHeard {
  const seconds = bins.length * binS
  if (!bins.some((p) => p > SILENCE_POWER))
    return nothing('silence', 'There is silence in this recording: nothing above 900 Hz was picked up.')
  if (seconds < LEAST_SECONDS)
    return nothing(
      'too-short',
      `The recording is ${seconds.toFixed(1)} s long; it takes at least ${LEAST_SECONDS} s to tell a beat.`,
    )
  const lostS = options.lostS ?? 0
  if (lostS > MOST_LOST * seconds)
    return nothing(
      'lost',
      `The computer was too busy to listen: ${lostS.toFixed(1)} of ${seconds.toFixed(0)} s were lost. Close what else is running and listen again, or use a sound file.`,
    )
  if (options.known) {
    const onCourse = hearOnCourse(bins, binS, options, options.known)
    if (onCourse.heard) return onCourse
  }
  let strength = onsetStrength(bins, binS)
  const givenS = options.beatsPerHour === undefined ? undefined : 7200 / options.beatsPerHour
  let found = findPeriod(strength, givenS)
  if (!found) {
    // A clock faint in its noise: count smaller onsets too.
    strength = onsetStrength(bins, binS, FAINT_SPREADS)
    found = findPeriod(strength, givenS)
  }
  if (!found && givenS !== undefined) return anotherRhythm(bins, binS, givenS)
  if (!found) return nothing('no-clock', 'No clock was heard: nothing in this recording beats evenly enough.')
  return hearFound(bins, binS, options, strength, found, REACH_S)
}

/** What is heard where the clock is known to beat; of the sounds only the first stretch is asked for their onsets. */
function hearOnCourse(
  bins: Float32Array,
  binS: number,
  options: ListenOptions,
  known: KnownCourse,
): Hearing | NothingHeard {
  const stretch = bins.subarray(0, Math.round(LEARNT_S / binS))
  const found = {
    ...known,
    fromS: 0,
    toS: stretch.length * binS,
    explained: KNOWN_EXPLAINS,
    loudDb: 0,
    louderSideDb: 0,
  }
  return hearFound(bins, binS, options, onsetStrength(stretch, binS), found, KNOWN_REACH_S)
}

function hearFound(
  bins: Float32Array,
  binS: number,
  options: ListenOptions,
  strength: OnsetStrength,
  found: FoundPeriod,
  reachS: number,
): Hearing | NothingHeard {
  const seconds = bins.length * binS
  const amplitude = amplitudeTrack(bins, binS)
  const tracked = trackBeats(amplitude, binS, strength, found, reachS)
  let { beats, referenceErrorS, sidesAlike } = tracked
  let slips = findSlips(beats)
  let fit = fitBeats(beats, slips)
  const retimed = fit && retime(amplitude, binS, beats, fit)
  if (retimed) {
    ;({ beats, referenceErrorS, sidesAlike } = retimed)
    slips = findSlips(beats)
    fit = fitBeats(beats, slips)
  }
  const used = fit ? fit.healthy.filter(Boolean).length : 0
  if (!fit || used < LEAST_BEATS)
    return nothing(
      'too-few-beats',
      `Only ${used} beats were heard; it takes at least ${LEAST_BEATS} to tell the beat and the rate.`,
    )
  if (used < LEAST_FOUND * tracked.beatsExpected)
    return nothing('no-clock', 'No clock was heard: too few of the sounds keep to one beat.')
  if (used < LEAST_USED * tracked.beatsExpected)
    return nothing(
      'too-few-beats',
      `${tracked.beatsExpected - used} of ${tracked.beatsExpected} beats were missed or did not fit: no figure is shown from so few. Come nearer with the microphone, or listen longer where it is quieter.`,
    )

  const trueSeconds = 1 / (1 + (options.ppm ?? 0) * 1e-6)
  const beatS = fit.beatS * trueSeconds
  const unevenS = fit.unevenS * trueSeconds
  const beatsPerHour = 3600 / beatS
  const nominal = options.beatsPerHour ?? nearestUsualCount(beatsPerHour)
  const unevenErrorS = Math.hypot(fit.unevenStandardErrorS, referenceErrorS)
  const oneSound = sidesAlike && Math.abs(unevenS) < 2 * unevenErrorS + EVEN_S
  const doubts = doubtsOf(beatsPerHour, nominal, oneSound, fit.scatterS)
  return {
    heard: true,
    beatsPerHour,
    nominalBeatsPerHour: nominal,
    rateSecondsPerDay: SECONDS_PER_DAY * (beatsPerHour / nominal - 1),
    rateStandardError: Math.hypot(
      SECONDS_PER_DAY * (beatsPerHour / nominal) * (fit.beatStandardErrorS / fit.beatS),
      SECONDS_PER_PPM * (options.ppmError ?? 0),
    ),
    splitPercent: 50 * (1 + Math.abs(unevenS) / beatS),
    outOfBeatMs: 1000 * Math.abs(unevenS),
    outOfBeatStandardError: 1000 * unevenErrorS,
    intervalsMs: [1000 * (beatS + unevenS), 1000 * (beatS - unevenS)],
    beatsHeard: beats.length,
    beatsExpected: tracked.beatsExpected,
    rejected: tracked.beatsExpected - used,
    slips: slips.length,
    slipsFound: slips,
    scatterMs: 1000 * fit.scatterS,
    ...(options.teeth !== undefined && { teeth: toothReports(beats, fit, options.teeth) }),
    ...(options.train && isOfTrain(beatsPerHour, options.train) && { periodic: periodicOf(beats, fit, options.train) }),
    sides: soundOfSides(amplitude, binS, beats, fit),
    doubts,
    confidence: confidence(
      used / tracked.beatsExpected,
      found.explained,
      fit.scatterS / fit.beatS,
      doubts.length > 0 ? DOUBTED : 1,
    ),
    secondsAnalysed: seconds,
    beats: beats.map((b, i) => ({
      index: b.index,
      atS: b.atS,
      lateMs: 1000 * nth(fit.lateS, i),
      healthy: fit.healthy[i] as boolean,
    })),
    analyserVersion: ANALYSER_VERSION,
  }
}

/** Whether these counts make this beat: of another train nothing is looked for. */
function isOfTrain(beatsPerHour: number, train: GoingCounts): boolean {
  const made = trainBeats(train.wheels, train.pinions, train.escapeTeeth).beatsPerHour
  return Math.abs(made / beatsPerHour - 1) < SAME_COUNT
}

function periodicOf(beats: TrackedBeat[], fit: BeatFit, train: GoingCounts): Periodic {
  const sound = beats.filter((_, i) => fit.healthy[i])
  return periodicFaults(
    sound.map((b) => b.index),
    fit.lateS.filter((_, i) => fit.healthy[i]).map((s) => 1000 * s),
    train,
  )
}

/** What makes one doubt that it is a clock: a count no clock is made for, or one sound that comes evenly. */
function doubtsOf(beatsPerHour: number, nominal: number, oneSound: boolean, scatterS: number): string[] {
  const doubts: string[] = []
  if (Math.abs(beatsPerHour / nominal - 1) > UNUSUAL_SHARE)
    doubts.push(`${grouped(beatsPerHour)} beats an hour is no usual count: is it a clock that is heard?`)
  if (oneSound) doubts.push(ONE_SOUND)
  if (scatterS > UNSTEADY_S)
    doubts.push(`Its beats scatter by ${(1000 * scatterS).toFixed(1)} ms, more than a clock’s do.`)
  return doubts
}

/** What is said where the count that was given is not heard. */
function anotherRhythm(bins: Float32Array, binS: number, givenS: number): NothingHeard {
  const given = `The clock of ${grouped(7200 / givenS)} beats an hour is not heard here`
  const other = hear(bins, binS)
  return other.heard
    ? {
        ...nothing('another-rhythm', `${given}; something beats ${grouped(other.beatsPerHour)} times an hour.`),
        insteadBeatsPerHour: other.beatsPerHour,
      }
    : nothing('no-clock', `${given}: nothing in this recording beats evenly enough.`)
}

/** 0 to 1: how many of the beats were used, how much of the room was the clock, how steady it is, what is doubted. */
function confidence(usedShare: number, explained: number, scatterShare: number, doubted: number): number {
  const clear = Math.min(1, explained / 0.6)
  const steady = 1 / (1 + (scatterShare / 0.01) ** 2)
  return Math.round(1000 * doubted * Math.min(1, usedShare) * Math.sqrt(clear * steady)) / 1000
}

const thousands = new Intl.NumberFormat('en-US', { maximumFractionDigits: 0 })

function grouped(count: number): string {
  return thousands.format(count)
}

function nothing(reason: NothingHeard['reason'], sentence: string): NothingHeard {
  return { heard: false, reason, sentence }
}
