/** What the fixed reckoning takes on the machine that the budgets were set on, when it has nothing else to do, ms. */
const REFERENCE_MS = 180

/**
 * How many times slower than the machine the budgets were set on this one is just now; never less than 1, so that a
 * faster one is no excuse.
 *
 * A fixed reckoning of the kinds that the programs do: floating point, sorting, and text.
 */
export function slowness() {
  const times = Array.from({ length: 5 }, () => {
    const began = performance.now()
    reckon()
    return performance.now() - began
  })
  return Math.max(1, times.sort((a, b) => a - b)[2] / REFERENCE_MS)
}

let kept = 0

function reckon() {
  let sum = 0
  for (let i = 1; i < 2_000_000; i++) sum += Math.sin(i) / i
  const numbers = Float64Array.from({ length: 200_000 }, (_, i) => Math.sin(i * 7919)).sort()
  const rows = Array.from({ length: 20_000 }, (_, i) => ({ id: `row ${i}`, at: numbers[i], note: 'as it was' }))
  kept += sum + JSON.parse(JSON.stringify(rows)).length
  return kept
}
