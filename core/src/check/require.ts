/** A value that a person or a script gave, refused: names the field, the value and what is allowed. */
export class FieldError extends RangeError {
  constructor(
    readonly field: string,
    readonly value: unknown,
    readonly allowed: string,
  ) {
    super(`${field} is ${show(value)}: ${allowed}`)
    this.name = 'FieldError'
  }
}

function show(value: unknown): string {
  if (typeof value === 'number') return String(value)
  if (value === undefined) return 'missing'
  return JSON.stringify(value).slice(0, 80)
}

/** Throws FieldError unless `value` is a finite number. */
export function requireFinite(field: string, value: number): void {
  if (!Number.isFinite(value)) throw new FieldError(field, value, 'it must be a finite number')
}

/** Throws FieldError unless `value` is finite and above 0. */
export function requirePositive(field: string, value: number): void {
  if (!Number.isFinite(value) || value <= 0) throw new FieldError(field, value, 'it must be a number above 0')
}

/** Throws FieldError unless `value` is finite and within [low, high]. */
export function requireWithin(field: string, value: number, low: number, high: number): void {
  if (!Number.isFinite(value) || value < low || value > high)
    throw new FieldError(field, value, `it must be a number from ${low} to ${high}`)
}

/** Throws FieldError unless `value` is a whole number within [low, high]. */
export function requireCount(field: string, value: number, low: number, high: number): void {
  if (!Number.isInteger(value) || value < low || value > high)
    throw new FieldError(field, value, `it must be a whole number from ${low} to ${high}`)
}
