import FFT from 'fft.js'

/**
 * Autocorrelation of `values` about their mean for lags 0 to `lags` − 1, by FFT, each divided by the overlap left.
 */
export function autocorrelation(values: Float32Array, lags: number): Float64Array {
  const told = Math.min(Math.ceil(lags), values.length)
  // What is moved beyond the end comes back at the beginning: it must find nothing there.
  let size = 4
  while (size < values.length + told) size *= 2
  let mean = 0
  for (const v of values) mean += v / values.length
  const padded = new Float64Array(size)
  for (let i = 0; i < values.length; i++) padded[i] = values[i]! - mean
  const { fft, spectrum } = tablesOf(size)
  fft.realTransform(spectrum, padded)
  // The powers are real and the same from either end: what leads back is the transform itself, of half the numbers.
  for (let k = 0; k <= size / 2; k++) {
    const power = spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2
    padded[k] = power
    if (k > 0) padded[size - k] = power
  }
  fft.realTransform(spectrum, padded)
  const out = new Float64Array(told)
  for (let lag = 0; lag < out.length; lag++) out[lag] = spectrum[2 * lag]! / size / (values.length - lag)
  return out
}

let last: { size: number; fft: FFT; spectrum: Float64Array } | undefined

/** Stretches of a recording are all of one length: the tables of the last are those of the next. */
function tablesOf(size: number) {
  if (last?.size !== size) last = { size, fft: new FFT(size), spectrum: new Float64Array(2 * size) }
  return last
}
