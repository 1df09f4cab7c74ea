import { SpectrumFrames, type Frame } from '../sound/frames.ts'

/** One blow that was heard. */
export interface HeardBlow {
  atS: number
  /** how far the new ringing stands over what rang before, dB: on the mean of all bands that ring, and in all */
  riseDb: number
  sumDb: number
  /** level of the ringing it left, dB */
  levelDb: number
  /** how far its ringing has fallen a quarter of a second later, dB; a knock’s is gone by then */
  fallDb: number
  /** the band that brought most that is new, Hz */
  pitchHz: number
  /** bands that brought nearly as much: few for a pipe, many for a bell */
  bands: number
}

/** A blow still rings so long after it; a tick with its echo doesn't, s. */
const RING_FROM_S = 0.045
const RING_TO_S = 0.16
/** What rang before is taken so long before the blow, s. */
const BEFORE_FROM_S = 0.13
const BEFORE_TO_S = 0.035
/** In so long a ringing band falls by less than this; the echo of a tick by more, dB. */
const FALLS_DB = 13
/** A band rings when it stands so far over the room, dB. */
const OVER_ROOM_DB = 9
/** In one band no more than this counts, dB. */
const MOST_RISE_DB = 20
/** Whether it still rings is asked so long after the blow, s. */
const STILL_S = 0.3
/** So much rise on the mean, and in all bands together, may be a blow; which are blows is told by their company. */
const LEAST_RISE_DB = 1.2
const LEAST_SUM_DB = 15
/** Bands that bring so much less than the most are no note of their own, dB. */
const SIDE_BANDS_DB = 20
/** Two blows are no nearer than this, s. */
const APART_S = 0.22
const LOWEST_HZ = 140
const HIGHEST_HZ = 5500
/** The room's level follows downward at once, upward by so many dB a second. */
const ROOM_RISES_DB = 3
const ROOM_FALLS = 0.12

/**
 * Hears the blows of a strike over the ticking of its clock, block by block.
 *
 * A blow is sudden and rings on; a tick is sudden and is gone, a voice swells. Band by band the least power of the
 * tenth of a second that follows is held against the most of the tenth before; bands that still ring count, each by
 * how far it stands over the room, so that a bell struck again while it sounds is heard by the partials that had died.
 */
export class StrikeEar {
  readonly #frames: SpectrumFrames
  readonly #moments: Moments
  readonly #held: { atS: number; db: Float32Array; rise: Rise | null }[] = []
  readonly #low: number
  readonly #high: number
  #room: Float32Array | null = null
  #lastAtS = -Infinity

  /** @param take - is given each blow, about half a second after it */
  constructor(
    sampleRate: number,
    readonly take: (blow: HeardBlow) => void,
  ) {
    this.#moments = new Moments(sampleRate)
    this.#frames = new SpectrumFrames(sampleRate, (frame) => this.#listen(frame))
    this.#low = Math.max(1, Math.round(LOWEST_HZ / this.#frames.bandHz))
    this.#high = Math.min(255, Math.round(HIGHEST_HZ / this.#frames.bandHz))
  }

  /** In blocks of up to a second. */
  push(samples: Float32Array): void {
    this.#moments.push(samples)
    this.#frames.push(samples)
  }

  /** Nothing more will come: what has rung long enough is judged; a tick in the last moment would ring for ever. */
  end(): void {
    const quiet = this.#room
    if (!quiet) return
    const { stepS } = this.#frames
    const lastS = this.#held.at(-1)?.atS ?? 0
    for (let k = 1; k * stepS < STILL_S + APART_S + 0.1; k++) this.#hold(lastS + k * stepS, quiet)
  }

  #listen({ atS, power }: Frame): void {
    if (power === null) {
      this.#hold(atS, this.#room ?? new Float32Array(this.#high + 1))
      return
    }
    const db = new Float32Array(this.#high + 1)
    for (let k = this.#low; k <= this.#high; k++) db[k] = 10 * Math.log10(power[k]! + 1e-12)
    this.#followRoom(db)
    this.#hold(atS, db)
  }

  #followRoom(db: Float32Array): void {
    const levels = this.#room
    if (!levels) {
      this.#room = db.slice()
      return
    }
    const up = ROOM_RISES_DB * this.#frames.stepS
    for (let k = this.#low; k <= this.#high; k++) {
      const room = levels[k]!
      const now = db[k]!
      levels[k] = now > room ? room + up : room + ROOM_FALLS * (now - room)
    }
  }

  #hold(atS: number, db: Float32Array): void {
    this.#held.push({ atS, db, rise: null })
    const frames = (s: number) => Math.round(s / this.#frames.stepS)
    const judged = this.#held.length - 1 - frames(STILL_S)
    if (judged >= frames(BEFORE_FROM_S)) {
      const held = this.#held[judged]
      if (held) held.rise = this.#rise(judged)
    }
    // The top of the rises, once nothing near it can be higher.
    const top = judged - frames(APART_S)
    const held = this.#held[top]
    if (held?.rise && this.#isTop(top, frames(APART_S))) this.#tell(held.atS, held.rise)
    const longest = frames(BEFORE_FROM_S) + frames(STILL_S) + 2 * frames(APART_S) + 8
    if (this.#held.length > 2 * longest) this.#held.splice(0, this.#held.length - longest)
  }

  #isTop(at: number, reach: number): boolean {
    const rise = this.#held[at]?.rise
    if (!rise || rise.sumDb < LEAST_SUM_DB || rise.meanDb < LEAST_RISE_DB) return false
    const mine = rise.whole
    for (let i = Math.max(0, at - reach); i <= at + reach; i++) {
      const other = this.#held[i]?.rise?.whole ?? 0
      if (i !== at && (other > mine || (other === mine && i < at))) return false
    }
    return true
  }

  #rise(at: number): Rise | null {
    const room = this.#room
    if (!room) return null
    const frames = (s: number) => Math.round(s / this.#frames.stepS)
    const [from, to] = [at + frames(RING_FROM_S), at + frames(RING_TO_S)]
    const [was, until] = [at - frames(BEFORE_FROM_S), at - frames(BEFORE_TO_S)]
    const [begin, end] = [this.#held[from]?.db, this.#held[to]?.db]
    // What ends or begins in the room's quiet is no ringing.
    if (!begin || !end || begin === room || end === room) return null
    const fresh: number[] = []
    let most = 0
    let weights = 0
    let sumDb = 0
    let whole = 0
    let later = 0
    let level = 0
    let pitch = 0
    for (let k = this.#low; k <= this.#high; k++) {
      // Most bands of most moments are the room's alone, and are told by their end.
      const ground = room[k]! + OVER_ROOM_DB
      if (end[k]! <= ground || begin[k]! <= ground) continue
      let least = Infinity
      for (let i = from; i <= to; i++) least = Math.min(least, this.#at(i, k))
      const over = least - ground
      if (over <= 0) continue
      let peak = -Infinity
      for (let i = at - 1; i <= to; i++) peak = Math.max(peak, this.#at(i, k))
      if (peak - least > FALLS_DB) continue
      let before = -Infinity
      for (let i = was; i <= until; i++) before = Math.max(before, this.#at(i, k))
      const weight = Math.min(1, over / 6)
      weights += weight
      sumDb += weight * Math.max(-6, Math.min(MOST_RISE_DB, least - before))
      whole += weight * Math.max(-6, least - before)
      later += 10 ** (this.#at(at + frames(STILL_S), k) / 10)
      level += 10 ** (least / 10)
      const brought = 10 ** (least / 10) - 10 ** (before / 10)
      fresh.push(brought)
      if (brought > most) {
        most = brought
        pitch = k
      }
    }
    if (weights === 0 || sumDb <= 0) return null
    return {
      sumDb,
      meanDb: sumDb / weights,
      whole,
      fallDb: 10 * Math.log10(level / (later + 1e-12)),
      levelDb: 10 * Math.log10(level),
      pitchHz: pitch * this.#frames.bandHz,
      bands: fresh.filter((b) => b > most * 10 ** (-SIDE_BANDS_DB / 10)).length,
    }
  }

  #at(frame: number, band: number): number {
    return this.#held[frame]?.db[band] ?? -120
  }

  #tell(atS: number, rise: Rise): void {
    if (atS - this.#lastAtS < APART_S) return
    this.#lastAtS = atS
    const { meanDb: riseDb, whole: _, ...rest } = rise
    this.take({ atS: this.#moments.near(atS), riseDb, ...rest })
  }
}

interface Rise {
  sumDb: number
  /** the same without its limit: greatest where the blow stands */
  whole: number
  fallDb: number
  meanDb: number
  levelDb: number
  pitchHz: number
  bands: number
}

/** A blow is looked for so near to where its ringing says, s; its rise is taken over so much after and before it. */
const NEAR_S = 0.05
const AFTER_STEPS = 5
const BEFORE_STEPS = 15

/** The last seconds' power in steps of a millisecond, to tell a blow's own moment. */
class Moments {
  readonly #perStep: number
  readonly #stepS: number
  readonly #power = new Float32Array(4096)
  #count = 0
  #sum = 0
  #held = 0
  #last = 0

  constructor(sampleRate: number) {
    this.#perStep = Math.max(1, Math.round(sampleRate / 1000))
    this.#stepS = this.#perStep / sampleRate
  }

  push(samples: Float32Array): void {
    let [sum, held, last] = [this.#sum, this.#held, this.#last]
    for (let i = 0; i < samples.length; i++) {
      // The difference of neighbours lets a knock through and a low ringing not.
      const x = samples[i]!
      const step = x - last
      sum += step * step
      last = x
      if (++held < this.#perStep) continue
      this.#power[this.#count++ % this.#power.length] = sum
      sum = 0
      held = 0
    }
    this.#sum = sum
    this.#held = held
    this.#last = last
  }

  /** The steepest rise near a moment that is no older than some seconds. */
  near(atS: number): number {
    const middle = Math.round(atS / this.#stepS)
    const reach = Math.round(NEAR_S / this.#stepS)
    let best = middle
    let most = 0
    for (let at = middle - reach; at <= middle + reach; at++) {
      const rise = this.#mean(at, at + AFTER_STEPS) / (this.#mean(at - BEFORE_STEPS, at) + 1e-9)
      if (rise > most) {
        most = rise
        best = at
      }
    }
    return best * this.#stepS
  }

  #mean(from: number, until: number): number {
    let sum = 0
    for (let i = from; i < until; i++)
      sum += this.#power[((i % this.#power.length) + this.#power.length) % this.#power.length] ?? 0
    return sum / (until - from)
  }
}
