import {
  holesOfPlate,
  withFinishedPivot,
  type BushingRow,
  type Hole,
  type HoleJudged,
  type JobPage,
  type MovementTrain,
  type Settings,
  type StockRow,
} from '@treadle/contract'
import {
  assignBushes,
  backToDistance,
  bushingSteps,
  byWorkingOrder,
  centreDistanceOf,
  clearance,
  distanceMm,
  FieldError,
  markerPlace,
  turnedBush,
  type BushingStep,
  type Conflict,
  type HoleWork,
  type MarkerPlace,
  type TurnedBush,
} from '@treadle/core'

/** One hole of the plan with all that its work names. */
export interface PlannedHole {
  hole: Hole
  judged: HoleJudged
  row: BushingRow | undefined
  work: HoleWork
  steps: BushingStep[]
  marker: MarkerPlace | null
  /** the bush of the drawers that the plan gives it; null: to be turned */
  stockId: string | null
  turned: TurnedBush | null
  /** what a bush of this size leaves too little plate to */
  conflicts: Conflict[]
  /** its pivot is on record and not finished */
  pivotOpen: boolean
  pivotMm: number | null
}

export interface Plan {
  holes: PlannedHole[]
  /** cutters and how many holes each cuts */
  cutters: [mm: number, holes: number][]
  withoutCutter: PlannedHole[]
  /** near the limit and the movement open: proposed too */
  doItNow: { hole: Hole; judged: HoleJudged }[]
}

const MARKER_SPREAD_DEG = 60

/** All bushes of a movement as one plan, in the order of work, each given its bush so that none is promised twice. */
export function planOf(
  data: JobPage,
  trains: MovementTrain[],
  judge: (hole: Hole) => HoleJudged,
  settings: Settings,
  stock: StockRow[],
): Plan {
  const judged = [...data.holes].sort(byWorkingOrder).map((hole) => ({ hole, judged: judge(hole) }))
  const toBush = judged.filter(({ hole, judged: j }) => j.verdict === 'bush' || hole.bushed)
  const given = assigned(toBush, data, settings, stock)
  const holes = toBush.map(({ hole, judged: j }): PlannedHole => {
    const row = data.bushings.find((b) => b.holeId === hole.id)
    const pivot = data.pivots.find((p) => p.train === hole.train && p.arbor === hole.arbor && p.plate === hole.plate)
    const { pivotMm } = withFinishedPivot(hole, data.pivots)
    const stockId = row?.stockId ?? given[hole.id] ?? null
    const plan = j.plan
    const bush = stock.find((s) => s.id === stockId)
    const turned = plan?.bushOutsideMm != null ? turnedBush(plan.bushOutsideMm, plan.drilledMm, plan.lengthMm) : null
    const around = surroundings(data, hole, plan?.bushOutsideMm ?? null, settings.markerReachMm)
    const placed = data.plateMap?.arbors.find((a) => a.train === hole.train && a.name === hole.arbor)
    const wearMm = hole.longAxisMm !== null && hole.shortAxisMm !== null ? hole.longAxisMm - hole.shortAxisMm : 0
    const work: HoleWork = {
      plate: hole.plate,
      method: row?.method ?? settings.bushingMethod,
      old: row?.old ?? hole.old,
      spoilt: row?.spoilt ?? false,
      cock: placed?.cock === hole.plate,
      wearMm,
      wearDeg: hole.wearDeg,
      marker: around.marker && {
        reachMm: settings.markerReachMm,
        fromDeg: (around.marker.clockAngleDeg - MARKER_SPREAD_DEG / 2 + 360) % 360,
        toDeg: (around.marker.clockAngleDeg + MARKER_SPREAD_DEG / 2) % 360,
      },
      neighbours: around.neighbours,
      correction: correctionOf(trains, hole),
      cutterMm: row?.cutterMm ?? plan?.cutterMm ?? null,
      bush:
        bush?.outsideMm != null && bush.insideMm !== null && bush.lengthMm !== null
          ? { from: 'stock', outsideMm: bush.outsideMm, insideMm: bush.insideMm, lengthMm: bush.lengthMm }
          : turned && {
              from: 'turned',
              outsideMm: turned.outside.mm,
              insideMm: turned.bore.mm,
              lengthMm: turned.length.mm,
            },
      finishedMm: plan?.finishedHoleMm ?? hole.pivotMm ?? 0,
      plateMm: hole.plateMm ?? 0,
    }
    return {
      hole,
      judged: j,
      row,
      work,
      steps: bushingSteps(work),
      marker: around.marker,
      stockId: bush ? stockId : null,
      turned,
      conflicts: around.conflicts,
      pivotOpen: pivot !== undefined && pivot.finishedMm === null,
      pivotMm,
    }
  })
  const cutters = new Map<number, number>()
  for (const { work, hole } of holes)
    if (work.cutterMm !== null && !hole.bushed) cutters.set(work.cutterMm, (cutters.get(work.cutterMm) ?? 0) + 1)
  return {
    holes,
    cutters: [...cutters].sort(([a], [b]) => a - b),
    withoutCutter: holes.filter((h) => h.work.cutterMm === null && !h.hole.bushed),
    doItNow: judged.filter(({ hole, judged: j }) => j.verdict === 'leave' && j.nearLimit && !hole.bushed),
  }
}

/** Bushes of the drawers for all holes at once; what other jobs were promised is not there to give. */
function assigned(
  toBush: { hole: Hole; judged: HoleJudged }[],
  data: JobPage,
  settings: Settings,
  stock: StockRow[],
): Record<string, string | null> {
  const mine = (stockId: string) =>
    data.reservations.filter((r) => r.stockId === stockId && !r.taken).reduce((sum, r) => sum + r.count, 0)
  const bushes = stock.flatMap(({ id, kind, outsideMm, insideMm, lengthMm, count, reserved }) =>
    kind === 'bush' && outsideMm !== null && insideMm !== null && lengthMm !== null
      ? [{ id, outsideMm, insideMm, lengthMm, count: Math.max(0, count - reserved + mine(id)) }]
      : [],
  )
  const holes = toBush.flatMap(({ hole, judged: { plan } }) => {
    const settled = hole.bushed || data.bushings.some((b) => b.holeId === hole.id && b.stockId !== null)
    if (settled || plan?.cutterMm == null || hole.pivotMm === null || hole.plateMm === null) return []
    return [
      {
        name: hole.id,
        finishedPivotMm: withFinishedPivot(hole, data.pivots).pivotMm ?? hole.pivotMm,
        cutterMm: plan.cutterMm,
        plateMm: hole.plateMm,
        role: hole.role,
      },
    ]
  })
  try {
    return assignBushes(holes, bushes, settings.bushing).assigned
  } catch (error) {
    // A hole that no bush can go in is shown by its own plan; the drawers then give none.
    if (error instanceof FieldError) return {}
    throw error
  }
}

/** What stands about a hole on its plate: where the marker goes, the neighbours, what a bush comes too near to. */
function surroundings(data: JobPage, hole: Hole, bushMm: number | null, reachMm: number) {
  const nothing = { marker: null, neighbours: [], conflicts: [] }
  const map = data.plateMap
  const name = `${hole.train} ${hole.arbor}`
  if (!map) return nothing
  const across = (a: { train: string; name: string }) => {
    const there = data.holes.find((h) => h.train === a.train && h.arbor === a.name && h.plate === hole.plate)
    return there?.longAxisMm ?? there?.pivotMm ?? 1
  }
  const all = holesOfPlate(map, hole.plate, across)
  const here = all.find((h) => h.name === name)
  if (!here) return nothing
  const edge = map.edge.length >= 3 ? map.edge : undefined
  const marker = unlessRefused(() => markerPlace(all, name, reachMm, MARKER_SPREAD_DEG, edge))
  const neighbours = all
    .filter((h) => h.name !== name)
    .sort((a, b) => distanceMm(a, here) - distanceMm(b, here))
    .map((h) => (h.name.startsWith(`${hole.train} `) ? h.name.slice(hole.train.length + 1) : h.name))
    .map((h) => h.toLowerCase())
  const after = all.map((h) => (h.name === name && bushMm !== null ? { ...h, diameterMm: bushMm } : h))
  const conflicts = unlessRefused(() => clearance(after, 0.8, edge))?.filter((c) => c.between.includes(name)) ?? []
  return { marker, neighbours, conflicts }
}

/** What is reckoned from a map; nothing where its figures can't be. */
function unlessRefused<T>(reckon: () => T): T | null {
  try {
    return reckon()
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}

/** A hole that an earlier repair left off its centre, by more than a tenth of the module, goes back by so much. */
function correctionOf(trains: MovementTrain[], hole: Hole): HoleWork['correction'] {
  const arbors = trains.find((t) => t.train === hole.train)?.arbors ?? []
  const i = arbors.findIndex((a) => a.name === hole.arbor)
  const [below, here] = [arbors[i - 1], arbors[i]]
  const moduleMm = here?.placed.moduleMm ?? null
  if (!below?.at || !here?.at || !below.wheel || !here.pinion || moduleMm === null) return null
  const { moveMm, clockAngleDeg } = backToDistance(
    below.at,
    here.at,
    centreDistanceOf(below.wheel, here.pinion, moduleMm),
  )
  return Math.abs(moveMm) > 0.1 * moduleMm ? { mm: Math.abs(moveMm), deg: clockAngleDeg } : null
}
