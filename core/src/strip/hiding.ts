/** Where things hide: a reminder for what is about to be lifted, or null. */
export function hidingPlace(part: string): string | null {
  return HIDING.find(([pattern]) => pattern.test(part.toLowerCase()))?.[1] ?? null
}

const HIDING: [RegExp, string][] = [
  [/lever|detent|rack|lifting/, 'Look under it: a thin washer is often held there by old oil, and drops later.'],
  [/hand|cannon|minute/, 'Look on its back: the bowed washer sticks to the hand or the cannon pinion.'],
  [/cock|bridge/, 'Shims and steady pins stay behind under it; note the paper or foil packing.'],
  [/barrel|great wheel|fusee/, 'The click’s screw, its spring and a washer behind the ratchet come with it.'],
  [/plate/, 'Count the pillar pins; the longest is not always where you think. Feel for a washer on each oily arbor.'],
  [/dial|moon/, 'Dial pins and the hour wheel’s tension washer lie in the case or behind the dial.'],
  [/hammer|gong|bell/, 'A washer of leather or cloth sits under the gong and the bell nut.'],
  [/pulley|weight|line/, 'The line’s knot sleeve and the pulley pin roll away.'],
]
