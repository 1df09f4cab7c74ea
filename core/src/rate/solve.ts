/** A value and its standard error. */
export interface Figure {
  value: number
  standardError: number
}

/** One weighted equation Σ coefficient·parameter = value ± sigma; coefficients by parameter number. */
export interface Equation {
  terms: [parameter: number, coefficient: number][]
  value: number
  sigma: number
}

export interface Solution {
  values: Float64Array
  /** covariance of two parameters */
  covariance(i: number, j: number): number
  /** natural logarithm of how likely the values are, all parameters left free; up to a constant of their number */
  logEvidence: number
  /** the equation that is missed most, in its own sigmas */
  worst: number
}

/**
 * Weighted least squares by normal equations, scaled to a unit diagonal and factored by Cholesky.
 *
 * Every parameter must occur in some equation (a vague prior will do). The scaling keeps parameters of very different
 * size, and a slope known only from readings a moment apart, from spoiling one another.
 */
export function solve(equations: Equation[], parameters: number): Solution {
  const normal = Array.from({ length: parameters }, () => new Float64Array(parameters))
  const right = new Float64Array(parameters)
  // Counted loops: this is gone through for every reading of every clock on the bench, by many guesses of its walk.
  for (const { terms, value, sigma } of equations) {
    const weight = 1 / (sigma * sigma)
    for (let s = 0; s < terms.length; s++) {
      const a = terms[s]![1]
      if (a === 0) continue
      const i = terms[s]![0]
      const weighted = a * weight
      const row = normal[i]!
      right[i]! += weighted * value
      for (let t = 0; t < terms.length; t++) row[terms[t]![0]]! += weighted * terms[t]![1]
    }
  }
  const scale = normal.map((row, i) => 1 / Math.sqrt(row[i]!))
  const factor = cholesky(normal.map((row, i) => row.map((v, j) => v * scale[i]! * scale[j]!)))
  let inverse: Float64Array[] | undefined
  // Only where errors are asked for: comparing models needs none.
  const invert = () =>
    Array.from({ length: parameters }, (_, k) => {
      const unit = new Float64Array(parameters)
      unit[k] = 1
      return backward(factor, forward(factor, unit))
    })
  const scaled = backward(
    factor,
    forward(
      factor,
      right.map((v, i) => v * scale[i]!),
    ),
  )
  const values = scaled.map((v, i) => v * scale[i]!)
  let logEvidence = 0
  let worst = 0
  for (const { terms, value, sigma } of equations) {
    let left = value
    for (let t = 0; t < terms.length; t++) left -= terms[t]![1] * values[terms[t]![0]]!
    logEvidence -= 0.5 * (left / sigma) ** 2 + Math.log(sigma)
    worst = Math.max(worst, Math.abs(left / sigma))
  }
  for (let i = 0; i < parameters; i++) logEvidence -= Math.log(factor[i]![i]!) - Math.log(scale[i]!)
  return {
    values,
    covariance: (i, j) => (inverse ??= invert())[i]![j]! * scale[i]! * scale[j]!,
    logEvidence,
    worst,
  }
}

function cholesky(matrix: Float64Array[]): Float64Array[] {
  const factor = matrix.map((row) => new Float64Array(row.length))
  matrix.forEach((row, i) => {
    for (let j = 0; j <= i; j++) {
      let sum = row[j]!
      for (let k = 0; k < j; k++) sum -= factor[i]![k]! * factor[j]![k]!
      factor[i]![j] = i === j ? Math.sqrt(Math.max(sum, 1e-15)) : sum / factor[j]![j]!
    }
  })
  return factor
}

function forward(factor: Float64Array[], right: Float64Array): Float64Array {
  const out = new Float64Array(right.length)
  factor.forEach((row, i) => {
    let sum = right[i]!
    for (let k = 0; k < i; k++) sum -= row[k]! * out[k]!
    out[i] = sum / row[i]!
  })
  return out
}

function backward(factor: Float64Array[], right: Float64Array): Float64Array {
  const out = new Float64Array(right.length)
  for (let i = right.length - 1; i >= 0; i--) {
    let sum = right[i]!
    for (let k = i + 1; k < right.length; k++) sum -= factor[k]![i]! * out[k]!
    out[i] = sum / factor[i]![i]!
  }
  return out
}
