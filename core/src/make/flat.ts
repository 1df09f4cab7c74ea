import { FieldError } from '../check/require.ts'
import { countWheel } from '../strike/countWheel.ts'

/** A place on a flat part, mm from its middle: x right, y up. */
export interface FlatPoint {
  xMm: number
  yMm: number
}

/** Arcs are drawn in pieces of at most so many degrees: they leave the circle by less than a hundred-thousandth of it. */
const PIECE_DEG = 0.5

/**
 * The rim of a count wheel, mm about its middle, as seen from the side from which its slots come to the detent clockwise
 * round, the end of twelve’s blows at the top. A slot stands in the middle of where a detent of its width feels; where a
 * half’s single blow follows its hour the two slots are one.
 *
 * @throws FieldError where a slot is deeper than the wheel, or so wide that it takes the next division
 */
export function countWheelRim(
  halves: 'none' | 'one',
  { outsideMm, slotDeepMm, slotWideMm }: { outsideMm: number; slotDeepMm: number; slotWideMm: number },
): FlatPoint[] {
  const { divisions, slots } = countWheel(halves)
  const r = outsideMm / 2
  const bottom = r - slotDeepMm
  if (bottom <= 0.2 * r) throw new FieldError('slotDeepMm', slotDeepMm, 'it must leave more than a fifth of the radius')
  const halfWide = (Math.asin(Math.min(1, slotWideMm / 2 / r)) * 180) / Math.PI
  if (halfWide * 2 >= 360 / divisions)
    throw new FieldError(
      'slotWideMm',
      slotWideMm,
      `it must be narrower than a division, ${((Math.PI * outsideMm) / divisions).toFixed(2)} mm here`,
    )
  const cuts = halves === 'none' ? slots.map((s) => [s.atDeg, s.atDeg]) : pairsOf(slots)
  const spans = cuts.map(([from = 0, to = 0]) => [from - halfWide, to + halfWide] as const).sort((a, b) => a[0] - b[0])
  const out: FlatPoint[] = []
  spans.forEach(([from, to], i) => {
    arc(out, bottom, from, to)
    const next = spans[(i + 1) % spans.length] as readonly [number, number]
    arc(out, r, to, next[0] + (i + 1 === spans.length ? 360 : 0))
  })
  return out
}

/** Each hour’s end with that of the half that follows it. */
function pairsOf(slots: { after: number; atDeg: number }[]): [number, number][] {
  const at = (after: number) => slots.find((s) => s.after === after)?.atDeg ?? 0
  return Array.from({ length: 12 }, (_, i) => i + 1).map((hour) =>
    hour === 12 ? [0, at(12.5)] : [at(hour), at(hour + 0.5)],
  )
}

/**
 * The edge of a snail of twelve steps, mm about its middle, as seen from the front: it turns clockwise with the hour hand,
 * so that the steps follow each other anticlockwise, one o’clock’s, the highest, thirty degrees left of the top.
 *
 * @param highMm - radius of one o’clock’s step
 * @param stepMm - how much lower each following step is: a tooth of the rack, measured at the tail
 * @throws FieldError where twelve’s step would cut the bore
 */
export function snailEdge({ highMm, stepMm, boreMm }: { highMm: number; stepMm: number; boreMm: number }): FlatPoint[] {
  const least = highMm - 11 * stepMm
  if (least <= boreMm / 2 + 0.5)
    throw new FieldError(
      'stepMm',
      stepMm,
      `twelve’s step would leave ${least.toFixed(2)} mm, and the bore is ${(boreMm / 2).toFixed(2)}`,
    )
  const out: FlatPoint[] = []
  for (let hour = 1; hour <= 12; hour++) {
    const r = highMm - (hour - 1) * stepMm
    arc(out, r, -30 * hour + 15, -30 * hour - 15)
  }
  return out
}

/** How much lower a step is for one tooth of the rack, mm at the tail: both turn about the rack’s arbor. */
export function stepOfRack(toothMm: number, teethRadiusMm: number, tailMm: number): number {
  return (toothMm * tailMm) / teethRadiusMm
}

/** Points along an arc, clock angles from the top. */
function arc(out: FlatPoint[], r: number, fromDeg: number, toDeg: number): void {
  const pieces = Math.max(1, Math.ceil(Math.abs(toDeg - fromDeg) / PIECE_DEG))
  for (let i = 0; i <= pieces; i++) {
    const a = ((fromDeg + ((toDeg - fromDeg) * i) / pieces) * Math.PI) / 180
    out.push({ xMm: r * Math.sin(a), yMm: r * Math.cos(a) })
  }
}
