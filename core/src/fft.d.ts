declare module 'fft.js' {
  /** Radix-4 FFT of `size`, a power of two; complex arrays interleave real and imaginary parts. */
  export default class FFT {
    constructor(size: number)
    realTransform(out: Float64Array, data: Float64Array): void
  }
}
