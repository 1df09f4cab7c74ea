import { nth } from '../check/nth.ts'
import { FieldError } from '../check/require.ts'
import { finishedHoleMm } from './finishedHole.ts'
import { checkHoleForBush, checkStock, misfitOf, type HoleForBush, type StockBush } from './fromStock.ts'
import { DEFAULT_BUSHING_RULES, type BushingRules } from './schools.ts'

export interface NamedHole extends HoleForBush {
  name: string
}

export interface Assignment {
  /** each hole’s bush, by id; null: none is left that fits */
  assigned: Record<string, string | null>
  missing: string[]
  /** all that is to be broached, mm on the diameter */
  broachMm: number
}

/**
 * A bush for every hole of a plan at once: the fewest holes without one, then the least to broach in all.
 *
 * A flow of least cost from holes to bushes, one more hole at a time along the cheapest way that may move bushes already
 * given (successive shortest paths). Costs are whole nanometres, so that sums compare exactly.
 *
 * @throws FieldError for figures that can't be, or a hole named twice
 */
export function assignBushes(
  holes: NamedHole[],
  stock: StockBush[],
  rules: BushingRules = DEFAULT_BUSHING_RULES,
): Assignment {
  holes.forEach((hole, i) => {
    checkHoleForBush(hole, rules, `holes[${i}]`)
    if (holes.findIndex((h) => h.name === hole.name) !== i)
      throw new FieldError(`holes[${i}].name`, hole.name, 'each hole needs a name of its own')
  })
  checkStock(stock)
  const costs = holes.map((hole) => {
    const wanted = finishedHoleMm(hole.finishedPivotMm, hole.role, rules)
    return stock.map((bush) =>
      misfitOf(hole, bush, wanted, rules) === null ? Math.max(0, Math.round((wanted - bush.insideMm) * 1e6)) : null,
    )
  })
  const given = cheapest(
    costs,
    stock.map((b) => b.count),
  )
  const assigned = Object.fromEntries(holes.map((h, i) => [h.name, stock[given[i] ?? -1]?.id ?? null]))
  return {
    assigned,
    missing: holes.filter((_, i) => given[i] === null).map((h) => h.name),
    broachMm: given.reduce<number>((sum, s, i) => sum + (s === null ? 0 : (costs[i]?.[s] ?? 0)), 0) / 1e6,
  }
}

/** For each row the column it is given, or null; `left` says how often a column may be given. */
function cheapest(costs: (number | null)[][], left: number[]): (number | null)[] {
  const given: (number | null)[] = costs.map(() => null)
  const free = [...left]
  for (;;) {
    const way = cheapestWay(costs, given, free)
    if (!way) return given
    free[way.end] = (free[way.end] ?? 0) - 1
    for (const [row, column] of way.moves) given[row] = column
  }
}

/**
 * The cheapest way to give one more row a column, moving others on where need be, to where one is free; by Bellman and
 * Ford, since taking a column back has a cost below 0. Every row without a column may be its start: which of two rows
 * goes without is part of the choice.
 */
function cheapestWay(
  costs: (number | null)[][],
  given: (number | null)[],
  free: number[],
): { end: number; moves: [row: number, column: number][] } | null {
  const dist = free.map(() => Infinity)
  const from = free.map(() => -1)
  const rowCost = given.map((column) => (column === null ? 0 : Infinity))
  const holders = free.map((): number[] => [])
  given.forEach((column, row) => column !== null && holders[column]?.push(row))
  let rows = given.flatMap((column, row) => (column === null ? [row] : []))
  while (rows.length > 0) {
    const better = new Set<number>()
    for (const row of rows) {
      const price = nth(rowCost, row)
      costs[row]?.forEach((cost, column) => {
        if (cost === null || column === given[row] || price + cost >= nth(dist, column)) return
        dist[column] = price + cost
        from[column] = row
        for (const holder of nth(holders, column)) {
          const back = price + cost - (costs[holder]?.[column] as number)
          if (back >= nth(rowCost, holder)) continue
          rowCost[holder] = back
          better.add(holder)
        }
      })
    }
    rows = [...better]
  }
  const reached = free.flatMap((count, column) => (count > 0 && Number.isFinite(dist[column]) ? [column] : []))
  const end = reached.reduce<number | null>(
    (best, c) => (best === null || nth(dist, c) < nth(dist, best) ? c : best),
    null,
  )
  if (end === null) return null
  const moves: [number, number][] = []
  for (let column: number | null = end; column !== null;) {
    const row: number = nth(from, column)
    moves.push([row, column])
    column = given[row] ?? null
  }
  return { end, moves }
}
