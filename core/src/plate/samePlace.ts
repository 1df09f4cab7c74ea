interface OfArbor {
  train: string
  arbor: string
}

/** An end of an arbor, as holes and pivots name it. */
export type EndPlace = OfArbor & { plate: string }

/** Whether two things belong to the same arbor. */
export function sameArbor(a: OfArbor, b: OfArbor): boolean {
  return a.train === b.train && a.arbor === b.arbor
}

/** Whether two things belong to the same end of the same arbor: a hole and its pivot. */
export function samePlace(a: EndPlace, b: EndPlace): boolean {
  return sameArbor(a, b) && a.plate === b.plate
}

/** An arbor of the plate map, named as holes and pivots name it. */
export function ofArbor({ train, name }: { train: string; name: string }): OfArbor {
  return { train, arbor: name }
}
