import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { pendulumDecay, type ArcReading, type Decay } from '../pendulum/decay.ts'
import { drivePerBeat } from './perBeat.ts'

/** What drives a clock: a weight that falls, or a spring's torque at the great wheel, over some hours. */
export type Drive =
  | { by: 'weight'; weightKg: number; fallMm: number; hours: number }
  | { by: 'spring'; torqueNmm: number; turns: number; hours: number }

/** Where the power goes: what a beat is given, what the pendulum takes of it, and what stays in the train. */
export interface PowerGoes {
  decay: Decay
  /** null: what drives it is not known */
  givenMicroJ: number | null
  trainMicroJ: number | null
  /** of what is given that reaches the pendulum, 0 to 100; over 100: a figure is wrong */
  efficiencyPercent: number | null
  /** by the run-down alone; weight and fall are taken as measured */
  efficiencyStandardError: number | null
}

/** What a beat is given, µJ. */
export function givenPerBeat(drive: Drive, beatsPerHour: number): number {
  if (drive.by === 'weight') return drivePerBeat(drive.weightKg, drive.fallMm, drive.hours, beatsPerHour).microJPerBeat
  requirePositive('torqueNmm', drive.torqueNmm)
  requirePositive('turns', drive.turns)
  requirePositive('hours', drive.hours)
  requireWithin('beatsPerHour', beatsPerHour, 600, 40_000)
  // N·mm over a turn is a thousandth of a joule for each 2π.
  return (drive.torqueNmm * 2 * Math.PI * drive.turns * 1000) / (drive.hours * beatsPerHour)
}

/**
 * Where the power of a clock goes, from its pendulum's run-down and what drives it.
 *
 * @param readings - arcs of the free pendulum, the crutch off; 2 to 1000
 * @param pendulum - of the whole pendulum: length to the centre of oscillation, mass, depth of the centre of gravity
 * @param semiArcDeg - at which the clock goes
 * @throws FieldError naming the figure
 */
export function whereItGoes(
  readings: ArcReading[],
  pendulum: { lengthMm: number; massG: number; cgMm: number },
  semiArcDeg: number,
  beatsPerHour: number,
  drive: Drive | null,
): PowerGoes {
  const decay = pendulumDecay(readings, pendulum.lengthMm, pendulum.massG, pendulum.cgMm, semiArcDeg)
  if (drive === null)
    return { decay, givenMicroJ: null, trainMicroJ: null, efficiencyPercent: null, efficiencyStandardError: null }
  const givenMicroJ = givenPerBeat(drive, beatsPerHour)
  const efficiencyPercent = (100 * decay.lossPerBeatMicroJ) / givenMicroJ
  return {
    decay,
    givenMicroJ,
    trainMicroJ: givenMicroJ - decay.lossPerBeatMicroJ,
    efficiencyPercent,
    efficiencyStandardError: efficiencyPercent * (decay.qualityStandardError / decay.quality),
  }
}

/** Compares two run-downs by what the train passes on; ± both errors. */
export function efficiencyGained(
  before: PowerGoes,
  after: PowerGoes,
): { percentPoints: number; standardError: number; isTold: boolean } | null {
  if (before.efficiencyPercent === null || after.efficiencyPercent === null) return null
  const percentPoints = after.efficiencyPercent - before.efficiencyPercent
  const standardError = Math.hypot(before.efficiencyStandardError!, after.efficiencyStandardError!)
  return { percentPoints, standardError, isTold: Math.abs(percentPoints) > 2 * standardError }
}

/**
 * The arcs at which to note the time as a pendulum runs down: from a first one down in even steps to about half, where
 * the fall tells most of what it loses by.
 *
 * @param fromDeg - the first arc that is noted
 * @param count - how many, 3 to 20
 */
export function runDownMarks(fromDeg: number, count = 6): number[] {
  requirePositive('fromDeg', fromDeg)
  if (count < 3 || count > 20) throw new FieldError('count', count, 'it must be from 3 to 20')
  const step = roundStep((fromDeg * 0.55) / (count - 1))
  const first = Math.round(fromDeg / step) * step
  return Array.from({ length: count }, (_, i) => Math.round((first - i * step) * 1000) / 1000).filter((a) => a > 0)
}

/** A step that a scale has: 1, 2, 5 or 10 of a power of ten. */
function roundStep(step: number): number {
  const power = 10 ** Math.floor(Math.log10(step))
  const digits = step / power
  return power * (digits < 1.5 ? 1 : digits < 3.5 ? 2 : digits < 7.5 ? 5 : 10)
}
