/** What pendulums are made of, in the order in which one looks for it. */
export const PENDULUM_MATERIALS = [
  'steel',
  'brass',
  'wood',
  'nickel steel',
  'lead',
  'iron',
  'zinc',
  'aluminium',
  'glass',
  'mercury',
  'shot',
] as const
export type PendulumMaterial = (typeof PENDULUM_MATERIALS)[number]

interface MaterialFacts {
  /** g/cm³ */
  density: number
  /** linear expansion along it, millionths a degree; of mercury a third of its volume's */
  alphaPerMillion: number
}

/**
 * Density and expansion at room temperature: CRC Handbook; wood is pine along the grain (Wood Handbook, FPL), nickel
 * steel the alloy of 36 % nickel, shot lead balls that fill three fifths of the room.
 */
export const MATERIAL_FACTS: Record<PendulumMaterial, MaterialFacts> = {
  steel: { density: 7.85, alphaPerMillion: 11.5 },
  brass: { density: 8.45, alphaPerMillion: 19 },
  wood: { density: 0.5, alphaPerMillion: 4.5 },
  'nickel steel': { density: 8.1, alphaPerMillion: 1.2 },
  lead: { density: 11.34, alphaPerMillion: 29 },
  iron: { density: 7.2, alphaPerMillion: 10.5 },
  zinc: { density: 7.14, alphaPerMillion: 30 },
  aluminium: { density: 2.7, alphaPerMillion: 23.5 },
  glass: { density: 2.5, alphaPerMillion: 9 },
  mercury: { density: 13.546, alphaPerMillion: 60.6 },
  shot: { density: 6.8, alphaPerMillion: 29 },
}

/**
 * What ten hundredths more of relative humidity do in the end to a bare pine rod, s/day; a varnished one follows slowly
 * and less.
 *
 * Along the grain pine shrinks 0.15 % from green (28 % of moisture) to dry, and takes up 1.7 % of moisture for it.
 *
 * @see Wood Handbook, Forest Products Laboratory, chapter 4
 */
export const DAMP_SECONDS_PER_DAY = (-43_200 * 0.0015 * 0.017) / 0.28
