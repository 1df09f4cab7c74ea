import { PLATES, type ArborTestRow, type Hole, type PlacedArbor, type Plate } from '@treadle/contract'

/** One arbor of the walk between the plates. */
export type TestStop = Pick<PlacedArbor, 'train' | 'name' | 'index' | 'role'>

/** The walk: one train at a time, great wheel first; the map's arbors, or those that holes name where there is no map. */
export function testOrder(
  placed: TestStop[],
  holes: Pick<Hole, 'train' | 'arbor' | 'arborIndex' | 'role'>[],
): TestStop[] {
  const named = holes.map((h) => ({
    train: h.train as TestStop['train'],
    name: h.arbor,
    index: h.arborIndex,
    role: h.role,
  }))
  const all = [...placed, ...named].filter(
    (a, i, list) => list.findIndex((b) => b.train === a.train && b.name === a.name) === i,
  )
  const trains = ['going', 'strike', 'chime']
  return all.sort((a, b) => trains.indexOf(a.train) - trains.indexOf(b.train) || a.index - b.index)
}

/** Holes of a plate that nobody has judged or waived; the plate counts as judged when there is none. */
export function unjudged(stops: TestStop[], holes: Hole[], plate: Plate, done: (hole: Hole) => boolean): TestStop[] {
  return stops.filter((s) => {
    const hole = holes.find((h) => h.train === s.train && h.arbor === s.name && h.plate === plate)
    return !hole || !done(hole)
  })
}

/** Whether an arbor has been gone through: tried in every position, and both its holes judged. */
export function gone(stop: TestStop, tests: ArborTestRow[], holes: Hole[], done: (hole: Hole) => boolean): boolean {
  const tried = tests.some((t) => t.train === stop.train && t.arbor === stop.name && t.tried)
  return tried && PLATES.every((plate) => unjudged([stop], holes, plate, done).length === 0)
}
