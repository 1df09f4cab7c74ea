import { FieldError, requirePositive } from '../check/require.ts'
import { fillPercent, inBarrel, strongerPercent, type Barrel, type Strip } from './strip.ts'

export interface SpringComparison {
  /** fitted against old at the same turns, %: 0 alike, above 0 stronger */
  torquePercent: number
  /** the same, both fully wound and set; null where the fitted one does not go in */
  woundTorquePercent: number | null
  oldTurns: number
  fittedTurns: number | null
  /** of the barrel’s free area that the fitted one takes, % */
  fillPercent: number
  verdict: 'alike' | 'too strong' | 'too weak' | 'does not fit'
  reasons: string[]
}

/** A replacement stronger than the first wears a movement out, one weaker than the second may not carry it: %. */
export const SPRING_LIMITS = { strongerPercent: 10, weakerPercent: 15 }
/** Rounding, so that a spring just at a limit is within it. */
const GRACE = 1e-9

/**
 * A spring that is to be fitted against the one that was there: strength, turns, and whether it goes into the barrel.
 *
 * @throws FieldError where the old spring can’t have been in this barrel, or a figure can’t be
 */
export function compareMainsprings(barrel: Barrel, old: Strip, fitted: Strip): SpringComparison {
  checkStrip('old', old)
  checkStrip('fitted', fitted)
  const was = inBarrel(old, barrel)
  if (was instanceof FieldError) throw ofOld(was)
  const now = inBarrel(fitted, barrel)
  const torquePercent = strongerPercent(fitted, old)
  const goesIn = !(now instanceof FieldError)
  const woundTorquePercent = goesIn ? 100 * (now.torqueWoundNmm / was.torqueWoundNmm - 1) : null
  return {
    torquePercent,
    woundTorquePercent,
    oldTurns: was.turnsAvailable,
    fittedTurns: goesIn ? now.turnsAvailable : null,
    fillPercent: fillPercent(fitted, barrel),
    verdict: goesIn ? verdictOn(torquePercent) : 'does not fit',
    reasons: [
      ...(goesIn ? [] : [`It does not go into the barrel: ${now.allowed}.`]),
      ...strengthWords(torquePercent),
      ...(woundTorquePercent !== null && Math.abs(woundTorquePercent) >= 1
        ? [`Fully wound and set it pulls ${percent(woundTorquePercent)}.`]
        : []),
      ...(goesIn && now.turnsAvailable < 0.9 * was.turnsAvailable
        ? [
            `It has ${now.turnsAvailable.toFixed(1)} turns, the old one ${was.turnsAvailable.toFixed(1)}: it runs shorter.`,
          ]
        : []),
    ],
  }
}

function verdictOn(torquePercent: number): 'alike' | 'too strong' | 'too weak' {
  if (torquePercent > SPRING_LIMITS.strongerPercent + GRACE) return 'too strong'
  return torquePercent < -SPRING_LIMITS.weakerPercent - GRACE ? 'too weak' : 'alike'
}

function strengthWords(torquePercent: number): string[] {
  switch (verdictOn(torquePercent)) {
    case 'too strong':
      return [
        `Turn for turn it is ${percent(torquePercent)}: it would wear teeth, pivots and pallets faster, and swing the pendulum wide.`,
      ]
    case 'too weak':
      return [`Turn for turn it is ${percent(torquePercent)}: the clock may stop before it is run down.`]
    case 'alike':
      return [
        `Turn for turn it is ${Math.abs(torquePercent) < 0.5 ? 'as strong as the old one' : percent(torquePercent)}.`,
      ]
  }
}

/** "12 % stronger" */
function percent(by: number): string {
  return `${Math.abs(by).toFixed(0)} % ${by >= 0 ? 'stronger' : 'weaker'}`
}

/** A refusal of the barrel’s own figures is theirs; of the strip’s, the old one’s. */
export function ofOld(refused: FieldError): FieldError {
  const strips = ['widthMm', 'thicknessMm', 'lengthMm']
  return strips.includes(refused.field)
    ? new FieldError(`old.${refused.field}`, refused.value, refused.allowed)
    : refused
}

/** @throws FieldError naming the strip’s figure that can’t be */
export function checkStrip(name: string, strip: Strip): void {
  for (const key of ['widthMm', 'thicknessMm', 'lengthMm'] as const) requirePositive(`${name}.${key}`, strip[key])
}
