const STANDARD_GRAVITY = 9.80665
const WEIGHTS_KG = [0.5, 1, 2, 5, 10, 20, 50, 100]

/**
 * An amount of energy, J, said so that it is felt: "a 2 kg weight falling 60 cm".
 *
 * The weight is the lightest round one whose fall is no more than 80 cm, a table's height.
 */
export function feltEnergy(energyJ: number): string {
  const kg = WEIGHTS_KG.find((w) => energyJ / (w * STANDARD_GRAVITY) <= 0.8) ?? 100
  const fallCm = (100 * energyJ) / (kg * STANDARD_GRAVITY)
  return `a ${kg} kg weight falling ${fallCm >= 10 ? fallCm.toFixed(0) : fallCm.toFixed(1)} cm`
}

/** Energy of a weight that may fall by so much, J. */
export function weightEnergy(massKg: number, fallMm: number): number {
  return (massKg * STANDARD_GRAVITY * fallMm) / 1000
}
