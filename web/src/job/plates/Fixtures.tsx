import type { Fixture, Plate } from '@treadle/contract'
import styles from './Plates.module.css'

/** Pillars and screws of a plate to scale, in mm of the drawing. */
export function Fixtures({
  fixtures,
  plate,
  x,
  unit,
}: {
  fixtures: Fixture[]
  plate: Plate
  x: (mm: number) => number
  unit: number
}) {
  return fixtures
    .filter((f) => f.plate === 'both' || f.plate === plate)
    .map((f) => (
      <circle
        key={f.name}
        cx={x(f.xMm)}
        cy={-f.yMm}
        r={f.diameterMm / 2}
        className={f.kind === 'pillar' ? styles.pillar : styles.screw}
        strokeWidth={unit / 5}
      >
        <title>{f.name}</title>
      </circle>
    ))
}
