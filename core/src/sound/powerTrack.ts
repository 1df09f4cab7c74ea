import { HighPass } from './highPass.ts'

const CUTOFF_HZ = 900
const BIN_S = 1e-4

/**
 * The power of a sound above 900 Hz in bins of about a tenth of a millisecond, gathered block by block.
 *
 * All later timing works on these bins, so ten minutes of 192 kHz take no more memory than ten of 8 kHz. A bin is a
 * whole number of samples; `binS` says exactly how long.
 */
export class PowerTrack {
  readonly binS: number
  #bins: Float32Array
  #count = 0
  #heldSamples = 0
  #heldPower = 0
  readonly #perBin: number
  readonly #highPass: HighPass
  #scratch = new Float32Array(0)

  /** @param seconds - how long it will be, where that is known: it takes more all the same */
  constructor(
    readonly sampleRate: number,
    seconds = 6,
  ) {
    this.#perBin = Math.max(1, Math.round(sampleRate * BIN_S))
    this.binS = this.#perBin / sampleRate
    this.#highPass = new HighPass(sampleRate, CUTOFF_HZ)
    this.#bins = new Float32Array(Math.ceil(seconds / this.binS) + 1)
  }

  /** Mean power of each whole bin so far; a view, valid until the next push. */
  get bins(): Float32Array {
    return this.#bins.subarray(0, this.#count)
  }

  get seconds(): number {
    return this.#count * this.binS
  }

  push(samples: Float32Array): void {
    if (this.#scratch.length < samples.length) this.#scratch = new Float32Array(samples.length)
    const filtered = this.#scratch.subarray(0, samples.length)
    this.#highPass.run(samples, filtered)
    this.#reserve(this.#count + Math.ceil(samples.length / this.#perBin) + 1)
    const begun = this.#heldSamples > 0 ? this.#add(filtered, 0, this.#perBin - this.#heldSamples) : 0
    const whole = Math.floor((filtered.length - begun) / this.#perBin)
    gather(filtered.subarray(begun, begun + whole * this.#perBin), this.#perBin, this.#bins.subarray(this.#count))
    this.#count += whole
    this.#add(filtered, begun + whole * this.#perBin, this.#perBin)
  }

  /** Adds up to `most` samples to the bin that is begun, and ends it once it is whole; gives where the next begins. */
  #add(samples: Float32Array, from: number, most: number): number {
    const until = Math.min(samples.length, from + most)
    for (let i = from; i < until; i++) this.#heldPower += samples[i]! * samples[i]!
    this.#heldSamples += until - from
    if (this.#heldSamples === this.#perBin) {
      this.#bins[this.#count++] = this.#heldPower / this.#perBin
      this.#heldSamples = 0
      this.#heldPower = 0
    }
    return until
  }

  /** Forgets all but the last `seconds`; returns how many seconds were forgotten. */
  keepLast(seconds: number): number {
    const drop = Math.max(0, this.#count - Math.round(seconds / this.binS))
    this.#bins.copyWithin(0, drop, this.#count)
    this.#count -= drop
    return drop * this.binS
  }

  /** Takes out `seconds` from `fromS` on; what follows moves up. */
  cut(fromS: number, seconds: number): void {
    const from = Math.max(0, Math.min(this.#count, Math.round(fromS / this.binS)))
    const until = Math.min(this.#count, from + Math.round(seconds / this.binS))
    this.#bins.copyWithin(from, until, this.#count)
    this.#count -= until - from
  }

  #reserve(length: number): void {
    if (length <= this.#bins.length) return
    const larger = new Float32Array(Math.max(length, 2 * this.#bins.length))
    larger.set(this.bins)
    this.#bins = larger
  }
}

/** Mean power of whole bins. A loop of its own for each bin: ten minutes are 29 million samples. */
function gather(samples: Float32Array, perBin: number, bins: Float32Array): void {
  const whole = samples.length / perBin
  let i = 0
  for (let bin = 0; bin < whole; bin++) {
    let power = 0
    for (let k = 0; k < perBin; k++) {
      const x = samples[i++]!
      power += x * x
    }
    bins[bin] = power / perBin
  }
}
