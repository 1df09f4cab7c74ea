/** What is pegged out after the bath: each plate, the small things, and every hole on the list. */
export function pegPlaces(holes: { arbor: string; plate: string }[]): string[] {
  return [
    'front plate, all holes',
    'back plate, all holes',
    'cocks and pulleys',
    ...holes.map((h) => `${h.arbor}, ${h.plate} plate`),
  ]
}

/** By which key it is kept that a place was pegged. */
export function pegKey(place: string): string {
  return `pegged: ${place}`.slice(0, 80)
}
