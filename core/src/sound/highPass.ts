/**
 * A fourth-order Butterworth high-pass, in place, block after block; 24 dB an octave.
 *
 * Takes out direct current, mains hum with its harmonics, and most of a voice; a causal filter passes the first rise
 * of a tick without delay, which a timing made on that rise needs.
 *
 * @see Bristow-Johnson, Cookbook formulae for audio equalizer biquad coefficients (bilinear transform);
 *   Q of the two sections: 1/(2·cos(π/8)), 1/(2·cos(3π/8))
 */
export class HighPass {
  readonly #sections: { b0: number; b1: number; b2: number; a1: number; a2: number }[]
  readonly #state = new Float64Array(4)

  constructor(sampleRate: number, cutoffHz: number) {
    const w = (2 * Math.PI * cutoffHz) / sampleRate
    this.#sections = [Math.PI / 8, (3 * Math.PI) / 8].map((angle) => {
      const alpha = Math.sin(w) * Math.cos(angle)
      const a0 = 1 + alpha
      const b0 = (1 + Math.cos(w)) / 2 / a0
      const a1 = (-2 * Math.cos(w)) / a0
      const a2 = (1 - alpha) / a0
      return { b0, b1: -2 * b0 - a1 * b0, b2: b0 - a2 * b0, a1, a2 }
    })
  }

  /** Filters `input` into `output`, which may be the same array. */
  run(input: Float32Array, output: Float32Array): void {
    const [one, two] = this.#sections
    if (!one || !two) return
    // Ten minutes are 29 million samples: nothing is looked up within the loop.
    const { b0, b1, b2, a1, a2 } = one
    const { b0: c0, b1: c1, b2: c2, a1: d1, a2: d2 } = two
    let [p0 = 0, p1 = 0, q0 = 0, q1 = 0] = this.#state
    for (let i = 0; i < input.length; i++) {
      const x = input[i]!
      // Transposed direct form II, its output put in for itself: each state waits for the last states only, not for the output.
      const y = b0 * x + p0
      const nextP = b1 * x + p1 - a1 * p0
      p1 = b2 * x - a2 * p0
      p0 = nextP
      const z = c0 * y + q0
      const nextQ = c1 * y + q1 - d1 * q0
      q1 = c2 * y - d2 * q0
      q0 = nextQ
      output[i] = z
    }
    this.#state.set([p0, p1, q0, q1])
  }
}
