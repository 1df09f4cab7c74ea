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
  for (let i = 0; i < values.length; i++) padded[i] = values[i]! - mean
  const fft = fftOf(size)
  const spectrum = fft.createComplexArray()
  fft.realTransform(spectrum, padded)
  fft.completeSpectrum(spectrum)
  for (let i = 0; i < spectrum.length; i += 2) {
    spectrum[i] = spectrum[i]! ** 2 + spectrum[i + 1]! ** 2
    spectrum[i + 1] = 0
  }
  const back = fft.createComplexArray()
  fft.inverseTransform(back, spectrum)
  const out = new Float64Array(Math.min(lags, values.length))
  for (let lag = 0; lag < out.length; lag++) out[lag] = back[2 * lag]! / (values.length - lag)
  return out
}

let last: { size: number; fft: FFT } | undefined

/** Stretches of a recording are all of one length: the tables of the last are those of the next. */
function fftOf(size: number): FFT {
  if (last?.size !== size) last = { size, fft: new FFT(size) }
  return last.fft
}
