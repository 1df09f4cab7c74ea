import { FieldError, requireWithin } from '../check/require.ts'
import { centreDistanceOf, moduleOf } from './afterWear.ts'

export interface DepthSetting {
  moduleMm: number
  centreDistanceMm: number
  /** pitch diameters */
  wheelPitchMm: number
  pinionPitchMm: number
  /** what a caliper shows across two runners of the depthing tool: the centre distance and one runner */
  acrossRunnersMm: number
}

/**
 * What a depthing tool is set to for a wheel and a pinion, mm, from their module or from how far apart they run.
 *
 * Pitch diameters are module × teeth; the pitch circles touch, so C = m·(N + n)/2. Both runners are of one thickness: a
 * caliper closed on their outsides shows C and half a runner on either side.
 *
 * @param given - one of moduleMm and centreDistanceMm, mm, above 0
 * @param runnerMm - a runner, across, 0 to 50 mm
 * @throws FieldError where both or neither is given, or a figure can't be
 * @example depthTool(64, 8, { moduleMm: 0.5 }, 6).acrossRunnersMm // 24
 */
export function depthTool(
  wheelTeeth: number,
  pinionLeaves: number,
  given: { moduleMm?: number | null; centreDistanceMm?: number | null },
  runnerMm = 0,
): DepthSetting {
  const { moduleMm: m, centreDistanceMm: c } = given
  requireWithin('runnerMm', runnerMm, 0, 50)
  if (m == null && c == null) throw new FieldError('moduleMm', m, 'give it, or centreDistanceMm')
  if (m != null && c != null) throw new FieldError('centreDistanceMm', c, 'give this or moduleMm, not both')
  const centreDistanceMm = c ?? centreDistanceOf(wheelTeeth, pinionLeaves, m ?? 0)
  const moduleMm = m ?? moduleOf(wheelTeeth, pinionLeaves, centreDistanceMm)
  return {
    moduleMm,
    centreDistanceMm,
    wheelPitchMm: moduleMm * wheelTeeth,
    pinionPitchMm: moduleMm * pinionLeaves,
    acrossRunnersMm: centreDistanceMm + runnerMm,
  }
}

/** How high the tips of clock teeth stand over the pitch circle, modules: half of what makes a wheel N + 2.7 across. */
export const WHEEL_ADDENDUM = 1.35

/**
 * How far a pinion’s axis stands from the tips of a contrate or crown wheel’s teeth, mm: half its pitch diameter, less
 * what the teeth rise over their pitch plane. About right; the feel of the transfer decides.
 */
export function contrateDepthMm(pinionLeaves: number, moduleMm: number): number {
  return (pinionLeaves * moduleMm) / 2 - WHEEL_ADDENDUM * moduleMm
}

export const FEELS = ['too shallow', 'click', 'smooth', 'butts', 'too deep'] as const
/** how the transfer feels at one setting of the tool, from far apart to near */
export type Feel = (typeof FEELS)[number]

export interface DepthTrial {
  acrossMm: number
  feel: Feel | ''
}

/** Least and greatest setting that felt smooth, and the middle of them to begin with; null: none did. */
export function smoothRange(trials: DepthTrial[]): { fromMm: number; toMm: number; bestMm: number } | null {
  const smooth = trials.filter((t) => t.feel === 'smooth').map((t) => t.acrossMm)
  if (smooth.length === 0) return null
  const [fromMm, toMm] = [Math.min(...smooth), Math.max(...smooth)]
  return { fromMm, toMm, bestMm: (fromMm + toMm) / 2 }
}

/** Five settings to try about the reckoned one, mm across the runners, from far to near: steps of 4 % of a module. */
export function settingsToTry(setting: Pick<DepthSetting, 'acrossRunnersMm' | 'moduleMm'>): number[] {
  const stepMm = 0.04 * setting.moduleMm
  return [2, 1, 0, -1, -2].map((k) => setting.acrossRunnersMm + k * stepMm)
}
