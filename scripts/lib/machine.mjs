/** What the fixed reckoning takes on the machine that the budgets were set on, when it has nothing else to do, ms. */
const REFERENCE_MS = 180
/** So much of it takes about as long as what a person waits for. */
const SHORT = 1 / 4

/**
 * How many times slower than the machine the budgets were set on this one is just now; never less than 1, so that a
 * faster one is no excuse.
 *
 * A fixed reckoning of the kinds that the programs do: floating point, sorting, and text.
 */
export function slowness() {
  return at(
    Array.from({ length: 5 }, () => slownessBy(1)),
    0.5,
  )
}

/**
 * The same while something is timed again and again: a short reckoning between one time and the next. A machine that
 * others share stands still now and then, so what it did at its slowest is held against the slowest times, and what it
 * did in the middle against the middle ones.
 */
export function machineBeside() {
  const found = []
  return {
    note: () => found.push(slownessBy(SHORT)),
    /** of so many of the times, from the quickest; 1 is all of them */
    at: (share) => at(found, share),
  }
}

function at(found, share) {
  const sorted = found.toSorted((a, b) => a - b)
  return Math.max(1, sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))])
}

function slownessBy(part) {
  const began = performance.now()
  reckon(part)
  return (performance.now() - began) / (REFERENCE_MS * part)
}

let kept = 0

function reckon(part) {
  let sum = 0
  for (let i = 1; i < 2_000_000 * part; i++) sum += Math.sin(i) / i
  const numbers = Float64Array.from({ length: 200_000 * part }, (_, i) => Math.sin(i * 7919)).sort()
  const rows = Array.from({ length: 20_000 * part }, (_, i) => ({ id: `row ${i}`, at: numbers[i], note: 'as it was' }))
  kept += sum + JSON.parse(JSON.stringify(rows)).length
  return kept
}
