import type { HoleFacts } from '../hole/facts.ts'
import type { PlacedArbor } from '../movement/trains.ts'
import type { PlateHole } from './clearance.ts'
import { ofArbor, samePlace } from './samePlace.ts'

type Plate = 'front' | 'back'

/** A pillar, screw or other round of the plates that is no pivot hole, mm. */
export interface Fixture {
  name: string
  kind: 'pillar' | 'screw' | 'other'
  plate: Plate | 'both'
  xMm: number
  yMm: number
  diameterMm: number
}

type Placed = Pick<PlacedArbor, 'train' | 'name' | 'xMm' | 'yMm'>

/** A round of a plate, mm as seen from the front; across is null for a hole that nobody has measured. */
interface Round {
  name: string
  kind: 'hole' | 'pillar' | 'screw' | 'other'
  xMm: number
  yMm: number
  acrossMm: number | null
}

/** What a drawing of one plate shows, mm as seen from the front. */
export interface PlateOutlines {
  plate: Plate
  edge: { xMm: number; yMm: number }[]
  rounds: Round[]
}

/** The rounds and the edge of one plate. A worn hole is drawn as it was made: its short way is the original circle. */
export function outlinesOf(
  map: { arbors: Placed[]; fixtures: Fixture[]; edge: { xMm: number; yMm: number }[] },
  holes: Pick<HoleFacts, 'train' | 'arbor' | 'plate' | 'shortAxisMm' | 'pivotMm'>[],
  plate: Plate,
): PlateOutlines {
  const arbors = map.arbors.flatMap(({ train, name, xMm, yMm }): Round[] => {
    if (xMm === null || yMm === null) return []
    const hole = holes.find((h) => samePlace(h, { ...ofArbor({ train, name }), plate }))
    return [{ name: `${name}, ${train}`, kind: 'hole', xMm, yMm, acrossMm: hole?.shortAxisMm ?? hole?.pivotMm ?? null }]
  })
  const fixtures = map.fixtures
    .filter((f) => f.plate === 'both' || f.plate === plate)
    .map(({ name, kind, xMm, yMm, diameterMm }): Round => ({ name, kind, xMm, yMm, acrossMm: diameterMm }))
  return { plate, edge: map.edge, rounds: [...arbors, ...fixtures] }
}

/** The holes of one plate by name, as they are or as they will be; mm. */
export function holesOfPlate<A extends Placed>(
  map: { arbors: A[]; fixtures: Fixture[] },
  plate: Plate,
  acrossMm: (arbor: A) => number,
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
