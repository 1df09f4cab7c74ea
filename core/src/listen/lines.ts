/** What a sinusoid explains of a row once the steady rate, the beat and what was named before are taken out. */
export interface LineFit {
  /** squares that it takes out of the row, each of its two directions alike: 1 × the noise's variance by chance */
  power: number
  cosine: number
  sine: number
}

/**
 * A row of lateness against the beats' numbers, in which lines are looked for one after another.
 *
 * Everything is least squares on what is left after a constant, a slope, the difference of the two sides, and every
 * line that was taken out: so a wheel that turned only twice is not half hidden in the rate.
 *
 * @param index - numbers of the beats, rising
 * @param late - lateness of each, any unit
 */
export class LateRow {
  readonly #directions: Float64Array[] = []
  readonly #left: Float64Array
  readonly #at: Float64Array

  /** @param kind - beats have two sides; minutes have a rate that may change: its square is taken out too */
  constructor(index: ArrayLike<number>, late: ArrayLike<number>, kind: 'beats' | 'minutes') {
    const middle = (index[0]! + index[index.length - 1]!) / 2
    this.#at = Float64Array.from(index, (n) => n - middle)
    this.#left = Float64Array.from(late)
    this.#takeOut(this.#at.map(() => 1))
    this.#takeOut(this.#at.slice())
    if (kind === 'beats') this.#takeOut(Float64Array.from(index, (n) => (n % 2 === 0 ? 1 : -1)))
    else this.#takeOut(this.#at.map((n) => n * n))
  }

  /** beats from the first to the last */
  get span(): number {
    return this.#at[this.#at.length - 1]! - this.#at[0]!
  }

  /** @param perBeat - turns a step */
  fit(perBeat: number): LineFit {
    const [cos, sin] = this.#pair(perBeat)
    // The second direction is freed of the first, so that the two powers add.
    const c = dot(cos, cos)
    const mix = c > 0 ? dot(cos, sin) / c : 0
    const freed = sin.map((v, i) => v - mix * cos[i]!)
    const s = dot(freed, freed)
    const a = c > 1e-9 ? dot(this.#left, cos) / c : 0
    const b = s > 1e-9 ? dot(this.#left, freed) / s : 0
    return { power: (a * a * c + b * b * s) / 2, cosine: a - mix * b, sine: b }
  }

  /** Takes a line out: what is looked for later is freed of it. */
  take(perBeat: number): void {
    for (const direction of this.#pair(perBeat)) this.#takeOut(direction)
  }

  #pair(perBeat: number): [Float64Array, Float64Array] {
    const angle = 2 * Math.PI * perBeat
    const cos = this.#at.map((n) => Math.cos(angle * n))
    const sin = this.#at.map((n) => Math.sin(angle * n))
    for (const done of this.#directions) {
      free(cos, done)
      free(sin, done)
    }
    return [cos, sin]
  }

  #takeOut(direction: Float64Array): void {
    for (const done of this.#directions) free(direction, done)
    const length = Math.sqrt(dot(direction, direction))
    if (length < 1e-9) return
    for (let i = 0; i < direction.length; i++) direction[i]! /= length
    free(this.#left, direction)
    this.#directions.push(direction)
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/** Takes a unit direction's share out of a row. */
function free(row: Float64Array, unit: Float64Array): void {
  const share = dot(row, unit)
  for (let i = 0; i < row.length; i++) row[i]! -= share * unit[i]!
}
