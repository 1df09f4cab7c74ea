/** The five bays and their fifteen stages, in the order of the work. */
export const BAYS = [
  { bay: 'arrive', title: 'Arrive', stages: ['receive', 'observe', 'estimate'] },
  { bay: 'strip', title: 'Strip', stages: ['make-safe', 'take-apart', 'clean'] },
  { bay: 'mend', title: 'Mend', stages: ['inspect', 'pivots', 'bushings', 'wheels', 'escapement'] },
  { bay: 'set', title: 'Set', stages: ['assemble', 'oil', 'beat', 'rate', 'trial'] },
  { bay: 'return', title: 'Return', stages: ['set-up', 'hand-over', 'care'] },
] as const

export type Bay = (typeof BAYS)[number]['bay']
export const BAY_NAMES: Bay[] = BAYS.map((b) => b.bay)

/** What the software insists on, unless a person overrides it in writing. */
export const GATE_NAMES = ['power', 'pivots', 'holes', 'beat', 'rate', 'trial', 'parts'] as const
export type GateName = (typeof GATE_NAMES)[number]

export const GATE_TITLES: Record<GateName, string> = {
  power: 'All power was confirmed off before the plates were parted',
  pivots: 'Pivots were finished before bushes were sized',
  holes: 'Every hole that was measured has its verdict carried out',
  beat: 'It is in beat',
  rate: 'Its rate is known and within what this clock should keep',
  trial: 'It has run its trial since the last change',
  parts: 'All that came with it, and all that came out of it, is here',
}

/** What is known of a job, as far as the gates ask. Times in seconds. */
export interface GateFacts {
  trains: { train: string; powerOff: boolean }[]
  parted: boolean
  holes: { verdict: 'bush' | 'leave' | null; bushed: boolean }[]
  /** pivots looked at and not finished; holes that were cut before theirs was; by name */
  pivots: { unfinished: string[]; sizedBefore: string[] }
  beat: { splitGrade: 'sound' | 'watch' | 'must'; atS: number } | null
  /** the last change that asks for a new listening, s; null when there was none */
  lastBeatChangeS: number | null
  rate: { secondsPerDay: number | null; standardError: number | null; toleranceSecondsPerDay: number }
  /** since when it has run without a change, s; null when it has not */
  trialFromS: number | null
  trialDays: number
  cameWith: { name: string; state: string; returned: boolean }[]
  /** what the strip log has out of the clock and not yet back in it */
  leftOver: string[]
  nowS: number
  overridden: Partial<Record<GateName, string>>
}

export interface Gate {
  name: GateName
  title: string
  passed: boolean
  /** why it holds, or what let it pass */
  reason: string
  overriddenBecause: string | null
}

const DAY_S = 86_400

/** The state of every gate of a job, each with its reason in a sentence. */
export function gatesOf(facts: GateFacts): Gate[] {
  const judged: Record<GateName, { passed: boolean; reason: string }> = {
    power: power(facts),
    pivots: pivots(facts),
    holes: holes(facts),
    beat: beat(facts),
    rate: rate(facts),
    trial: trial(facts),
    parts: parts(facts),
  }
  return GATE_NAMES.map((name) => ({
    name,
    title: GATE_TITLES[name],
    ...judged[name],
    overriddenBecause: judged[name].passed ? null : (facts.overridden[name] ?? null),
  }))
}

/** Whether a job may be closed: every gate passed or overridden with a reason. */
export function mayClose(gates: Gate[]): boolean {
  return gates.every((g) => g.passed || g.overriddenBecause !== null)
}

function power({ trains, parted }: GateFacts) {
  const wound = trains.filter((t) => !t.powerOff).map((t) => t.train)
  if (!parted && wound.length > 0) return { passed: true, reason: 'The plates were not parted.' }
  if (trains.length === 0) return { passed: !parted, reason: 'No train is named yet, so none is known to be off.' }
  return wound.length === 0
    ? { passed: true, reason: `Confirmed off: ${trains.map((t) => t.train).join(', ')}.` }
    : { passed: false, reason: `Not confirmed off: ${wound.join(', ')}. Treat each as wound until it is.` }
}

function pivots({ pivots: { unfinished, sizedBefore } }: GateFacts) {
  if (sizedBefore.length > 0)
    return { passed: false, reason: `Cut before its pivot was finished: ${sizedBefore.slice(0, 3).join('; ')}.` }
  return unfinished.length > 0
    ? {
        passed: false,
        reason: `${unfinished.length} ${unfinished.length === 1 ? 'pivot waits' : 'pivots wait'}: ${unfinished.slice(0, 3).join('; ')}.`,
      }
    : { passed: true, reason: 'No pivot waits to be finished.' }
}

function holes({ holes: all }: GateFacts) {
  const open = all.filter((h) => h.verdict === null).length
  const unbushed = all.filter((h) => h.verdict === 'bush' && !h.bushed).length
  if (open > 0)
    return { passed: false, reason: `${open} of ${all.length} holes ${open === 1 ? 'is' : 'are'} not measured.` }
  if (unbushed > 0)
    return {
      passed: false,
      reason: `${unbushed} of ${all.length} holes ${unbushed === 1 ? 'waits' : 'wait'} for a bush.`,
    }
  return {
    passed: true,
    reason: all.length === 0 ? 'No hole was put on the list.' : `All ${all.length} holes are judged and done.`,
  }
}

function beat({ beat: last, lastBeatChangeS }: GateFacts) {
  if (!last) return { passed: false, reason: 'It has not been listened to.' }
  if (lastBeatChangeS !== null && lastBeatChangeS > last.atS)
    return { passed: false, reason: 'Something was changed since it was last listened to.' }
  return last.splitGrade === 'must'
    ? { passed: false, reason: 'At the last listening it was out of beat by more than this workshop allows.' }
    : { passed: true, reason: 'At the last listening it was in beat.' }
}

function rate({ rate: { secondsPerDay, standardError, toleranceSecondsPerDay: limit } }: GateFacts) {
  if (secondsPerDay === null || standardError === null)
    return { passed: false, reason: 'Too few readings to tell its rate.' }
  const digits = standardError >= 3 ? 0 : standardError >= 0.3 ? 1 : 2
  const figure = `${Math.abs(secondsPerDay).toFixed(digits)} ± ${standardError.toFixed(digits)} s a day`
  if (Math.abs(secondsPerDay) > limit)
    return {
      passed: false,
      reason: `It ${secondsPerDay > 0 ? 'gains' : 'loses'} ${figure}; ${limit} is the most for this clock.`,
    }
  if (standardError > limit) return { passed: false, reason: `Its rate, ${figure}, is not known well enough yet.` }
  return { passed: true, reason: `It ${secondsPerDay >= 0 ? 'gains' : 'loses'} ${figure}.` }
}

function trial({ trialFromS, trialDays, nowS }: GateFacts) {
  if (trialFromS === null) return { passed: false, reason: 'Its trial has not begun.' }
  const days = (nowS - trialFromS) / DAY_S
  return days >= trialDays
    ? { passed: true, reason: `It has run ${Math.floor(days)} days since the last change.` }
    : { passed: false, reason: `Day ${Math.floor(days) + 1} of ${trialDays} since the last change.` }
}

function parts({ cameWith, leftOver }: GateFacts) {
  const missing = cameWith.filter((p) => p.state !== 'missing' && !p.returned).map((p) => p.name)
  if (leftOver.length > 0)
    return { passed: false, reason: `Left over from taking it apart: ${leftOver.slice(0, 5).join(', ')}.` }
  return missing.length === 0
    ? { passed: true, reason: 'Everything that came with it is ticked off.' }
    : { passed: false, reason: `Not ticked off yet: ${missing.join(', ')}.` }
}
