import { FieldError, requireFinite, requirePositive } from '../check/require.ts'
import { finishedHoleMm } from './finishedHole.ts'
import { leastToCleanUpMm, type HoleFound } from './cleanUp.ts'
import { checkHole, type MeasuredHole } from './hole.ts'
import {
  bushOrLeave,
  DEFAULT_BUSHING_RULES,
  schoolVerdicts,
  type ArborRole,
  type BushingRules,
  type SchoolVerdict,
} from './schools.ts'

export interface HoleToBush extends MeasuredHole, Pick<HoleFound, 'wearDeg' | 'oldHoleMm' | 'offCentre'> {
  plateMm: number
  role: ArborRole
  /** module of the mesh that this hole's wear opens, mm */
  moduleMm?: number | undefined
  /** how far the centre has moved along the line of centres, mm */
  depthShiftMm?: number | undefined
}

export interface BushingPlan {
  wearMm: number
  /** from the middle of the slot back to the original centre, away from the wear, mm */
  originalCentreOffsetMm: number
  fileBackMm: number
  /** total play, (long + short)/2 − pivot, as a share of the pivot */
  playPercent: number
  verdict: 'bush' | 'leave'
  reasons: string[]
  schools: SchoolVerdict[]
  /** not over any limit that decides, but so near that an open movement should have it done now */
  nearLimit: boolean
  /** least cutter that cleans up the filed-back slot, and what an old bush leaves, and leaves the wall, mm */
  leastCutterMm: number
  /** the smallest of the shop's cutters that does, mm; null when none does */
  cutterMm: number | null
  bushOutsideMm: number | null
  drilledMm: number
  finishedHoleMm: number
  wallMm: number | null
  lengthMm: number
}

/**
 * Verdict and sizes for one worn hole, mm.
 *
 * The unworn side is still the original circle, so the original centre lies (a − b)/2 from the middle of the slot,
 * away from the wear; filed back by a − b the hole is long both ways about it, and the cutter must be at least
 * 2a − b across; more where an old bush comes out, or the hole goes back to a centre it had left. Bush outside =
 * cutter + press fit. Drilled under the pivot, broached from both sides to the pivot and its play.
 *
 * @param hole - caliper figures, mm; pivot is the *finished* pivot
 * @param cuttersMm - the shop's cutters by their measured size, mm; may be empty
 * @throws FieldError at the field to correct
 */
export function bushingPlan(
  hole: HoleToBush,
  cuttersMm: number[],
  rules: BushingRules = DEFAULT_BUSHING_RULES,
): BushingPlan {
  checkHole(hole)
  requirePositive('plateMm', hole.plateMm)
  if (hole.moduleMm !== undefined) requirePositive('moduleMm', hole.moduleMm)
  if (hole.depthShiftMm !== undefined) requireFinite('depthShiftMm', hole.depthShiftMm)
  cuttersMm.forEach((cutter, i) => requirePositive(`cutters[${i}]`, cutter))
  if (hole.plateMm > 60)
    throw new FieldError('plateMm', hole.plateMm, 'it must be at most 60 mm; is it in another unit?')

  const { longAxisMm: a, shortAxisMm: b, pivotMm } = hole
  const wearMm = a - b
  const playPercent = (100 * ((a + b) / 2 - pivotMm)) / pivotMm
  const schools = schoolVerdicts({ ...hole, wearMm, playPercent }, rules)
  const verdict = bushOrLeave(schools, rules)

  const finishedHole = finishedHoleMm(pivotMm, hole.role, rules)
  const cleansUp = leastToCleanUpMm(hole) + rules.cleanUpMm
  const leavesWall = finishedHole + 2 * rules.wallMm - rules.pressFitMm
  const leastCutterMm = Math.max(cleansUp, leavesWall)
  const cutterMm = smallestAtLeast(cuttersMm, leastCutterMm)
  const bushOutsideMm = cutterMm === null ? null : cutterMm + rules.pressFitMm
  const near = schools.filter((s) => s.near || s.over === true).length
  return {
    wearMm,
    originalCentreOffsetMm: wearMm / 2,
    fileBackMm: wearMm,
    playPercent,
    verdict,
    reasons: schools.filter((s) => s.over === true || (verdict === 'leave' && s.over === false)).map((s) => s.reason),
    schools,
    nearLimit: verdict === 'leave' && (near >= 2 || schools.some((s) => s.school === 'depth' && s.near)),
    leastCutterMm,
    cutterMm,
    bushOutsideMm,
    drilledMm: pivotMm - rules.drillUnderMm,
    finishedHoleMm: finishedHole,
    wallMm: bushOutsideMm === null ? null : (bushOutsideMm - finishedHole) / 2,
    lengthMm: hole.plateMm,
  }
}

function smallestAtLeast(sizes: number[], least: number): number | null {
  // A micrometre of grace: sizes are typed as decimals and compared as binary fractions.
  const fitting = sizes.filter((size) => size >= least - 1e-6)
  return fitting.length === 0 ? null : Math.min(...fitting)
}
