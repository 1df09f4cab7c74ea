import type { DryStanding } from '../job/dryRuns.ts'
import { SCOPE_TITLES, type ScopeKind } from '../job/scope.ts'
import type { JobTrial } from '../trial/ofJob.ts'

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
export const GATE_NAMES = [
  'power',
  'pivots',
  'holes',
  'dry',
  'oil',
  'beat',
  'rate',
  'trial',
  'estimate',
  'parts',
] as const
export type GateName = (typeof GATE_NAMES)[number]

export const GATE_TITLES: Record<GateName, string> = {
  power: 'All power was confirmed off before the plates were parted',
  pivots: 'Every pivot was looked at, and finished before its bush was sized',
  holes: 'Every hole was judged, and its verdict carried out',
  dry: 'It ran dry, on little power, before it was oiled',
  oil: 'It is oiled where it must be, and dry where it must be',
  beat: 'It is in beat',
  rate: 'Its rate is known and within what this clock should keep',
  trial: 'It has passed its trial since the last change',
  estimate: 'The owner has agreed to what it costs',
  parts: 'All that came with it, and all that came out of it, is here',
}

/** What is known of a job, as far as the gates ask. Times in seconds. */
export interface GateFacts {
  trains: { train: string; powerOff: boolean }[]
  parted: boolean
  /** what this visit is for, and why */
  scope: { kind: ScopeKind; reason: string }
  holes: { verdict: 'bush' | 'leave' | null; bushed: boolean }[]
  /** holes that the movement has and nobody has judged or looked at, by name */
  holesNotLooked: string[]
  /** pivots looked at and not finished; holes that were cut before theirs was; those nobody has looked at; by name */
  pivots: { unfinished: string[]; sizedBefore: string[]; notLooked: string[] }
  /** trains of which no arbor is known, so that nobody can say what was left out */
  unknownTrains: string[]
  /** how its trains ran dry, on little power; and when it was last oiled, s; null: not on this visit */
  dry: DryStanding
  oiledAtS: number | null
  /** points of its oil sheet, once it is begun, that are neither ticked off nor left out, by name */
  oilOpen: string[]
  /** the last estimate, where the owner has not agreed to it: what stands against it, in a sentence; null: nothing */
  notAgreed: string | null
  /** lost or broken in our hands, and the owner not told */
  untold: string[]
  beat: { splitGrade: 'sound' | 'watch' | 'must'; atS: number } | null
  /** it ticks once a period: `beat` is what was seen, not heard */
  beatByEye?: boolean
  /** the last change that asks for a new listening, s; null when there was none */
  lastBeatChangeS: number | null
  rate: { secondsPerDay: number | null; standardError: number | null; toleranceSecondsPerDay: number }
  /** how its trial stands; null: not begun */
  trial: JobTrial | null
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
  /** this job has no need of it, and why; it then says nothing of the clock */
  notNeeded: string | null
  overriddenBecause: string | null
}

const DAY_S = 86_400

/** The state of every gate of a job, each with its reason in a sentence. */
export function gatesOf(facts: GateFacts): Gate[] {
  const judged: Record<GateName, { passed: boolean; reason: string }> = {
    power: power(facts),
    pivots: pivots(facts),
    holes: holes(facts),
    dry: dry(facts),
    oil: oil(facts),
    beat: beat(facts),
    rate: rate(facts),
    trial: trial(facts),
    estimate: estimate(facts),
    parts: parts(facts),
  }
  return GATE_NAMES.map((name) => ({
    name,
    title: GATE_TITLES[name],
    ...judged[name],
    notNeeded: judged[name].passed ? null : notNeeded(name, facts),
    overriddenBecause: judged[name].passed ? null : (facts.overridden[name] ?? null),
  }))
}

/** Which gates a visit of each kind has no need of, as long as the plates are together. */
const WITHOUT: Record<ScopeKind, GateName[]> = {
  whole: [],
  'one-train': [],
  'in-place': ['pivots', 'holes', 'dry'],
  untouched: ['pivots', 'holes', 'dry', 'oil', 'beat', 'rate', 'trial', 'estimate'],
}

/** Why this job has no need of a gate; what was said of it holds only while its plates were not parted. */
function notNeeded(name: GateName, { scope, parted }: GateFacts): string | null {
  if (parted || !WITHOUT[scope.kind].includes(name)) return null
  return `${SCOPE_TITLES[scope.kind]}: ${scope.reason}`
}

/** Whether a gate keeps a job from being closed. */
export function isHeld(gate: Gate): boolean {
  return !gate.passed && gate.overriddenBecause === null && gate.notNeeded === null
}

/** Whether a job may be closed: every gate passed, not needed, or overridden with a reason. */
export function mayClose(gates: Gate[]): boolean {
  return !gates.some(isHeld)
}

function power({ trains, parted }: GateFacts) {
  const wound = trains.filter((t) => !t.powerOff).map((t) => t.train)
  if (!parted && wound.length > 0) return { passed: true, reason: 'The plates were not parted.' }
  if (trains.length === 0) return { passed: !parted, reason: 'No train is named yet, so none is known to be off.' }
  return wound.length === 0
    ? { passed: true, reason: `Confirmed off: ${trains.map((t) => t.train).join(', ')}.` }
    : { passed: false, reason: `Not confirmed off: ${wound.join(', ')}. Treat each as wound until it is.` }
}

function pivots({ parted, unknownTrains, pivots: { unfinished, sizedBefore, notLooked } }: GateFacts) {
  if (sizedBefore.length > 0)
    return { passed: false, reason: `Cut before its pivot was finished: ${sizedBefore.slice(0, 3).join('; ')}.` }
  if (unfinished.length > 0)
    return {
      passed: false,
      reason: `${unfinished.length} ${unfinished.length === 1 ? 'pivot waits' : 'pivots wait'}: ${firstOf(unfinished)}.`,
    }
  if (!parted) return { passed: true, reason: 'The plates were not parted; no pivot was found wanting.' }
  if (unknownTrains.length > 0) return { passed: false, reason: notCounted(unknownTrains) }
  return notLooked.length > 0
    ? { passed: false, reason: `Nobody has looked at ${said(notLooked.length, 'pivot')}: ${firstOf(notLooked)}.` }
    : { passed: true, reason: 'Every pivot was looked at, and none waits.' }
}

function firstOf(names: string[]): string {
  const shown = names.slice(0, 3).join('; ')
  return names.length > 3 ? `${shown} and ${names.length - 3} more` : shown
}

function said(n: number, what: string): string {
  return n === 1 ? `1 ${what}` : `${n} ${what}s`
}

function notCounted(trains: string[]): string {
  return `No arbor of the ${trains.join(' and ')} train is written down, so nobody can tell what was left out.`
}

function holes({ holes: all, holesNotLooked, unknownTrains, parted }: GateFacts) {
  const open = all.filter((h) => h.verdict === null).length
  const unbushed = all.filter((h) => h.verdict === 'bush' && !h.bushed).length
  if (parted && unknownTrains.length > 0) return { passed: false, reason: notCounted(unknownTrains) }
  if (open > 0)
    return { passed: false, reason: `${open} of ${all.length} holes ${open === 1 ? 'is' : 'are'} not measured.` }
  if (unbushed > 0)
    return {
      passed: false,
      reason: `${unbushed} of ${all.length} holes ${unbushed === 1 ? 'waits' : 'wait'} for a bush.`,
    }
  if (!parted && all.length === 0) return { passed: true, reason: 'The plates were not parted; no hole was judged.' }
  if (parted && holesNotLooked.length > 0)
    return {
      passed: false,
      reason: `Nobody has looked at ${said(holesNotLooked.length, 'hole')}: ${firstOf(holesNotLooked)}.`,
    }
  return {
    passed: true,
    reason: `${all.length === 1 ? 'One hole is' : `${all.length} holes are`} judged and done${parted ? ', and the others were looked at' : ''}.`,
  }
}

function dry({ parted, dry: { open, tight, freeAtS }, oiledAtS }: GateFacts) {
  if (!parted) return { passed: true, reason: 'The plates were not parted.' }
  if (tight.length > 0) return { passed: false, reason: `Tight when it was run dry: the ${tight.join(' and ')} train.` }
  if (freeAtS === null)
    return {
      passed: false,
      reason:
        open.length === 0
          ? 'It has not run dry since it was assembled.'
          : `Not run dry and judged yet: the ${open.join(' and ')} train.`,
    }
  return oiledAtS !== null && oiledAtS < freeAtS
    ? { passed: false, reason: 'It was oiled before it ran dry: oil hides a tight train.' }
    : { passed: true, reason: 'Every train ran dry, on little power, and was judged free.' }
}

function oil({ parted, oiledAtS, oilOpen }: GateFacts) {
  if (parted && oilOpen.length > 0)
    return { passed: false, reason: `Not ticked off on its oil map: ${firstOf(oilOpen)}.` }
  if (oiledAtS !== null) return { passed: true, reason: 'It was oiled on this visit.' }
  return parted
    ? { passed: false, reason: 'Nothing says that it was oiled since it was apart.' }
    : { passed: true, reason: 'The plates were not parted, and it was not oiled.' }
}

function estimate({ notAgreed }: GateFacts) {
  return notAgreed === null
    ? { passed: true, reason: 'Nothing is written that the owner has not agreed to.' }
    : { passed: false, reason: notAgreed }
}

function beat({ beat: last, lastBeatChangeS, beatByEye = false }: GateFacts) {
  if (beatByEye) {
    if (!last)
      return {
        passed: false,
        reason:
          'It ticks once a period: by ear its beat can’t be told, and nobody has said that it is even to the eye.',
      }
    return lastBeatChangeS !== null && lastBeatChangeS > last.atS
      ? { passed: false, reason: 'Something was changed since its beat was last looked at.' }
      : { passed: true, reason: 'Its beat is even to the eye; by ear it can’t be told.' }
  }
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

function trial({ trial: at, nowS }: GateFacts) {
  if (at === null) return { passed: false, reason: 'Its trial has not begun.' }
  if (at.passed)
    return {
      passed: true,
      reason: `It has run ${Math.floor((nowS - at.countsFromS) / DAY_S)} days since the last change, and shown all it has to.`,
    }
  const day = at.day > at.days ? 'Its days are up' : `Day ${at.day} of ${at.days}`
  return { passed: false, reason: `${day}. Still wanted: ${at.wanted.join('; ')}.` }
}

function parts({ cameWith, leftOver, untold }: GateFacts) {
  if (untold.length > 0)
    return { passed: false, reason: `Lost or broken in our hands, and the owner not told: ${untold.join(', ')}.` }
  const missing = cameWith.filter((p) => p.state !== 'missing' && !p.returned).map((p) => p.name)
  if (leftOver.length > 0)
    return { passed: false, reason: `Left over from taking it apart: ${leftOver.slice(0, 5).join(', ')}.` }
  return missing.length === 0
    ? { passed: true, reason: 'Everything that came with it is ticked off.' }
    : { passed: false, reason: `Not ticked off yet: ${missing.join(', ')}.` }
}
