import type { PlacedArbor, PlateMapChange, PlateMapRow, TrainSheetRow } from '@treadle/contract'
import { v7 as uuid } from 'uuid'

/** An arbor that nobody has placed yet. */
export function blankArbor(place: Pick<PlacedArbor, 'train' | 'name' | 'index' | 'role'>): PlacedArbor {
  return {
    ...place,
    xMm: null,
    yMm: null,
    pinionAt: 0.5,
    wheelAt: 0.5,
    frontMm: null,
    backMm: null,
    cock: '',
    moduleMm: null,
  }
}

/** The map as it is changed: what stands, or a first one with the arbors that the train sheets name. */
export function draftMap(map: PlateMapRow | null, sheets: TrainSheetRow[]): PlateMapChange {
  if (map) {
    const { clockId: _, ...rest } = map
    return rest
  }
  return {
    id: uuid(),
    version: 0,
    arbors: sheets.flatMap(arborsOfSheet),
    fixtures: [],
    edge: [],
    betweenMm: null,
    photoId: null,
    trueing: null,
    note: '',
  }
}

/** The arbors that a train sheet names, and the pallets’ after its escape wheel. */
export function arborsOfSheet({
  train,
  arbors,
  escape,
}: Pick<TrainSheetRow, 'train' | 'arbors' | 'escape'>): PlacedArbor[] {
  const last = arbors.length - 1
  const placed = arbors.map(({ name }, index) =>
    blankArbor({ train, name, index, role: escape && index === last ? 'escape' : 'other' }),
  )
  return escape ? [...placed, blankArbor({ train, name: 'Pallets', index: arbors.length, role: 'pallet' })] : placed
}

/** The arbors that train sheets name and the map does not have yet. */
export function missingArbors(draft: PlateMapChange, sheets: TrainSheetRow[]): PlacedArbor[] {
  return sheets
    .flatMap(arborsOfSheet)
    .filter((a) => !draft.arbors.some((b) => b.train === a.train && b.index === a.index))
}

/** "Pillar 3": the first of its kind whose number is free. */
export function freeName(kind: string, { fixtures }: Pick<PlateMapChange, 'fixtures'>): string {
  let n = 1
  while (fixtures.some((f) => f.name === `${kind} ${n}`)) n++
  return `${kind} ${n}`
}
