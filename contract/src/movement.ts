import {
  backToDistance,
  CENTRES,
  centreDistanceOf,
  clockAngleBetween,
  depthAfterWear,
  distanceMm,
  FieldError,
  meshDepths,
  predictedWear,
  shiftOfWear,
  trainSheet,
  type HoleWorn,
  type MapArbor,
  type PlateHole,
  type TrainSheet,
} from '@treadle/core'
import { TRAIN_NAMES } from './clock.ts'
import type { HoleChange, HolePlace } from './hole.ts'
import type { DepthTable } from './mend.ts'
import type { PlacedArbor, Plate, PlateMapChange } from './plateMap.ts'
import type { TrainSheetChange } from './trainSheet.ts'

/** An arbor of the map with its counts and turning from the train sheet. */
export type MovementArbor = MapArbor & { train: string; index: number; role: PlacedArbor['role']; placed: PlacedArbor }

/** One train of the movement, from the great wheel up. */
export interface MovementTrain {
  train: string
  arbors: MovementArbor[]
}

type MapOf = Pick<PlateMapChange, 'arbors'>
type Sheet = Pick<TrainSheetChange, 'train' | 'arbors' | 'hourly' | 'escape' | 'greatTurns'>
type MeasuredHole = Pick<
  HoleChange,
  'train' | 'arbor' | 'plate' | 'longAxisMm' | 'shortAxisMm' | 'wearDeg' | 'bushed' | 'pivotMm'
>

/** The trains of a plate map with their counts: the places are the map's, the counts and directions the sheet's. */
export function movementOf(map: MapOf | null, sheets: Sheet[]): MovementTrain[] {
  return TRAIN_NAMES.flatMap((train) => {
    const placed = (map?.arbors ?? []).filter((a) => a.train === train).sort((a, b) => a.index - b.index)
    if (placed.length === 0) return []
    const sheet = turning(sheets.find((s) => s.train === train))
    return [
      {
        train,
        arbors: placed.map((p) => {
          const counted = sheet?.arbors[p.index]
          return {
            train,
            placed: p,
            name: p.name,
            index: p.index,
            role: p.role,
            at: p.xMm === null || p.yMm === null ? null : { xMm: p.xMm, yMm: p.yMm },
            pinion: counted?.pinion ?? null,
            wheel: counted?.wheel ?? null,
            turn: counted?.turn ?? null,
            pinionAt: p.pinionAt,
            wheelAt: p.wheelAt,
          }
        }),
      },
    ]
  })
}

function turning(sheet: Sheet | undefined): TrainSheet | null {
  if (!sheet) return null
  let turns: TrainSheet
  try {
    turns = trainSheet(sheet.arbors, sheet.hourly, sheet.escape, sheet.greatTurns)
  } catch (error) {
    // Counts that can't be are the train sheet's to say; the plates then know none.
    if (error instanceof FieldError) return null
    throw error
  }
  if (sheet.hourly !== null) return turns
  // A strike train has no hourly arbor; its great wheel turns as the going one does, against the hands.
  return {
    ...turns,
    arbors: turns.arbors.map((a, i) => ({ ...a, turn: i % 2 === 0 ? 'anticlockwise' : 'clockwise' })),
  }
}

/** Which way a hole is expected to wear, degrees clockwise from 12; null where the map does not tell. */
export function expectedWear(movement: MovementTrain[], hole: Pick<HoleChange, 'train' | 'arbor' | 'plate'>) {
  const arbors = movement.find((t) => t.train === hole.train)?.arbors ?? []
  const at = arbors.findIndex((a) => a.name === hole.arbor)
  return at < 0 ? null : (predictedWear(arbors, hole.plate)[at] ?? null)
}

/** The worn holes of a train, as the depth of its meshes asks for them. */
export function wornOf(
  holes: MeasuredHole[],
  train: string,
  willBeBushed: (hole: MeasuredHole) => boolean,
): HoleWorn[] {
  return holes.flatMap((h) =>
    h.train === train && h.longAxisMm !== null && h.shortAxisMm !== null && h.wearDeg !== null
      ? [
          {
            arbor: h.arbor,
            plate: h.plate,
            wearMm: h.longAxisMm - h.shortAxisMm,
            wearDeg: h.wearDeg,
            bushed: h.bushed || willBeBushed(h),
          },
        ]
      : [],
  )
}

/** The depth of every mesh of a train: run in its wear, after the plan, and bushed in the middle of the slots instead. */
export function depthsOf(
  { train, arbors }: MovementTrain,
  holes: MeasuredHole[],
  willBeBushed: (hole: MeasuredHole) => boolean,
): DepthTable {
  const worn = wornOf(holes, train, willBeBushed)
  return Object.fromEntries(CENTRES.map((c) => [c, meshDepths(arbors, worn, c)])) as DepthTable
}

/**
 * What one hole's wear alone does to the gearing of its arbor: of its two meshes the one that suffers more, as a share
 * of its module; null where the map does not tell.
 */
export function depthOfHole(movement: MovementTrain[], hole: MeasuredHole): HolePlace['depth'] {
  const arbors = movement.find((t) => t.train === hole.train)?.arbors ?? []
  const i = arbors.findIndex((a) => a.name === hole.arbor)
  const here = arbors[i]
  if (!here?.at || hole.longAxisMm === null || hole.shortAxisMm === null || hole.wearDeg === null) return null
  const shift = shiftOfWear(hole.longAxisMm - hole.shortAxisMm, hole.wearDeg, 'worn') ?? { mm: 0, deg: 0 }
  const at = here.at
  const meshes = [
    { partner: arbors[i - 1], wheel: arbors[i - 1]?.wheel, pinion: here.pinion },
    { partner: arbors[i + 1], wheel: here.wheel, pinion: arbors[i + 1]?.pinion },
  ].flatMap(({ partner, wheel, pinion }) => {
    if (!partner?.at || !wheel || !pinion || distanceMm(partner.at, at) < 1e-6) return []
    const line = clockAngleBetween(partner.at, at)
    return [depthAfterWear(wheel, pinion, distanceMm(partner.at, at), shift.mm, shift.deg, line)]
  })
  const worst = meshes.sort((a, b) => Math.abs(b.percentOfModule) - Math.abs(a.percentOfModule))[0]
  return worst ? { moduleMm: worst.moduleMm, depthShiftMm: worst.depthShiftMm } : null
}

/** Less of a module than the first is within what a plate can be measured to; more than the second is no repair. */
const OFF_CENTRE_MODULES = { from: 0.1, to: 2 }

/** How far a hole that an earlier repair left off its centre goes back, by the counts of the mesh that drives it. */
function offCentreOf(movement: MovementTrain[], hole: Pick<HoleChange, 'train' | 'arbor'>): HolePlace['offCentre'] {
  const arbors = movement.find((t) => t.train === hole.train)?.arbors ?? []
  const i = arbors.findIndex((a) => a.name === hole.arbor)
  const [below, here] = [arbors[i - 1], arbors[i]]
  const moduleMm = here?.placed.moduleMm ?? null
  if (!below?.at || !here?.at || !below.wheel || !here.pinion || moduleMm === null) return null
  const { moveMm, clockAngleDeg } = backToDistance(
    below.at,
    here.at,
    centreDistanceOf(below.wheel, here.pinion, moduleMm),
  )
  const modules = Math.abs(moveMm) / moduleMm
  return modules > OFF_CENTRE_MODULES.from && modules < OFF_CENTRE_MODULES.to
    ? { mm: Math.abs(moveMm), deg: clockAngleDeg }
    : null
}

/** All that the plate map tells of a hole. */
export function placeOfHole(movement: MovementTrain[], hole: MeasuredHole): HolePlace {
  return { depth: depthOfHole(movement, hole), offCentre: offCentreOf(movement, hole) }
}

/** The holes of one plate by name, as they are or as they will be; mm. */
export function holesOfPlate(
  map: Pick<PlateMapChange, 'arbors' | 'fixtures'>,
  plate: Plate,
  acrossMm: (arbor: PlacedArbor) => number,
): PlateHole[] {
  return [
    ...map.arbors.flatMap((a) =>
      a.xMm === null || a.yMm === null
        ? []
        : [{ name: `${a.train} ${a.name}`, xMm: a.xMm, yMm: a.yMm, diameterMm: acrossMm(a) }],
    ),
    ...map.fixtures.flatMap((f) =>
      f.plate === 'both' || f.plate === plate
        ? [{ name: f.name, xMm: f.xMm, yMm: f.yMm, diameterMm: f.diameterMm }]
        : [],
    ),
  ]
}
