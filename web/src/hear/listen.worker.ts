import {
  asTicks,
  eachWavBlock,
  encodeWav,
  hear,
  PowerTrack,
  readWavHeader,
  StrikeEar,
  strikings,
  WavError,
  whatWasGap,
  type HeardBlow,
  type Hearing,
  type KnownCourse,
  type ListenOptions,
  type NothingHeard,
  type StrikeGroup,
} from '@treadle/core'
import type { FromWorker, ToWorker } from './messages.ts'

/** A thin shell over the core's analyser: it gathers sound and says what is heard, at each new half second. */

const KEPT_SECONDS = 60
const ANALYSED_SECONDS = 90
/** Teeth are told apart after two turns of their wheel; so much sound is judged for that at most. */
const TURNS_ANALYSED = 2.3
const MOST_ANALYSED_SECONDS = 240
const EVERY_SECONDS = 0.4
/** Of the time, so much at most goes into judging: other work goes on beside it, and a telephone stays cool. */
const JUDGING_SHARE = 0.02
/** While it listens the clock is sought anew only at every so many judgements; between them it is where it was. */
const SOUGHT_EVERY = 4
/** Less lost than this at once is the recorder's own unevenness, and not worth a word. */
const LOST_WORTH_TELLING_S = 0.02
/** So much sound after a stretch that is called lost tells whether it was. */
const ASKED_AFTER_S = 5
const ASKED_AT_ONCE = 1
const ASKED_AT_LAST = 12

/** How much of the sound is judged together: slow beats of many teeth take longer to turn their wheel. */
function analysedSeconds({ teeth, beatsPerHour }: ListenOptions): number {
  if (teeth === undefined || beatsPerHour === undefined) return ANALYSED_SECONDS
  const turnS = (7200 * teeth) / beatsPerHour
  return Math.max(ANALYSED_SECONDS, Math.min(MOST_ANALYSED_SECONDS, TURNS_ANALYSED * turnS))
}

class Session {
  readonly #track: PowerTrack
  readonly #ear: StrikeEar | null
  readonly #blows: HeardBlow[] = []
  #blocks: Float32Array[] = []
  #kept = 0
  #forgottenS = 0
  #heardAtS = 0
  #restUntilMs = 0
  /** where it beat when it was last heard; its moment from the beginning of the sound */
  #course: KnownCourse | null = null
  #judged = 0
  #lost: { atS: number; seconds: number; asked: boolean }[] = []
  seconds = 0

  constructor(
    readonly id: number,
    readonly sampleRate: number,
    readonly options: ListenOptions,
    strikes = false,
  ) {
    this.#track = new PowerTrack(sampleRate)
    this.#ear = strikes ? new StrikeEar(sampleRate, (blow) => this.#blows.push(blow)) : null
  }

  take(samples: Float32Array): void {
    this.#track.push(samples)
    this.#ear?.push(samples)
    this.#blocks.push(samples)
    this.#kept += samples.length
    this.seconds += samples.length / this.sampleRate
    while (this.#kept - (this.#blocks[0]?.length ?? 0) >= KEPT_SECONDS * this.sampleRate)
      this.#kept -= this.#blocks.shift()?.length ?? 0
    const analysed = analysedSeconds(this.options)
    if (this.#track.seconds > analysed + 10) this.#forgottenS += this.#track.keepLast(analysed)
  }

  /** A stretch that never came stands as silence, so that what follows keeps its time. */
  lose(seconds: number): void {
    this.#lost.push({ atS: this.seconds, seconds, asked: false })
    this.take(new Float32Array(Math.round(seconds * this.sampleRate)))
  }

  /**
   * A stretch that the stamps call lost may have gone on while they jumped: once there is sound enough after it, the
   * beats decide, and what was not lost is taken out again. Of a recorder that stumbles all the time the rest stand as
   * lost: to ask takes longer than to listen.
   */
  #askGaps(final: boolean): void {
    let asked = 0
    for (const gap of [...this.#lost]) {
      if (asked >= (final ? ASKED_AT_LAST : ASKED_AT_ONCE)) return
      if (gap.asked || (!final && this.seconds - gap.atS - gap.seconds < ASKED_AFTER_S)) continue
      gap.asked = true
      const from = gap.atS - this.#forgottenS
      if (from < 0) continue
      asked++
      const { bins, binS } = this.#track
      if (whatWasGap(bins, binS, from, gap.seconds, asTicks(this.options)) !== 'went on') continue
      this.#track.cut(from, gap.seconds)
      this.#lost = this.#lost.filter((g) => g !== gap)
      for (const later of this.#lost) if (later.atS > gap.atS) later.atS -= gap.seconds
      this.#cutSound(gap.atS, gap.seconds)
      this.seconds -= gap.seconds
    }
  }

  /** Takes a stretch out of the sound that is kept. */
  #cutSound(atS: number, seconds: number): void {
    const whole = this.#joined()
    const first = this.seconds - whole.length / this.sampleRate
    const from = Math.max(0, Math.round((atS - first) * this.sampleRate))
    const until = Math.max(from, Math.round((atS + seconds - first) * this.sampleRate))
    const left = new Float32Array(whole.length - (Math.min(until, whole.length) - from))
    left.set(whole.subarray(0, from))
    left.set(whole.subarray(until), from)
    this.#blocks = [left]
    this.#kept = left.length
  }

  get due(): boolean {
    return this.seconds >= 3 && this.seconds - this.#heardAtS >= EVERY_SECONDS && performance.now() >= this.#restUntilMs
  }

  verdict(final: boolean, ending = ''): void {
    this.#heardAtS = this.seconds
    const beganMs = performance.now()
    this.#askGaps(final)
    const lost = this.#lost.filter((l) => l.atS >= this.#forgottenS)
    const lostS = lost.reduce((sum, l) => sum + l.seconds, 0)
    const known = final || this.#judged++ % SOUGHT_EVERY === 0 ? undefined : this.#courseNow()
    const result = hear(this.#track.bins, this.#track.binS, { ...this.options, lostS, known })
    const holes =
      result.heard && lostS > LOST_WORTH_TELLING_S
        ? `${lostS.toFixed(2)} s of the sound did not reach the page, in ${lost.length} ${lost.length === 1 ? 'place' : 'places'}; the rest is judged.`
        : ''
    if (result.heard) for (const beat of result.beats) beat.atS += this.#forgottenS
    this.#course = courseOf(result)
    const wav = final && result.heard ? this.#lastMinute() : undefined
    reply(
      {
        kind: 'verdict',
        session: this.id,
        result,
        seconds: this.seconds,
        final,
        remark: [ending, holes].filter(Boolean).join(' '),
        ...(wav && { wav }),
        ...(final && this.#ear && { strikes: this.#strikes(this.#ear) }),
      },
      wav ? [wav] : [],
    )
    const endMs = performance.now()
    this.#restUntilMs = endMs + (endMs - beganMs) * (1 / JUDGING_SHARE - 1)
  }

  #courseNow(): KnownCourse | undefined {
    const course = this.#course
    if (!course) return undefined
    const sinceS = course.firstS - this.#forgottenS
    return { ...course, firstS: sinceS - Math.floor(sinceS / course.periodS) * course.periodS }
  }

  #strikes(ear: StrikeEar): StrikeGroup[] {
    ear.end()
    return strikings(this.#blows)
  }

  #joined(): Float32Array<ArrayBuffer> {
    const samples = new Float32Array(this.#kept)
    let at = 0
    for (const block of this.#blocks) {
      samples.set(block, at)
      at += block.length
    }
    return samples
  }

  #lastMinute(): ArrayBuffer {
    const samples = this.#joined()
    return encodeWav(samples.subarray(Math.max(0, samples.length - KEPT_SECONDS * this.sampleRate)), this.sampleRate)
      .buffer
  }
}

function courseOf(result: Hearing | NothingHeard): KnownCourse | null {
  const first =
    result.heard && result.ticks !== 'once a period' ? result.beats.find((b) => b.index % 2 === 0) : undefined
  if (!result.heard || !first) return null
  const [firstToSecond, secondToFirst] = result.intervalsMs
  return {
    periodS: (firstToSecond + secondToFirst) / 1000,
    firstS: first.atS,
    firstToSecondS: firstToSecond / 1000,
  }
}

let session: Session | null = null

function reply(message: FromWorker, handOver: Transferable[] = []): void {
  self.postMessage(message, { transfer: handOver })
}

self.onmessage = ({ data }: MessageEvent<ToWorker>) => {
  try {
    handle(data)
  } catch (error) {
    const sentence =
      error instanceof WavError
        ? error.message
        : `The listening stopped: ${error instanceof Error ? error.message : 'unknown'}.`
    reply({ kind: 'refused', session: data.session, sentence })
  }
}

function handle(message: ToWorker): void {
  switch (message.kind) {
    case 'open':
      session = new Session(message.session, message.sampleRate, message.options)
      return
    case 'block':
      if (session?.id !== message.session) return
      session.take(message.samples)
      if (session.due) session.verdict(false)
      return
    case 'lost':
      if (session?.id === message.session) session.lose(message.seconds)
      return
    case 'finish':
      if (session?.id === message.session)
        session.verdict(true, message.cut ? `The microphone stopped after ${session.seconds.toFixed(0)} s.` : '')
      return
    case 'wav': {
      const bytes = new Uint8Array(message.bytes)
      const header = readWavHeader(bytes)
      const whole = new Session(message.session, header.sampleRate, message.options, message.strikes)
      eachWavBlock(bytes, header, (block) => whole.take(block.slice()))
      const missing = header.framesMissing / header.sampleRate
      whole.verdict(
        true,
        missing > 0
          ? `The file is cut short: ${whole.seconds.toFixed(1)} s are there and were used, ${missing.toFixed(1)} s are missing.`
          : '',
      )
      return
    }
    case 'samples': {
      const whole = new Session(message.session, message.sampleRate, message.options, message.strikes)
      whole.take(message.samples)
      whole.verdict(true)
    }
  }
}
