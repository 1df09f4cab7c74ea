declare module 'fft.js' {
  /** Radix-4 FFT of `size`, a power of two; complex arrays interleave real and imaginary parts. */
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(out: number[], data: ArrayLike<number>): void
    completeSpectrum(spectrum: number[]): void
    inverseTransform(out: number[], data: number[]): void
  }
}
