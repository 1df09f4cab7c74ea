/**
 * What a function makes of two objects, made once for each pair as long as both are there: what is dear to reckon is
 * shared by all who ask for it.
 */
export function once<A extends object, B extends object, T>(make: (a: A, b: B) => T): (a: A, b: B) => T {
  const known = new WeakMap<A, WeakMap<B, { made: T }>>()
  return (a, b) => {
    const ofA = known.get(a) ?? new WeakMap<B, { made: T }>()
    known.set(a, ofA)
    const there = ofA.get(b) ?? { made: make(a, b) }
    ofA.set(b, there)
    return there.made
  }
}
