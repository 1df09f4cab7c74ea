import { nth } from '../check/nth.ts'
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
  #bins = new Float32Array(1 << 16)
  #count = 0
  #heldSamples = 0
  #heldPower = 0
  readonly #perBin: number
  readonly #highPass: HighPass
  #scratch = new Float32Array(0)

  constructor(readonly sampleRate: number) {
    this.#perBin = Math.max(1, Math.round(sampleRate * BIN_S))
    this.binS = this.#perBin / sampleRate
    this.#highPass = new HighPass(sampleRate, CUTOFF_HZ)
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
    let held = this.#heldSamples
    let power = this.#heldPower
    for (let i = 0; i < filtered.length; i++) {
      const x = nth(filtered, i)
      power += x * x
      if (++held === this.#perBin) {
        this.#bins[this.#count++] = power / held
        held = 0
        power = 0
      }
    }
    this.#heldSamples = held
    this.#heldPower = power
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
