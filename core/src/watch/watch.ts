import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { hear, type Hearing, type KnownCourse, type Ticks } from '../listen/hearing.ts'
import { PowerTrack } from '../sound/powerTrack.ts'
import { StrikeEar, type HeardBlow } from '../strike/ear.ts'
import { strikings, type StrikeGroup } from '../strike/groups.ts'
import { beatsOnCourse, type Course } from './presence.ts'

/** What a clock did in one minute. Where too little was heard to tell a figure it is null. */
export interface WatchMinute {
  /** s from the start of the watch */
  fromS: number
  seconds: number
  beatsHeard: number
  beatsExpected: number
  rateSecondsPerDay: number | null
  rateStandardError: number | null
  outOfBeatMs: number | null
  outOfBeatStandardError: number | null
  scatterMs: number | null
  /** of both sides, dB under full scale; the first is the same side all through */
  loudnessDb: [number, number] | null
  /** how far the clock has got ahead since the first minute that was heard, s: + it gains */
  aheadS: number | null
}

/** A stretch in which nothing was heard, and after which the clock went on. */
export interface WatchGap {
  fromS: number
  toS: number
  /** the recorder gave no sound at all, or the clock was not heard in its sound */
  why: 'no sound' | 'not heard'
}

export interface WatchEnd {
  /** the last beat of a clock that was silent from then on; null while it goes */
  stoppedAtS: number | null
  gaps: WatchGap[]
}

export interface WatchReceiver {
  minute(row: WatchMinute): void
  strike(group: StrikeGroup): void
}

export interface WatchOptions {
  beatsPerHour: number
  ticks?: Ticks | undefined
  /** how much too fast the recorder's own clock runs, parts per million */
  ppm?: number | undefined
}

export const MINUTE_S = 60
/** Sound on either side of a minute that is listened to with it: its first and last beats have whole shapes then. */
const MARGIN_S = 1
const SHORTEST_S = 8
/** Longer than this without a beat is a gap, or a stop. */
const SILENT_S = 6
/** Mean power of −105 dB: the recorder gives nothing. */
const NO_SOUND = 3e-11
/** Two moments nearer than this are one beat. */
const SIDE_BY_SIDE_S = 0.05
/** Blows are sorted into strikings when none has come for so long. */
const STRUCK_OUT_S = 25

/**
 * Listens to one clock for hours or days, minute by minute, in the memory of two minutes.
 *
 * Every minute is heard by itself; its beats are numbered on from those before, so that what the clock gained is known
 * to a fraction of a beat over any time. Where a minute tells nothing the beats are looked for where they are due: so
 * the last of them, and the first after a gap, are known to a beat.
 */
export class Watch {
  readonly #track: PowerTrack
  readonly #ear: StrikeEar
  #blows: HeardBlow[] = []
  #forgottenS = 0
  #fromS = 0
  #course: Course | null = null
  /** number of the course's beat from the first of the watch */
  #beats = 0
  #firstAtS: number | null = null
  #lastBeatS: number | null = null
  #soundLastS = 0
  readonly #gaps: WatchGap[] = []

  constructor(
    readonly sampleRate: number,
    readonly options: WatchOptions,
    readonly to: WatchReceiver,
  ) {
    this.#track = new PowerTrack(sampleRate)
    this.#ear = new StrikeEar(sampleRate, (blow) => this.#blows.push(blow))
  }

  /** s of sound so far */
  get seconds(): number {
    return this.#forgottenS + this.#track.seconds
  }

  /** Sound of −1 to 1, in blocks of up to a second or two. */
  push(samples: Float32Array): void {
    this.#track.push(samples)
    this.#ear.push(samples)
    while (this.seconds >= this.#fromS + MINUTE_S + MARGIN_S) this.#minute(MINUTE_S)
    this.#sortBlows(false)
  }

  /** A stretch that never came: silence, so that what follows keeps its time. */
  lose(seconds: number): void {
    const block = new Float32Array(this.sampleRate)
    let left = Math.round(seconds * this.sampleRate)
    while (left > 0) {
      const part = Math.min(left, block.length)
      this.push(part === block.length ? block : block.subarray(0, part))
      left -= part
    }
  }

  /** How it stands now: whether the clock is silent, and where nothing was heard. */
  standing(): WatchEnd {
    const silentS = this.#lastBeatS === null ? 0 : this.#fromS - this.#lastBeatS
    const noSound = this.#lastBeatS !== null && this.#soundLastS < this.#lastBeatS + SILENT_S
    const silent = this.#lastBeatS !== null && silentS > SILENT_S
    return {
      stoppedAtS: silent && !noSound ? this.#lastBeatS : null,
      gaps: [
        ...this.#gaps,
        ...(silent && noSound
          ? [{ fromS: this.#lastBeatS as number, toS: this.#fromS, why: 'no sound' as const }]
          : []),
      ],
    }
  }

  /** The sound is over: the last, shorter minute is told too. */
  end(): WatchEnd {
    const left = this.seconds - this.#fromS
    if (left >= SHORTEST_S) this.#minute(left)
    else this.#fromS = this.seconds
    this.#ear.end()
    this.#sortBlows(true)
    return this.standing()
  }

  #minute(seconds: number): void {
    const { binS } = this.#track
    const fromS = this.#fromS
    const startS = Math.max(this.#forgottenS, fromS - MARGIN_S)
    const bins = this.#track.bins.subarray(
      Math.round((startS - this.#forgottenS) / binS),
      Math.round((fromS + seconds + MARGIN_S - this.#forgottenS) / binS),
    )
    this.#soundLast(bins, binS, startS)
    const heard = this.#hearBest(bins, binS, startS)
    const inside = (atS: number) => atS >= fromS && atS < fromS + seconds
    const expected = Math.round((seconds * this.options.beatsPerHour) / 3600 / this.#perTick)
    if (heard) this.#follow(heard.result, heard.startS)
    const told = heard?.result.beats.map((b) => b.atS + heard.startS) ?? []
    // Where only a part could be heard well, the other beats are those that stayed on its course.
    const [first, last] = [told[0] ?? Infinity, told.at(-1) ?? -Infinity]
    const onCourse = heard?.whole || !this.#course ? [] : beatsOnCourse(bins, binS, startS, this.#course)
    const others = onCourse.filter((atS) => !heard || atS < first - SIDE_BY_SIDE_S || atS > last + SIDE_BY_SIDE_S)
    const mine = [...told, ...others].filter(inside).sort((a, b) => a - b)
    this.#heardAt(steady(mine, (3600 * this.#perTick) / this.options.beatsPerHour))
    this.to.minute({ fromS, seconds, beatsHeard: mine.length, beatsExpected: expected, ...this.#figures(heard) })
    this.#fromS = fromS + seconds
    this.#forgottenS += this.#track.keepLast(MARGIN_S + this.seconds - this.#fromS)
  }

  /** Beats that are heard at each expected one: one where it ticks once a period only. */
  get #perTick(): number {
    return this.options.ticks === 'once a period' ? 2 : 1
  }

  /** The whole minute, or the part of it in which the beats stayed on their course. */
  #hearBest(
    bins: Float32Array,
    binS: number,
    startS: number,
  ): { result: Hearing; startS: number; whole: boolean } | null {
    const listen = (part: Float32Array, at: number, isWhole: boolean) => {
      const result = hear(part, binS, { ...this.options, known: this.#known(at) })
      return result.heard ? { result, startS: at, whole: isWhole } : null
    }
    const whole = listen(bins, startS, true)
    if (whole || !this.#course) return whole
    const goes = longestRun(beatsOnCourse(bins, binS, startS, this.#course), this.#course.beatS)
    const [first, last] = [goes[0], goes.at(-1)]
    if (first === undefined || last === undefined || last - first < SHORTEST_S) return null
    const from = Math.max(0, Math.round((first - startS - 0.3) / binS))
    return listen(bins.subarray(from, Math.round((last - startS + 0.3) / binS)), startS + from * binS, false)
  }

  /** The course so far as it goes on in a stretch that begins at `atS`. */
  #known(atS: number): KnownCourse | undefined {
    if (!this.#course) return undefined
    const { atS: from, beatS, unevenS } = this.#course
    const periodS = 2 * beatS
    const firstS = from + Math.ceil((atS + 0.1 - from) / periodS) * periodS - atS
    return { periodS, firstS, firstToSecondS: beatS + unevenS }
  }

  #figures(heard: { result: Hearing; startS: number } | null) {
    if (!heard)
      return {
        rateSecondsPerDay: null,
        rateStandardError: null,
        outOfBeatMs: null,
        outOfBeatStandardError: null,
        scatterMs: null,
        loudnessDb: null,
        aheadS: null,
      }
    const { result } = heard
    const loud = result.sides.map((s) => s.loudnessDb) as [number, number]
    return {
      rateSecondsPerDay: result.rateSecondsPerDay,
      rateStandardError: result.rateStandardError,
      outOfBeatMs: result.outOfBeatMs,
      outOfBeatStandardError: result.outOfBeatStandardError,
      scatterMs: result.scatterMs,
      loudnessDb: this.#beats % 2 === 0 ? loud : ([loud[1], loud[0]] as [number, number]),
      aheadS: this.#ahead(result, heard.startS),
    }
  }

  /** Numbers this minute's first even beat on from the course, and takes the course over from it. */
  #follow(result: Hearing, startS: number): void {
    const first = result.beats.find((b) => b.index % 2 === 0 && b.healthy)
    if (!first) return
    const atS = first.atS + startS - first.lateMs / 1000
    const beatS = (result.intervalsMs[0] + result.intervalsMs[1]) / 2000
    if (this.#course) this.#beats += Math.round((atS - this.#course.atS) / ((beatS + this.#course.beatS) / 2))
    this.#course = { atS, beatS, unevenS: result.intervalsMs[0] / 1000 - beatS }
    this.#firstAtS ??= middleOf(this.#course)
  }

  /** Nominal time of the beats' numbers less the time that passed, both since the first beat. */
  #ahead(result: Hearing, startS: number): number {
    const course = this.#course as Course
    const nominalS = 3600 / this.options.beatsPerHour
    const trueSeconds = 1 / (1 + (this.options.ppm ?? 0) * 1e-6)
    // The middle of the minute's beats: half way on from its first by its own rate.
    const half = Math.round((result.beats.at(-1)?.index ?? 0) / 2)
    const passedS = (middleOf(course) + half * course.beatS - (this.#firstAtS ?? startS)) * trueSeconds
    return (this.#beats + half) * nominalS - passedS
  }

  #soundLast(bins: Float32Array, binS: number, startS: number): void {
    for (let i = bins.length - 1; i >= 0; i--)
      if (nth(bins, i) > NO_SOUND) {
        this.#soundLastS = startS + i * binS
        return
      }
  }

  #heardAt(times: number[]): void {
    for (const atS of times) {
      if (this.#lastBeatS !== null && atS - this.#lastBeatS > SILENT_S)
        this.#gaps.push({
          fromS: this.#lastBeatS,
          toS: atS,
          why: this.#wasSilent(this.#lastBeatS, atS) ? 'no sound' : 'not heard',
        })
      this.#lastBeatS = Math.max(this.#lastBeatS ?? atS, atS)
    }
  }

  /** Whether the recorder gave nothing at all in the better part of a stretch, as far as it is still held. */
  #wasSilent(fromS: number, toS: number): boolean {
    const { bins, binS } = this.#track
    const at = (s: number) => Math.max(0, Math.min(bins.length, Math.round((s - this.#forgottenS) / binS)))
    const part = bins.subarray(at(fromS + 0.5), at(toS - 0.2))
    if (part.length === 0) return this.#soundLastS < fromS + SILENT_S
    let silent = 0
    for (const power of part) if (power <= NO_SOUND) silent++
    return silent > part.length / 2
  }

  #sortBlows(final: boolean): void {
    const last = this.#blows.at(-1)
    if (!last || (!final && this.seconds - last.atS < STRUCK_OUT_S)) return
    for (const group of strikings(this.#blows)) this.to.strike(group)
    this.#blows = []
  }
}

/** Where a beat would be if it came evenly: whichever side is the even one in a minute. */
function middleOf({ atS, unevenS }: Course): number {
  return atS + unevenS / 2
}

/** Beats in company: those with enough of their neighbours there. */
function steady(times: number[], beatS: number): number[] {
  return times.filter((t) => times.filter((other) => Math.abs(other - t) < 4.5 * beatS).length >= 4)
}

/** The longest row of moments without a hole of more than six beats. */
function longestRun(times: number[], beatS: number): number[] {
  let best: number[] = []
  let now: number[] = []
  for (const t of times) {
    if (now.length > 0 && t - (now.at(-1) ?? t) > 6 * beatS) now = []
    now.push(t)
    if (now.length > best.length) best = [...now]
  }
  return best
}

/**
 * How the rate changed over a watch, s/day per hour: least squares through the minutes, each by its own error.
 *
 * Null with fewer than three minutes that were heard.
 */
export function rateTrend(minutes: WatchMinute[]): { perHour: number; standardError: number } | null {
  const told = minutes.flatMap(({ fromS, seconds, rateSecondsPerDay: rate, rateStandardError: error }) =>
    rate === null || error === null ? [] : [{ h: (fromS + seconds / 2) / 3600, rate, error }],
  )
  if (told.length < 3) return null
  // No minute counts for more than a few others: an error stated too small must not carry the slope.
  const usual = median(told.map((t) => t.error))
  const weighted = told.map((t) => ({ ...t, w: 1 / Math.max(t.error, usual / 2, 1e-6) ** 2 }))
  const sum = (of: (t: (typeof weighted)[number]) => number) => weighted.reduce((s, t) => s + t.w * of(t), 0)
  const all = sum(() => 1)
  const h = sum((t) => t.h) / all
  const rate = sum((t) => t.rate) / all
  const spread = sum((t) => (t.h - h) ** 2)
  if (spread <= 0) return null
  const perHour = sum((t) => (t.h - h) * (t.rate - rate)) / spread
  const left = sum((t) => (t.rate - rate - perHour * (t.h - h)) ** 2) / (told.length - 2)
  return { perHour, standardError: Math.sqrt(Math.max(1, left) / spread) }
}
