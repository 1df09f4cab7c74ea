/** What is pegged out after the bath: each plate, the small things, and every hole on the list. */
export function pegPlaces(holes: { train: string; arbor: string; plate: string }[]): string[] {
  return [
    'front plate, all holes',
    'back plate, all holes',
    'cocks and pulleys',
    // Two trains may each have a third arbor.
    ...holes.map((h) => `${h.arbor}, ${h.plate} plate${h.train === 'going' ? '' : `, ${h.train} train`}`),
  ]
}

/** By which key it is kept that a place was pegged. */
export function pegKey(place: string): string {
  return `pegged: ${place}`
}
