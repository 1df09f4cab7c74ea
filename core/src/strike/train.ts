import { FieldError, requireCount, requireWithin } from '../check/require.ts'
import { strikeBlows, type Halves } from './blows.ts'

export interface StrikeTrainInput {
  /** teeth of the wheels, from the great wheel up */
  wheels: number[]
  /** leaves of the pinions that they drive: the first is the second arbor’s */
  pinions: number[]
  /** the arbor whose pins lift the hammer (0 = great), and how many pins it has */
  pinWheel: { arbor: number; pins: number }
  /** the arbor that is stopped at the end of a blow */
  lockingArbor: number
  halves?: Halves | undefined
  /** turns of the great wheel at one winding */
  turnsOfGreat?: number | undefined
}

export interface StrikeTrain {
  /** of each arbor, from the great one */
  turnsPerBlow: number[]
  /** the locking arbor turns a whole number of times a blow */
  locksRight: boolean
  /** days of striking at one winding; null where the turns or what it strikes at the half are not given */
  days: number | null
  faults: string[]
}

/** Turns at a blow as a fraction in whole numbers, however large: nothing is rounded. */
interface Fraction {
  over: bigint
  under: bigint
}

/**
 * Turns of every arbor at a blow, whether the train locks at the end of each, and the days of a winding.
 *
 * The pin wheel turns 1/pins at a blow; each arbor above it turns wheel/pinion times as far, each below pinion/wheel times.
 * Reckoned in whole numbers. Source: the counts alone.
 *
 * @throws FieldError naming the count that can’t be
 */
export function strikeTrain({
  wheels,
  pinions,
  pinWheel,
  lockingArbor,
  halves,
  turnsOfGreat,
}: StrikeTrainInput): StrikeTrain {
  if (wheels.length < 1 || wheels.length > 8) throw new FieldError('wheels', wheels.length, 'give 1 to 8 wheels')
  if (pinions.length !== wheels.length)
    throw new FieldError('pinions', pinions.length, `give one for each wheel, ${wheels.length}`)
  wheels.forEach((n, i) => requireCount(`wheels[${i}]`, n, 3, 1000))
  pinions.forEach((n, i) => requireCount(`pinions[${i}]`, n, 2, 100))
  const last = wheels.length
  requireCount('pinWheel.arbor', pinWheel.arbor, 0, last)
  requireCount('pinWheel.pins', pinWheel.pins, 1, 200)
  requireCount('lockingArbor', lockingArbor, 0, last)
  if (turnsOfGreat !== undefined) requireWithin('turnsOfGreat', turnsOfGreat, 0.01, 1000)

  const turns: Fraction[] = []
  turns[pinWheel.arbor] = { over: 1n, under: BigInt(pinWheel.pins) }
  for (let i = pinWheel.arbor; i < last; i++) turns[i + 1] = times(turns[i], wheels[i], pinions[i])
  for (let i = pinWheel.arbor; i > 0; i--) turns[i - 1] = times(turns[i], pinions[i - 1], wheels[i - 1])

  const turnsPerBlow = turns.map(turnsOf)
  const locking = turns[lockingArbor] as Fraction
  const locksRight = locking.over % locking.under === 0n
  const great = turns[0] as Fraction
  const days =
    turnsOfGreat === undefined || halves === undefined ? null : turnsOfGreat / turnsOf(great) / strikeBlows(halves).aDay
  return { turnsPerBlow, locksRight, days, faults: faultsOf(locking, lockingArbor, days) }
}

function times(turns: Fraction | undefined, up: number | undefined, down: number | undefined): Fraction {
  if (!turns || !up || !down) throw new RangeError('An arbor of the strike is not counted.')
  const over = turns.over * BigInt(up)
  const under = turns.under * BigInt(down)
  const most = common(over, under)
  return { over: over / most, under: under / most }
}

function common(a: bigint, b: bigint): bigint {
  return b === 0n ? a : common(b, a % b)
}

function turnsOf({ over, under }: Fraction): number {
  return Number(over) / Number(under)
}

function faultsOf({ over, under }: Fraction, arbor: number, days: number | null): string[] {
  const out: string[] = []
  if (over % under !== 0n)
    out.push(
      `Arbor ${arbor} turns ${over}/${under} at a blow: it stands at its lock again only after ${under} blows. A count, the pins or the locking arbor is wrong.`,
    )
  if (days !== null && days < 1) out.push('It would strike for less than a day at a winding.')
  return out
}
