import type { HoleFacts } from '../hole/facts.ts'
import { ofArbor, sameArbor } from '../plate/samePlace.ts'

/** An end of an arbor: where a pivot runs in a hole. */
export interface ArborEnd {
  train: string
  arbor: string
  plate: 'front' | 'back'
}

interface Known {
  plateMap: { arbors: { train: string; name: string }[] } | null
  trainSheets: { train: string; arbors: { name: string }[] }[]
  holes: Pick<HoleFacts, 'train' | 'arbor'>[]
}

/**
 * Every end of every arbor that these trains are known to have, by their sheets, the plates set out and the holes listed;
 * and the trains of which no arbor is known at all, so that nobody can say what was left out.
 */
export function endsOf(
  trains: string[],
  { plateMap, trainSheets, holes }: Known,
): { ends: ArborEnd[]; unknown: string[] } {
  const named = [
    ...trainSheets.flatMap((s) => s.arbors.map((a) => ({ train: s.train, name: a.name }))),
    ...(plateMap?.arbors ?? []),
    ...holes.map((h) => ({ train: h.train, name: h.arbor })),
  ].map(ofArbor)
  const arbors = named.filter((a, i) => trains.includes(a.train) && named.findIndex((b) => sameArbor(a, b)) === i)
  return {
    ends: arbors.flatMap((a) => [
      { ...a, plate: 'front' as const },
      { ...a, plate: 'back' as const },
    ]),
    unknown: trains.filter((t) => !arbors.some((a) => a.train === t)),
  }
}

/** By which key it is said that all other holes, or pivots, of a train were looked at and are sound. */
export function lookedKey(what: 'holes' | 'pivots', train: string): string {
  return `looked:${what}:${train}`
}
