import type { Hole, Plate, PlateMapChange } from '@treadle/contract'

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
  map: Pick<PlateMapChange, 'arbors' | 'fixtures' | 'edge'>,
  holes: (Pick<Hole, 'train' | 'arbor' | 'shortAxisMm' | 'pivotMm'> & { plate: string })[],
  plate: Plate,
): PlateOutlines {
  const arbors = map.arbors.flatMap(({ train, name, xMm, yMm }): Round[] => {
    if (xMm === null || yMm === null) return []
    const hole = holes.find((h) => h.train === train && h.arbor === name && h.plate === plate)
    return [{ name: `${name}, ${train}`, kind: 'hole', xMm, yMm, acrossMm: hole?.shortAxisMm ?? hole?.pivotMm ?? null }]
  })
  const fixtures = map.fixtures
    .filter((f) => f.plate === 'both' || f.plate === plate)
    .map(({ name, kind, xMm, yMm, diameterMm }): Round => ({ name, kind, xMm, yMm, acrossMm: diameterMm }))
  return { plate, edge: map.edge, rounds: [...arbors, ...fixtures] }
}

/** Words as a drawing may hold them: without line breaks and other control characters, which XML and DXF forbid. */
export function printable(words: string): string {
  return words.replace(/[\p{Cc}\p{Cs}\u2028\u2029\ufffe\uffff]+/gu, ' ')
}
