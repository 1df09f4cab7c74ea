/** Units a caliper or a person may give a length in. */
export type LengthUnit = 'mm' | 'thou'

const MM_PER_THOU = 0.0254 // exact: an inch is 25.4 mm

/** A length in mm, from a value typed in `unit`. */
export function toMm(value: number, unit: LengthUnit): number {
  return unit === 'thou' ? value * MM_PER_THOU : value
}

/** A length in `unit`, from mm. */
export function fromMm(mm: number, unit: LengthUnit): number {
  return unit === 'thou' ? mm / MM_PER_THOU : mm
}
