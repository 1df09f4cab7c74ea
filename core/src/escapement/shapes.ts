import { FieldError, requireCount, requirePositive, requireWithin } from '../check/require.ts'
import { distanceMm, type Point } from '../plate/point.ts'
import type { EscapementGeometry } from './action.ts'

export const DRAWN_KINDS = ['dead-beat', 'recoil', 'pin-pallet', 'points'] as const
export type DrawnKind = (typeof DRAWN_KINDS)[number]

/** A few measures that pallets of the usual kinds are drawn from. */
export interface PalletMeasures {
  kind: Exclude<DrawnKind, 'points'>
  teeth: number
  tipRadiusMm: number
  centreDistanceMm: number
  /** spaces between the teeth that the two pallets span, a half more than whole ones */
  spannedSpaces: number
  /** a pallet’s thickness along the circle of the tips; of pin pallets a pin’s diameter, mm */
  palletMm: number
  /** pallets’ turning while one face is pushed, degrees */
  liftDeg: number
  /** pallets’ turning from the landing to the face, degrees; pins and recoil pallets have none of their own */
  lockDeg: number
}

/** A point of a locking arc for so many degrees; pieces of a pin’s quarter. */
const ARC_STEP_DEG = 0.5
const PIN_POINTS = 16

/**
 * Outlines of the usual pallets about their arbor, mm, in the middle of their swing.
 *
 * Each pallet has a corner that a tooth locks on or first pushes and one that it leaves, on circles about the pallets’
 * arbor that lie half a pallet inside and outside of the middle of the span. With lift λ and lock ℓ they let go at
 * ±(λ + ℓ)/2 and a tooth comes to the face at λ before that: turned back to the middle of the swing this places the
 * corners. Dead-beat: the locking face is a circle about the arbor. Recoil: the face goes on straight past where the
 * tooth lands. Pin pallets: round pins cut to
 * half their thickness, whose lowest edge lets go at half the lift; a whole one would come down on the tooth it let go.
 *
 * @throws FieldError for measures that can’t be drawn
 */
export function palletOutlines(m: PalletMeasures): Pick<EscapementGeometry, 'palletEntry' | 'palletExit'> {
  requireCount('teeth', m.teeth, 3, 200)
  requirePositive('tipRadiusMm', m.tipRadiusMm)
  requirePositive('centreDistanceMm', m.centreDistanceMm)
  requireWithin('spannedSpaces', m.spannedSpaces, 0.5, m.teeth / 2 - 0.5)
  requirePositive('palletMm', m.palletMm)
  requireWithin('liftDeg', m.liftDeg, 0.1, 60)
  requireWithin('lockDeg', m.lockDeg, 0, 30)
  const middleMm = middleRadius(m)
  return m.kind === 'pin-pallet' ? pins(m, middleMm) : faces(m, middleMm)
}

/** From the pallets’ arbor to where the middle of the span meets the circle of the tips, mm. */
function middleRadius({ tipRadiusMm: r, centreDistanceMm: c, spannedSpaces, teeth }: PalletMeasures): number {
  const a = (Math.PI * spannedSpaces) / teeth
  return Math.sqrt(r * r + c * c - 2 * r * c * Math.cos(a))
}

/** Where a circle about the pallets’ arbor meets the circle of the tips, degrees from straight down. */
function meetingDeg(radiusMm: number, { tipRadiusMm: r, centreDistanceMm: c }: PalletMeasures): number {
  const cos = (radiusMm ** 2 + c ** 2 - r ** 2) / (2 * radiusMm * c)
  if (!(cos > -1 && cos < 1))
    throw new FieldError('centreDistanceMm', c, 'from there the pallets, as measured, do not reach the teeth')
  return (Math.acos(cos) * 180) / Math.PI
}

function faces(m: PalletMeasures, middleMm: number): Pick<EscapementGeometry, 'palletEntry' | 'palletExit'> {
  const inner = middleMm - m.palletMm / 2
  const outer = middleMm + m.palletMm / 2
  if (inner <= 0) throw new FieldError('palletMm', m.palletMm, 'the pallets would reach their own arbor')
  const lock = m.kind === 'recoil' ? 0 : m.lockDeg
  const letsGo = (m.liftDeg + lock) / 2
  const begins = letsGo - m.liftDeg
  return {
    palletEntry: pallet(m, [outer, inner], [meetingDeg(outer, m) - begins, meetingDeg(inner, m) - letsGo], -1),
    palletExit: pallet(m, [inner, outer], [meetingDeg(inner, m) - begins, meetingDeg(outer, m) - letsGo], 1),
  }
}

/** From deep on the locking face to the corner that a tooth leaves, and up the other side of the pallet. */
function pallet(m: PalletMeasures, radii: [number, number], degs: [number, number], side: 1 | -1): Point[] {
  const at = (mm: number, deg: number): Point => ({
    xMm: side * mm * Math.sin((deg * Math.PI) / 180),
    yMm: -mm * Math.cos((deg * Math.PI) / 180),
  })
  const [first, last] = [at(radii[0], degs[0]), at(radii[1], degs[1])]
  // The other side leans into the pallet, so that it never comes back onto the tooth it has let go.
  const lean = Math.sign(radii[0] - radii[1]) * 0.03 * m.palletMm
  const other = [1, 2, 3].map((n) => at(radii[1] + n * lean, degs[1] + n * BACK_STEP_DEG))
  if (m.kind === 'recoil') {
    // Straight on past where the tooth lands, twice as far again: as deep as any swing goes.
    const deep = { xMm: first.xMm + 2 * (first.xMm - last.xMm), yMm: first.yMm + 2 * (first.yMm - last.yMm) }
    return [deep, first, last, ...other]
  }
  const arc: Point[] = []
  for (let deg = LOCKING_ARC_DEG; deg > 0; deg -= ARC_STEP_DEG) arc.push(at(radii[0], degs[0] + deg))
  return [...arc, first, last, ...other]
}

const BACK_STEP_DEG = 2
/** As far as a locking face is drawn: further than a pendulum carries the pallets. */
const LOCKING_ARC_DEG = 24

function pins(m: PalletMeasures, middleMm: number): Pick<EscapementGeometry, 'palletEntry' | 'palletExit'> {
  const r = m.palletMm / 2
  // A pin lets go when its lowest point towards the wheel leaves the circle of the tips: its centre stands on a circle
  // larger by its radius.
  const deg = meetingDeg(middleMm, { ...m, tipRadiusMm: m.tipRadiusMm + r }) - m.liftDeg / 2
  const a = (deg * Math.PI) / 180
  // The quarter that a tooth meets, and straight on away from the wheel: a pin that is deep stops a tooth by its body.
  const pin = (side: 1 | -1): Point[] => {
    const centre = { xMm: side * middleMm * Math.sin(a), yMm: -middleMm * Math.cos(a) }
    const away = Math.atan2(centre.xMm, centre.yMm + m.centreDistanceMm)
    const rim = Array.from({ length: PIN_POINTS + 1 }, (_, i) => {
      const turn = away - Math.PI / 2 - ((Math.PI / 2) * i) / PIN_POINTS
      return { xMm: centre.xMm + r * Math.sin(turn), yMm: centre.yMm + r * Math.cos(turn) }
    })
    const out = (p: Point | undefined): Point[] =>
      p ? [{ xMm: p.xMm + 6 * r * Math.sin(away), yMm: p.yMm + 6 * r * Math.cos(away) }] : []
    return [...out(rim[0]), ...rim, ...out(rim.at(-1))]
  }
  return { palletEntry: pin(-1), palletExit: pin(1) }
}

/** Pallets opened by so many degrees between them (− closed), each arm turned by half of it about the arbor. */
export function opened(
  pallets: Pick<EscapementGeometry, 'palletEntry' | 'palletExit'>,
  byDeg: number,
): Pick<EscapementGeometry, 'palletEntry' | 'palletExit'> {
  const turn = (deg: number) => (p: Point) => {
    const a = (deg * Math.PI) / 180
    return { xMm: p.xMm * Math.cos(a) + p.yMm * Math.sin(a), yMm: -p.xMm * Math.sin(a) + p.yMm * Math.cos(a) }
  }
  return {
    palletEntry: pallets.palletEntry.map(turn(byDeg / 2)),
    palletExit: pallets.palletExit.map(turn(-byDeg / 2)),
  }
}

/** The edge of a pallet that a tooth leaves: the point of its outline nearest to the wheel’s centre. */
function edgeOf(outline: Point[], centreDistanceMm: number): Point {
  const fromWheel = (p: Point) => Math.hypot(p.xMm, p.yMm + centreDistanceMm)
  return outline.reduce((best, p) => (fromWheel(p) < fromWheel(best) ? p : best))
}

/** From the edge that lets go on one pallet to that on the other, mm: what a caliper shows on the pallets. */
export function acrossEdgesMm(g: Pick<EscapementGeometry, 'palletEntry' | 'palletExit' | 'centreDistanceMm'>): number {
  return distanceMm(edgeOf(g.palletEntry, g.centreDistanceMm), edgeOf(g.palletExit, g.centreDistanceMm))
}

/**
 * Pallets opened or closed until they measure `acrossMm` across the edges that let go, mm.
 *
 * The edges stand at fixed distances from the arbor, so the angle between the arms follows by the law of cosines.
 *
 * @throws FieldError where no opening gives it
 */
export function openedTo(
  g: Pick<EscapementGeometry, 'palletEntry' | 'palletExit' | 'centreDistanceMm'>,
  acrossMm: number,
): Pick<EscapementGeometry, 'palletEntry' | 'palletExit'> {
  const [entry, exit] = [edgeOf(g.palletEntry, g.centreDistanceMm), edgeOf(g.palletExit, g.centreDistanceMm)]
  const [a, b] = [Math.hypot(entry.xMm, entry.yMm), Math.hypot(exit.xMm, exit.yMm)]
  const angle = (mm: number) => (Math.acos((a * a + b * b - mm * mm) / (2 * a * b)) * 180) / Math.PI
  const wanted = angle(acrossMm)
  if (!Number.isFinite(wanted))
    throw new FieldError('acrossMm', acrossMm, `the arms are ${a.toFixed(2)} and ${b.toFixed(2)} mm long`)
  return opened(g, wanted - angle(distanceMm(entry, exit)))
}
