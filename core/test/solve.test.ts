import fc from 'fast-check'
import { expect, test } from 'vitest'
import { solve, type Equation } from '../src/rate/solve.ts'

/** Determinant by expansion: slow, and nothing like a factoring. */
function determinant(m: number[][]): number {
  if (m.length === 0) return 1
  return m[0]!.reduce(
    (sum, v, j) =>
      sum + (j % 2 === 0 ? 1 : -1) * v * determinant(m.slice(1).map((row) => row.filter((_, k) => k !== j))),
    0,
  )
}

const coefficient = fc.double({ min: -3, max: 3, noNaN: true })
const figure = fc.double({ min: -100, max: 100, noNaN: true })

const systems = fc.integer({ min: 1, max: 4 }).chain((parameters) =>
  fc.record({
    parameters: fc.constant(parameters),
    rows: fc.array(
      fc.record({
        coefficients: fc.array(coefficient, { minLength: parameters, maxLength: parameters }),
        value: figure,
        sigma: fc.double({ min: 0.5, max: 2, noNaN: true }),
      }),
      { minLength: parameters, maxLength: 8 },
    ),
    priors: fc.array(figure, { minLength: parameters, maxLength: parameters }),
  }),
)

test('the solution and its covariances are those of the normal equations by Cramer’s rule', () => {
  fc.assert(
    fc.property(systems, ({ parameters, rows, priors }) => {
      const equations: Equation[] = [
        ...rows.map(({ coefficients, value, sigma }) => ({
          terms: coefficients.map((c, i): [number, number] => [i, c]),
          value,
          sigma,
        })),
        ...priors.map((value, i): Equation => ({ terms: [[i, 1]], value, sigma: 3 })),
      ]
      const normal = Array.from({ length: parameters }, () => new Array<number>(parameters).fill(0))
      const right = new Array<number>(parameters).fill(0)
      for (const { terms, value, sigma } of equations)
        for (const [i, a] of terms) {
          right[i]! += (a * value) / sigma ** 2
          for (const [j, b] of terms) normal[i]![j]! += (a * b) / sigma ** 2
        }
      const whole = determinant(normal)
      const found = solve(equations, parameters)
      for (let k = 0; k < parameters; k++) {
        const replaced = normal.map((row, i) => row.map((v, j) => (j === k ? right[i]! : v)))
        expect(found.values[k]).toBeCloseTo(determinant(replaced) / whole, 6)
        for (let l = 0; l < parameters; l++) {
          const minor = normal.filter((_, i) => i !== l).map((row) => row.filter((_, j) => j !== k))
          const cofactor = ((k + l) % 2 === 0 ? 1 : -1) * determinant(minor)
          expect(found.covariance(k, l)).toBeCloseTo(cofactor / whole, 6)
        }
      }
    }),
  )
})

test('parameters of very different size do not spoil one another', () => {
  // A line through readings a second apart, far from the origin of time.
  const equations = [0, 1, 2, 3].map((t): Equation => ({
    terms: [
      [0, 1],
      [1, 1e6 * t],
    ],
    value: 5 + 2 * t,
    sigma: 1e-3,
  }))
  const found = solve(equations, 2)
  expect(found.values[0]).toBeCloseTo(5, 9)
  expect(found.values[1]! * 1e6).toBeCloseTo(2, 9)
  // The variance of a slope: σ² over the sum of squares about the mean, here 5 of (1e6)².
  expect(found.covariance(1, 1) * 1e12).toBeCloseTo(1e-6 / 5, 12)
})
