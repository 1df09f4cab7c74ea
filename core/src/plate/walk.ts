import type { HoleFacts } from '../hole/facts.ts'
import type { PlacedArbor } from '../movement/trains.ts'
import { TRAIN_NAMES } from '../train/names.ts'
import { ofArbor, sameArbor, samePlace } from './samePlace.ts'

const PLATES = ['front', 'back'] as const
type Plate = (typeof PLATES)[number]

/** One arbor of the walk between the plates. */
export interface TestStop {
  train: string
  name: string
  /** place in the train, 0: the great wheel */
  index: number
  role: PlacedArbor['role']
}

/** The walk: one train at a time, great wheel first; the map's arbors, or those that holes name where there is no map. */
export function testOrder(
  placed: TestStop[],
  holes: (Pick<HoleFacts, 'train' | 'arbor' | 'role'> & { arborIndex: number })[],
): TestStop[] {
  const named = holes.map((h) => ({
    train: h.train,
    name: h.arbor,
    index: h.arborIndex,
    role: h.role,
  }))
  const all = [...placed, ...named].filter(
    (a, i, list) => list.findIndex((b) => sameArbor(ofArbor(a), ofArbor(b))) === i,
  )
  const rank = (stop: TestStop) => (TRAIN_NAMES as readonly string[]).indexOf(stop.train)
  return all.sort((a, b) => rank(a) - rank(b) || a.index - b.index)
}

/** Holes of a plate that nobody has judged or waived; the plate counts as judged when there is none. */
export function unjudged<H extends HoleFacts>(
  stops: TestStop[],
  holes: H[],
  plate: Plate,
  done: (hole: H) => boolean,
): TestStop[] {
  return stops.filter((s) => {
    const hole = holes.find((h) => samePlace(h, { ...ofArbor(s), plate }))
    return !hole || !done(hole)
  })
}

/** Whether an arbor has been gone through: tried in every position, and both its holes judged. */
export function gone<H extends HoleFacts>(
  stop: TestStop,
  tests: { train: string; arbor: string; tried: boolean }[],
  holes: H[],
  done: (hole: H) => boolean,
): boolean {
  const tried = tests.some((t) => sameArbor(t, ofArbor(stop)) && t.tried)
  return tried && PLATES.every((plate) => unjudged([stop], holes, plate, done).length === 0)
}
