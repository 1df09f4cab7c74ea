/** Settings of the bushing schools; every default is a workshop rule of thumb. */
export interface BushingRules {
  /** school by play: play above this share of the pivot, per cent */
  playPercent: number
  /** the same for escape and pallet arbors */
  finePlayPercent: number
  /** school by ovalness: wear above this share of the pivot, per cent, or above ovalMm */
  ovalPercent: number
  ovalMm: number
  /** school by depth: shift along the line of centres above this share of the module, per cent */
  depthPercent: number
  /** which schools decide: any two (or depth alone), or one of them */
  rule: 'two-or-depth' | 'play' | 'oval' | 'depth'
  /** play to leave after bushing, per cent of the pivot */
  leavePlayPercent: number
  leaveFinePlayPercent: number
  leavePlayAtLeastMm: number
  /** how much larger the bush is than its cutter, mm */
  pressFitMm: number
  /** how much the cutter must exceed the file-back's reach, mm */
  cleanUpMm: number
  /** least wall of the bush, mm */
  wallMm: number
  /** how far under the pivot the bush is drilled, mm */
  drillUnderMm: number
}

export const DEFAULT_BUSHING_RULES: BushingRules = {
  playPercent: 10,
  finePlayPercent: 6,
  ovalPercent: 5,
  ovalMm: 0.05,
  depthPercent: 10,
  rule: 'two-or-depth',
  leavePlayPercent: 4,
  leaveFinePlayPercent: 3,
  leavePlayAtLeastMm: 0.02,
  pressFitMm: 0.02,
  cleanUpMm: 0.05,
  wallMm: 0.4,
  drillUnderMm: 0.07,
}

export type ArborRole = 'escape' | 'pallet' | 'other'

export interface SchoolVerdict {
  school: 'play' | 'oval' | 'depth'
  /** null: not known, for want of a measurement */
  over: boolean | null
  /** within a fifth below the limit */
  near: boolean
  reason: string
}

/** What the schools are asked about one hole; mm and per cent. */
export interface HoleWear {
  wearMm: number
  pivotMm: number
  playPercent: number
  role: ArborRole
  moduleMm?: number | undefined
  depthShiftMm?: number | undefined
}

/** The three schools' verdicts on one hole, each with its reason in plain words. */
export function schoolVerdicts(hole: HoleWear, rules: BushingRules): SchoolVerdict[] {
  return [byPlay(hole, rules), byOvalness(hole, rules), byDepth(hole, rules)]
}

/**
 * The workshop's verdict from the schools'.
 *
 * Default rule: bush when any two agree, or when the depth alone is exceeded.
 */
export function bushOrLeave(verdicts: SchoolVerdict[], rules: BushingRules): 'bush' | 'leave' {
  const over = (school: SchoolVerdict['school']) => verdicts.some((v) => v.school === school && v.over === true)
  if (rules.rule !== 'two-or-depth') return over(rules.rule) ? 'bush' : 'leave'
  return over('depth') || (over('play') && over('oval')) ? 'bush' : 'leave'
}

const NEAR = 0.8

function byPlay(hole: HoleWear, rules: BushingRules): SchoolVerdict {
  const fine = hole.role !== 'other'
  const limit = fine ? rules.finePlayPercent : rules.playPercent
  const { over, near } = against(hole.playPercent, limit)
  const arbor = fine ? `for ${hole.role === 'escape' ? 'an escape' : 'a pallet'} arbor` : 'here'
  return {
    school: 'play',
    over,
    near,
    reason: `Play is ${hole.playPercent.toFixed(0)} % of the pivot; ${arbor} ${limit} is the most.`,
  }
}

function byOvalness(hole: HoleWear, rules: BushingRules): SchoolVerdict {
  const limitMm = Math.min(rules.ovalMm, (rules.ovalPercent / 100) * hole.pivotMm)
  const { over, near } = against(hole.wearMm, limitMm)
  return {
    school: 'oval',
    over,
    near,
    reason: `Oval by ${hole.wearMm.toFixed(2)} mm; ${limitMm.toFixed(3).replace(/0$/, '')} is the most.`,
  }
}

function byDepth(hole: HoleWear, rules: BushingRules): SchoolVerdict {
  if (hole.moduleMm === undefined || hole.depthShiftMm === undefined)
    return {
      school: 'depth',
      over: null,
      near: false,
      reason: 'The depth is not judged: it needs the module and how far the centre moved along the line of centres.',
    }
  const percent = (100 * Math.abs(hole.depthShiftMm)) / hole.moduleMm
  const { over, near } = against(percent, rules.depthPercent)
  return {
    school: 'depth',
    over,
    near,
    reason: `The gearing has moved by ${percent.toFixed(0)} % of its module; ${rules.depthPercent} is the most.`,
  }
}

// A caliper reads to 0.01 mm at best, so a limit met to within rounding of binary fractions is not exceeded.
function against(value: number, limit: number): { over: boolean; near: boolean } {
  const over = value > limit * (1 + 1e-9)
  return { over, near: !over && value >= NEAR * limit }
}
