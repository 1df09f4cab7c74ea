import { FieldError } from '../check/require.ts'
import { wearOf, type HoleFacts } from '../hole/facts.ts'
import type { HoleJudged } from '../hole/judge.ts'
import type { Movement } from '../hole/ofMovement.ts'
import { placeOfHole } from '../hole/place.ts'
import type { PlacedArbor } from '../movement/trains.ts'
import { clearance } from '../plate/clearance.ts'
import { markerPlace, type MarkerPlace } from '../plate/marker.ts'
import { holesOfPlate, type Fixture } from '../plate/outlines.ts'
import { distanceMm } from '../plate/point.ts'
import { ofArbor, sameArbor, samePlace } from '../plate/samePlace.ts'
import { assignBushes } from './assign.ts'
import { byWorkingOrder } from './order.ts'
import type { BushingRules } from './schools.ts'
import { bushingSteps, type BushingMethod, type BushingStep, type HoleWork, type OldBush } from './steps.ts'
import { turnedBush, type TurnedBush } from './turned.ts'

/** A hole of the list, as far as its work asks. */
export interface HoleOfPlan extends HoleFacts {
  id: string
  arborIndex: number
  old: OldBush
  sinkMm: number | null
}

/** What is on record of the work on one hole. */
export interface WorkOnHole {
  holeId: string
  method: BushingMethod
  spoilt: boolean
  stockId: string | null
  cutterMm: number | null
  done: string[]
}

/** A bush of the drawers, of whatever sizes are known of it. */
export interface BushInDrawer {
  id: string
  kind: string
  outsideMm: number | null
  insideMm: number | null
  lengthMm: number | null
  count: number
  /** of its count, how many are promised to jobs and not yet taken */
  reserved: number
}

/** What is known of a job, as far as its bushes ask. */
export interface PlanFacts<H extends HoleOfPlan, R extends WorkOnHole> {
  holes: H[]
  bushings: R[]
  pivots: { train: string; arbor: string; plate: string; finishedMm: number | null }[]
  reservations: { stockId: string; count: number; taken: boolean }[]
  plateMap: {
    arbors: (PlacedArbor & { cock: string })[]
    fixtures: Fixture[]
    edge: { xMm: number; yMm: number }[]
  } | null
}

/** The workshop's ways, as far as the plan asks. */
export interface PlanWays {
  bushing: BushingRules
  bushingMethod: BushingMethod
  markerReachMm: number
}

/** One hole of the plan with all that its work names. */
export interface PlannedHole<H extends HoleOfPlan, R extends WorkOnHole> {
  hole: H
  judged: HoleJudged
  row: R | undefined
  work: HoleWork
  steps: BushingStep[]
  marker: MarkerPlace | null
  /** the bush of the drawers that the plan gives it; null: to be turned */
  stockId: string | null
  turned: TurnedBush | null
  /** by the hole it leaves an old bush stood there, and its size is not known yet */
  oldHoleOpen: boolean
  /** what a bush of this size leaves too little plate to */
  conflicts: { to: string; leftMm: number }[]
  /** its pivot is on record and not finished */
  pivotOpen: boolean
  pivotMm: number | null
}

export interface Plan<H extends HoleOfPlan, R extends WorkOnHole> {
  holes: PlannedHole<H, R>[]
  /** cutters and how many holes each cuts */
  cutters: [mm: number, holes: number][]
  withoutCutter: PlannedHole<H, R>[]
  /** near the limit and the movement open: proposed too */
  doItNow: { hole: H; judged: HoleJudged }[]
}

const MARKER_SPREAD_DEG = 60
export const LEAST_WALL_MM = 0.8

/** Where a hole’s marker is laid; null where it goes nowhere, or the hole is not on the map. */
export type MarkerAt<H> = (hole: H) => MarkerPlace | null

/**
 * Tells where the marker of each hole is laid, reckoned once, when it is asked about: nearly all the time that a plan
 * takes goes there, and it stays the same as long as the plates do.
 */
export function markersOf<H extends HoleOfPlan>(
  { plateMap, holes }: Pick<PlanFacts<H, WorkOnHole>, 'plateMap' | 'holes'>,
  reachMm: number,
): MarkerAt<H> {
  const known = new Map<string, MarkerPlace | null>()
  const reckon = (hole: H): MarkerPlace | null => {
    if (!plateMap) return null
    const now = holesOfPlate(plateMap, hole.plate, (a) => takenBy(a, hole.plate, holes).mm)
    if (!now.some((h) => h.name === nameOf(hole))) return null
    // A mark is not made in a hole, nor in an oil sink.
    return unlessRefused(() => markerPlace(now, nameOf(hole), reachMm, MARKER_SPREAD_DEG, edgeOf(plateMap)))
  }
  return (hole) => {
    const there = known.get(hole.id)
    if (there !== undefined) return there
    const marker = reckon(hole)
    known.set(hole.id, marker)
    return marker
  }
}

/**
 * All bushes of a movement as one plan, in the order of work, each given its bush so that none is promised twice.
 *
 * @param markerAt - of these holes on this map, where it was asked before
 */
export function planOf<H extends HoleOfPlan, R extends WorkOnHole>(
  data: PlanFacts<H, R>,
  { trains, judged: judge }: Pick<Movement, 'trains' | 'judged'>,
  ways: PlanWays,
  stock: BushInDrawer[],
  markerAt: MarkerAt<H> = markersOf(data, ways.markerReachMm),
): Plan<H, R> {
  const judged = [...data.holes].sort(byWorkingOrder).map((hole) => ({ hole, judged: judge(hole) }))
  const toBush = judged.filter(({ hole, judged: j }) => j.verdict === 'bush' || hole.bushed)
  const given = assigned(toBush, data, ways, stock)
  const outsides = new Map(
    toBush.flatMap(({ hole, judged: j }) => (j.plan?.bushOutsideMm == null ? [] : [[hole.id, j.plan.bushOutsideMm]])),
  )
  const holes = toBush.map(({ hole, judged: j }): PlannedHole<H, R> => {
    const row = data.bushings.find((b) => b.holeId === hole.id)
    const begun = standing(row, j)
    const pivot = data.pivots.find((p) => samePlace(p, hole))
    const stockId = begun?.stockId ?? given[hole.id] ?? null
    const plan = j.plan
    const bush = stock.find((s) => s.id === stockId)
    const turned = plan?.bushOutsideMm != null ? turnedBush(plan.bushOutsideMm, plan.drilledMm, plan.lengthMm) : null
    const around = surroundings(data, hole, outsides)
    const marker = markerAt(hole)
    const placed = data.plateMap?.arbors.find((a) => sameArbor(ofArbor(a), hole))
    const work: HoleWork = {
      plate: hole.plate,
      method: row?.method ?? ways.bushingMethod,
      old: hole.old,
      oldHoleMm: hole.oldHoleMm,
      sinkMm: hole.sinkMm,
      spoilt: row?.spoilt ?? false,
      cock: placed?.cock === hole.plate,
      wearMm: wearOf(hole) ?? 0,
      wearDeg: hole.wearDeg,
      marker: marker && {
        reachMm: ways.markerReachMm,
        fromDeg: (marker.clockAngleDeg - MARKER_SPREAD_DEG / 2 + 360) % 360,
        toDeg: (marker.clockAngleDeg + MARKER_SPREAD_DEG / 2) % 360,
      },
      neighbours: around.neighbours,
      correction: placeOfHole(trains, hole).offCentre,
      cutterMm: begun?.cutterMm ?? plan?.cutterMm ?? null,
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
      marker,
      stockId: bush ? stockId : null,
      turned,
      oldHoleOpen: (hole.old === 'pressed' || hole.old === 'screwed') && hole.oldHoleMm === null,
      conflicts: around.conflicts,
      pivotOpen: pivot !== undefined && pivot.finishedMm === null,
      pivotMm: j.pivotMm,
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

/**
 * What was begun with, as long as it can stand: once the plate is cut it does; before that a hole that turns out larger,
 * as when an old bush comes out, takes another cutter and another bush.
 */
function standing<R extends WorkOnHole>(row: R | undefined, { plan }: HoleJudged): R | undefined {
  if (!row || row.done.includes('cut')) return row
  return row.cutterMm !== null && plan !== null && row.cutterMm < plan.leastCutterMm - 1e-6 ? undefined : row
}

/** Bushes of the drawers for all holes at once; what other jobs were promised is not there to give. */
function assigned<H extends HoleOfPlan, R extends WorkOnHole>(
  toBush: { hole: H; judged: HoleJudged }[],
  data: PlanFacts<H, R>,
  ways: PlanWays,
  stock: BushInDrawer[],
): Record<string, string | null> {
  const mine = (stockId: string) =>
    data.reservations.filter((r) => r.stockId === stockId && !r.taken).reduce((sum, r) => sum + r.count, 0)
  const bushes = stock.flatMap(({ id, kind, outsideMm, insideMm, lengthMm, count, reserved }) =>
    kind === 'bush' && outsideMm !== null && insideMm !== null && lengthMm !== null
      ? [{ id, outsideMm, insideMm, lengthMm, count: Math.max(0, count - reserved + mine(id)) }]
      : [],
  )
  const holes = toBush.flatMap(({ hole, judged: j }) => {
    const { plan } = j
    const row = data.bushings.find((b) => b.holeId === hole.id)
    const settled = hole.bushed || standing(row, j)?.stockId != null
    if (settled || plan?.cutterMm == null || hole.pivotMm === null || hole.plateMm === null) return []
    return [
      {
        name: hole.id,
        finishedPivotMm: j.pivotMm ?? hole.pivotMm,
        cutterMm: plan.cutterMm,
        plateMm: hole.plateMm,
        role: hole.role,
      },
    ]
  })
  try {
    return assignBushes(holes, bushes, ways.bushing).assigned
  } catch (error) {
    // A hole that no bush can go in is shown by its own plan; the drawers then give none.
    if (error instanceof FieldError) return {}
    throw error
  }
}

/** What a hole of the plate takes of it: the hole, its oil sink, or the bush it will have; whichever is widest, mm. */
interface Taken {
  mm: number
  what: 'hole' | 'oil sink' | 'bush'
}

type PlateMapOfPlan = NonNullable<PlanFacts<HoleOfPlan, WorkOnHole>['plateMap']>

const nameOf = (hole: HoleOfPlan) => `${hole.train} ${hole.arbor}`
const edgeOf = (map: PlateMapOfPlan) => (map.edge.length >= 3 ? map.edge : undefined)

/** @param bushes - what each hole’s bush will be across, mm, by the hole’s id; none: as the plate is */
function takenBy(
  arbor: { train: string; name: string },
  plate: HoleOfPlan['plate'],
  holes: HoleOfPlan[],
  bushes?: ReadonlyMap<string, number>,
): Taken {
  const there = holes.find((h) => samePlace(h, { ...ofArbor(arbor), plate }))
  const ways: Taken[] = [
    { mm: there?.longAxisMm ?? there?.pivotMm ?? 1, what: 'hole' },
    { mm: there?.sinkMm ?? 0, what: 'oil sink' },
    { mm: there ? (bushes?.get(there.id) ?? 0) : 0, what: 'bush' },
  ]
  return ways.reduce((widest, way) => (way.mm > widest.mm ? way : widest))
}

/** What stands about a hole on its plate: the neighbours, and what a bush comes too near to. */
function surroundings<H extends HoleOfPlan, R extends WorkOnHole>(
  { plateMap: map, holes }: PlanFacts<H, R>,
  hole: H,
  bushes: ReadonlyMap<string, number>,
) {
  const nothing = { neighbours: [], conflicts: [] }
  if (!map) return nothing
  const name = nameOf(hole)
  const now = holesOfPlate(map, hole.plate, (a) => takenBy(a, hole.plate, holes).mm)
  const here = now.find((h) => h.name === name)
  if (!here) return nothing
  const own = (other: string) => (other.startsWith(`${hole.train} `) ? other.slice(hole.train.length + 1) : other)
  const neighbours = now
    .filter((h) => h.name !== name)
    .sort((a, b) => distanceMm(a, here) - distanceMm(b, here))
    .map((h) => own(h.name).toLowerCase())
  const bushMm = bushes.get(hole.id)
  if (bushMm === undefined) return { neighbours, conflicts: [] }
  const after = holesOfPlate(map, hole.plate, (a) => takenBy(a, hole.plate, holes, bushes).mm).map((h) =>
    h.name === name ? { ...h, diameterMm: bushMm } : h,
  )
  const conflicts = (unlessRefused(() => clearance(after, LEAST_WALL_MM, edgeOf(map))) ?? []).flatMap(
    ({ between, leftMm }) => {
      if (!between.includes(name)) return []
      const other = between.find((b) => b !== name) ?? 'edge'
      const arbor = map.arbors.find((a) => `${a.train} ${a.name}` === other)
      const to =
        other === 'edge'
          ? 'the edge'
          : arbor
            ? `${own(other)}’s ${takenBy(arbor, hole.plate, holes, bushes).what}`
            : other
      return [{ to, leftMm }]
    },
  )
  return { neighbours, conflicts }
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
