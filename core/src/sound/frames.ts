import FFT from 'fft.js'

const SIZE = 512
const HOP = 128
/** Near this many samples a second a bell's partials are told apart and its blow still is short. */
const RATE = 12_000

/** Power of one short stretch of sound by frequency. */
export interface Frame {
  /** s from the start of the sound to the middle of the stretch */
  atS: number
  /** power in each band of `bandHz`, from 0 up; null where there is no more than the room */
  power: Float32Array | null
}

/** A stretch with less than so many times the quietest lately is the room's alone, and only now and then looked into. */
const QUIET = 1.7
const LOOK_EVERY = 8
/** Energy of a stretch of digital silence, and a little more. */
const NOTHING = 1e-9
/** The quietest follows upward by so much a frame. */
const FLOOR_RISES = 1.004

/**
 * The sound's spectrum every hundredth of a second, block by block: frames of 43 ms at about 12,000 samples a second.
 *
 * Most of a clock's day is the room's quiet: there the spectrum is taken in one frame of eight.
 */
export class SpectrumFrames {
  readonly bandHz: number
  readonly stepS: number
  readonly #by: number
  readonly #rate: number
  readonly #fft = new FFT(SIZE)
  readonly #window = Float64Array.from(
    { length: SIZE },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / SIZE),
  )
  readonly #held = new Float64Array(SIZE)
  readonly #input = new Float64Array(SIZE)
  readonly #spectrum = new Float64Array(2 * SIZE)
  #sum = 0
  #count = 0
  #filled = 0
  #taken = 0
  #floor = Infinity
  #quietFor = 0

  constructor(
    sampleRate: number,
    readonly take: (frame: Frame) => void,
  ) {
    this.#by = Math.max(1, Math.round(sampleRate / RATE))
    this.#rate = sampleRate / this.#by
    this.bandHz = this.#rate / SIZE
    this.stepS = HOP / this.#rate
  }

  push(samples: Float32Array): void {
    // The mean of so many samples is low-pass enough: what folds back of a tick is short, of a bell still a tone.
    let sum = this.#sum
    let count = this.#count
    for (let i = 0; i < samples.length; i++) {
      sum += samples[i]!
      if (++count < this.#by) continue
      this.#held[this.#filled++] = sum / count
      sum = 0
      count = 0
      if (this.#filled === SIZE) this.#frame()
    }
    this.#sum = sum
    this.#count = count
  }

  #frame(): void {
    const held = this.#held
    const input = this.#input
    const window = this.#window
    let energy = 1e-12
    for (let i = 0; i < SIZE; i++) {
      const value = held[i]! * window[i]!
      input[i] = value
      energy += value * value
    }
    // A recorder that gives nothing says nothing of the room.
    const isSound = energy > NOTHING
    if (isSound) {
      this.#floor = Math.min(energy, this.#floor * FLOOR_RISES)
      this.#quietFor = energy < QUIET * this.#floor ? this.#quietFor + 1 : 0
    }
    const isLooked = isSound && this.#quietFor % LOOK_EVERY === 0
    this.take({ atS: (this.#taken + SIZE / 2) / this.#rate, power: isLooked ? this.#spectrumOf(input) : null })
    held.copyWithin(0, HOP)
    this.#filled = SIZE - HOP
    this.#taken += HOP
  }

  #spectrumOf(input: Float64Array): Float32Array {
    const spectrum = this.#spectrum
    this.#fft.realTransform(spectrum, input)
    const power = new Float32Array(SIZE / 2)
    for (let k = 0; k < SIZE / 2; k++) {
      const real = spectrum[2 * k]!
      const other = spectrum[2 * k + 1]!
      power[k] = real * real + other * other
    }
    return power
  }
}
