import { nth } from '../check/nth.ts'
import FFT from 'fft.js'

/**
 * Autocorrelation of `values` about their mean for lags 0 to `lags` − 1, by FFT, each divided by the overlap left.
 */
export function autocorrelation(values: Float32Array, lags: number): Float64Array {
  let size = 4
  while (size < 2 * values.length) size *= 2
  let mean = 0
  for (const v of values) mean += v / values.length
  const padded = new Float64Array(size)
  for (let i = 0; i < values.length; i++) padded[i] = nth(values, i) - mean
  const fft = new FFT(size)
  const spectrum = fft.createComplexArray()
  fft.realTransform(spectrum, padded)
  fft.completeSpectrum(spectrum)
  for (let i = 0; i < spectrum.length; i += 2) {
    spectrum[i] = nth(spectrum, i) ** 2 + nth(spectrum, i + 1) ** 2
    spectrum[i + 1] = 0
  }
  const back = fft.createComplexArray()
  fft.inverseTransform(back, spectrum)
  const out = new Float64Array(Math.min(lags, values.length))
  for (let lag = 0; lag < out.length; lag++) out[lag] = nth(back, 2 * lag) / (values.length - lag)
  return out
}
