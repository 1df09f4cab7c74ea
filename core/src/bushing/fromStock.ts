import { FieldError, requireCount, requirePositive } from '../check/require.ts'
import { finishedHoleMm } from './finishedHole.ts'
import { DEFAULT_BUSHING_RULES, type ArborRole, type BushingRules } from './schools.ts'

/** A bush of the drawers: outside × inside × length, mm, and how many there are. */
export interface StockBush {
  id: string
  outsideMm: number
  insideMm: number
  lengthMm: number
  count: number
}

/** A hole that waits for its bush, mm. */
export interface HoleForBush {
  finishedPivotMm: number
  cutterMm: number
  plateMm: number
  role?: ArborRole | undefined
}

export interface FromStock {
  choice: string | null
  /** ids, best first: least to broach, then least to face off, then the press fit nearest the workshop’s */
  fits: string[]
  whyNot: { id: string; why: string }[]
}

/** How much larger than its cutter a bush must be: from, to, mm. */
export const PRESS_FIT_MM = [0.01, 0.05] as const
const GRACE = 1e-9

/**
 * The bush of the stock for one hole, and why each other one does not fit.
 *
 * A bush fits when its outside is the cutter’s size plus 0.01 to 0.05 mm, its inside no larger than the finished hole,
 * its length at least the plate, its wall about the finished hole at least the workshop's, and one is left.
 *
 * @throws FieldError for figures that can't be, or a pivot that leaves no wall in the cutter’s hole
 */
export function bushFromStock(
  hole: HoleForBush,
  stock: StockBush[],
  rules: BushingRules = DEFAULT_BUSHING_RULES,
): FromStock {
  checkHoleForBush(hole, rules)
  checkStock(stock)
  const whyNot = stock.flatMap((bush) => {
    const why = whyItDoesNotFit(hole, bush, rules)
    return why === null ? [] : [{ id: bush.id, why }]
  })
  const wanted = finishedHoleMm(hole.finishedPivotMm, hole.role, rules)
  const out = (b: StockBush) => Math.abs(b.outsideMm - hole.cutterMm - rules.pressFitMm)
  const fits = stock
    .filter((bush) => !whyNot.some((w) => w.id === bush.id))
    .sort(
      (a, b) =>
        tell(wanted - a.insideMm, wanted - b.insideMm) || tell(a.lengthMm, b.lengthMm) || tell(out(a), out(b)) || 0,
    )
    .map((b) => b.id)
  return { choice: fits[0] ?? null, fits, whyNot }
}

type Misfit = 'falls through' | 'too loose' | 'too tight' | 'too wide' | 'thin wall' | 'too short' | 'none left'

/** What keeps a bush from a hole whose finished size, mm, is wanted; null: nothing. */
export function misfitOf(hole: HoleForBush, bush: StockBush, wantedMm: number, rules: BushingRules): Misfit | null {
  const over = bush.outsideMm - hole.cutterMm
  const [least, most] = PRESS_FIT_MM
  if (over < least - GRACE) return over <= 0 ? 'falls through' : 'too loose'
  if (over > most + GRACE) return 'too tight'
  if (bush.insideMm > wantedMm + GRACE) return 'too wide'
  if ((bush.outsideMm - wantedMm) / 2 < rules.wallMm - GRACE) return 'thin wall'
  if (bush.lengthMm < hole.plateMm - GRACE) return 'too short'
  return bush.count < 1 ? 'none left' : null
}

/** Why a bush does not fit a hole, in a sentence; null: it does. */
export function whyItDoesNotFit(hole: HoleForBush, bush: StockBush, rules: BushingRules): string | null {
  const wantedMm = finishedHoleMm(hole.finishedPivotMm, hole.role, rules)
  const misfit = misfitOf(hole, bush, wantedMm, rules)
  const { outsideMm, insideMm, lengthMm } = bush
  const over = outsideMm - hole.cutterMm
  switch (misfit) {
    case null:
      return null
    case 'falls through':
      return `Its outside, ${outsideMm} mm, falls through the ${hole.cutterMm} mm cutter’s hole.`
    case 'too loose':
      return `Its outside, ${outsideMm} mm, is only ${over.toFixed(3)} above the cutter: too loose.`
    case 'too tight':
      return `Its outside, ${outsideMm} mm, is ${over.toFixed(2)} above the cutter: too tight to press.`
    case 'too wide':
      return `Its inside, ${insideMm} mm, is larger than the finished hole of ${wantedMm.toFixed(2)}.`
    case 'thin wall':
      return `It would leave ${((outsideMm - wantedMm) / 2).toFixed(2)} mm of wall about the finished hole; ${rules.wallMm} is the least.`
    case 'too short':
      return `It is ${lengthMm} mm long; the plate is ${hole.plateMm} there.`
    case 'none left':
      return 'None is left.'
  }
}

/** @throws FieldError for a hole no bush can go in */
export function checkHoleForBush(hole: HoleForBush, rules: BushingRules, field = ''): void {
  const at = field === '' ? '' : `${field}.`
  requirePositive(`${at}finishedPivotMm`, hole.finishedPivotMm)
  requirePositive(`${at}cutterMm`, hole.cutterMm)
  requirePositive(`${at}plateMm`, hole.plateMm)
  const wanted = finishedHoleMm(hole.finishedPivotMm, hole.role, rules)
  if (hole.cutterMm <= wanted)
    throw new FieldError(
      `${at}cutterMm`,
      hole.cutterMm,
      `a pivot of ${hole.finishedPivotMm} mm wants a hole of ${wanted.toFixed(2)}, which leaves no wall in this cutter’s hole`,
    )
}

/** @throws FieldError for a bush that can't be, or an id given twice */
export function checkStock(stock: StockBush[]): void {
  const ids = new Set<string>()
  stock.forEach((bush, i) => {
    checkBush(`stock[${i}]`, bush)
    if (ids.has(bush.id)) throw new FieldError(`stock[${i}].id`, bush.id, 'each bush needs an id of its own')
    ids.add(bush.id)
  })
}

function checkBush(field: string, bush: StockBush): void {
  requirePositive(`${field}.outsideMm`, bush.outsideMm)
  requirePositive(`${field}.insideMm`, bush.insideMm)
  requirePositive(`${field}.lengthMm`, bush.lengthMm)
  requireCount(`${field}.count`, bush.count, 0, 1_000_000)
  if (bush.insideMm >= bush.outsideMm)
    throw new FieldError(`${field}.insideMm`, bush.insideMm, `it must be below outsideMm (${bush.outsideMm})`)
}

function tell(a: number, b: number): number {
  return Math.abs(a - b) < GRACE ? 0 : a - b
}
